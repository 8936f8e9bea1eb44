import { Plane, Raycaster, Vector2, Vector3 } from 'three';
import type { Desk } from '../context';
import type { ItemRow } from '../rows';
import { soundOf } from '../speech/recorder.svelte';

/** What the hand holds: an item on the floor, its heading, the free view, or nothing yet. */
type Held =
    | { kind: 'move'; item: ItemRow; foot: Vector3; x: number; y: number; by: Vector3 }
    | { kind: 'turn'; item: ItemRow; headingDeg: number }
    | { kind: 'orbit' | 'pan' }
    | { kind: 'click'; x: number; y: number };

/** Pixels that a click may wander before it is a drag. */
const STEADY = 4;
/** Metres below which a move is none. */
const LEAST = 0.004;
const floorAt = (y: number) => new Plane(new Vector3(0, 1, 0), -y);

/** The pointer in the picture: picks, moves and turns what stands there, or goes around it; takes what is let go over it. */
export class FrameHand {
    private held: Held | null = null;

    constructor(
        private readonly desk: Desk,
        private readonly canvas: () => HTMLCanvasElement | undefined,
        private readonly changed: () => void,
    ) {}

    private get painter() {
        return this.desk.view.painter;
    }

    /** The heading that an item is being turned to, degrees. */
    turning(item: ItemRow): number {
        return this.held?.kind === 'turn' ? this.held.headingDeg : item.headingDeg;
    }

    /** Place of the pointer in the picture, -1 to 1 to the right and up. */
    private place(e: MouseEvent): [number, number] {
        const r = this.canvas()?.getBoundingClientRect();
        return r ? [((e.clientX - r.left) / r.width) * 2 - 1, 1 - ((e.clientY - r.top) / r.height) * 2] : [0, 0];
    }

    /** Where the sight through a place of the picture meets a level. */
    private onLevel(x: number, y: number, level: number): Vector3 | null {
        if (!this.painter) return null;
        const caster = new Raycaster();
        caster.setFromCamera(new Vector2(x, y), this.painter.camera);
        return caster.ray.intersectPlane(floorAt(level), new Vector3());
    }

    /** The free view goes on from what is seen now. */
    private leave(): void {
        const { view, scene, playhead } = this.desk;
        if (view.source.kind !== 'free') view.leave(view.at(scene.posesAt(playhead.frame), playhead.frame).view);
    }

    readonly down = (e: PointerEvent): void => {
        const { scene, view, playhead } = this.desk;
        if (!this.painter || playhead.playing) return;
        this.canvas()?.focus();
        // Shift and the middle button move the view, whatever is under them.
        const hit = e.button === 0 && !e.shiftKey ? this.painter.pick(...this.place(e)) : null;
        if (view.aiming && e.button === 0) {
            if (hit) view.aimed(hit);
            return;
        }
        const item = hit?.item ? scene.find('items', Number(hit.item.slice(1))) : null;
        if (!item || !scene.isSelected('items', item.id) || !scene.canEdit) {
            this.held = { kind: 'click', x: e.clientX, y: e.clientY };
            return;
        }
        const foot = this.painter.stage.footing(`i${item.id}`);
        if (foot) this.held = { kind: 'move', item, foot, x: e.clientX, y: e.clientY, by: new Vector3() };
    };

    /** The knob on the ring around an item is taken. */
    turn(e: PointerEvent, item: ItemRow): void {
        e.stopPropagation();
        this.canvas()?.focus();
        this.held = { kind: 'turn', item, headingDeg: item.headingDeg };
    }

    readonly move = (e: PointerEvent): void => {
        const { view } = this.desk;
        if (!this.held || !this.painter) return;
        if (this.held.kind === 'click' && Math.hypot(e.clientX - this.held.x, e.clientY - this.held.y) > STEADY) {
            this.leave();
            this.held = { kind: e.shiftKey || e.buttons === 2 || e.buttons === 4 ? 'pan' : 'orbit' };
        }
        if (this.held.kind === 'orbit') view.orbit(e.movementX, e.movementY);
        else if (this.held.kind === 'pan') view.pan(e.movementX, e.movementY);
        else if (this.held.kind === 'move') {
            // Where it stands follows the pointer, wherever it was taken hold of: far steadier than the grazing ray at its head.
            const stands = this.painter.project(this.held.foot);
            const r = this.canvas()?.getBoundingClientRect();
            if (!r) return;
            const at = this.onLevel(
                stands.x + (2 * (e.clientX - this.held.x)) / r.width,
                stands.y - (2 * (e.clientY - this.held.y)) / r.height,
                this.held.foot.y,
            );
            if (at) this.held.by.copy(at).sub(this.held.foot);
            this.changed();
        } else if (this.held.kind === 'turn') {
            const foot = this.painter.stage.footing(`i${this.held.item.id}`);
            const at = foot && this.onLevel(...this.place(e), foot.y);
            if (foot && at) this.held.headingDeg = (Math.atan2(at.x - foot.x, at.z - foot.z) * 180) / Math.PI;
            this.changed();
        }
    };

    /** While the hand holds it, the picture of it follows; the core's answer replaces the guess. */
    preview(): void {
        const held = this.held;
        if (!this.painter || (held?.kind !== 'move' && held?.kind !== 'turn')) return;
        const group = this.painter.stage.groupOf(`i${held.item.id}`);
        if (!group) return;
        if (held.kind === 'move') group.position.add(held.by);
        else group.rotation.set(0, (held.headingDeg * Math.PI) / 180, 0);
        group.updateMatrixWorld(true);
        const { view, scene, playhead } = this.desk;
        this.painter.redraw(view.at(scene.posesAt(playhead.frame), playhead.frame).view);
    }

    readonly up = (e: PointerEvent): void => {
        const { scene } = this.desk;
        const held = this.held;
        this.held = null;
        if (!held) return;
        if (held.kind === 'click') {
            const hit = this.painter?.pick(...this.place(e));
            if (hit?.item) scene.select('items', Number(hit.item.slice(1)));
            else scene.select(null);
        } else if (held.kind === 'move' && held.by.length() > LEAST) {
            const [x, y, z] = held.item.position;
            const position = [x + held.by.x, y, z + held.by.z];
            void scene.edit({ do: 'item.place', item: held.item.id, position, land: held.item.kind !== 'set' });
        } else if (held.kind === 'turn') {
            void scene.edit({ do: 'item.place', item: held.item.id, headingDeg: Math.round(held.headingDeg * 10) / 10 });
        }
        this.changed();
    };

    /** Escape lets go of what is held; nothing else hears it then. */
    readonly letGo = (e: KeyboardEvent): void => {
        if (e.key !== 'Escape' || (!this.desk.view.aiming && !this.held)) return;
        if (this.desk.view.aiming) this.desk.view.aiming = null;
        else this.held = null;
        this.changed();
        e.stopPropagation();
    };

    readonly keys = (e: KeyboardEvent): void => {
        const steps: Record<string, [number, number]> = { w: [0.25, 0], s: [-0.25, 0], a: [0, -0.25], d: [0, 0.25] };
        const go = e.altKey ? steps[e.key.toLowerCase()] : undefined;
        if (!go) return;
        e.preventDefault();
        this.leave();
        this.desk.view.walk(...go);
    };

    readonly wheel = (e: WheelEvent): void => {
        e.preventDefault();
        this.leave();
        this.desk.view.zoom(e.deltaY * 0.0012);
    };

    /** A sound file over somebody is what they say; over anything else it is said where it belongs. */
    private say(file: File, item: number): void {
        const { scene, playhead, recorder } = this.desk;
        if (scene.find('items', item)?.kind === 'performer') void recorder.bring(item, file, playhead.frame);
        else
            scene.notice = {
                kind: 'info',
                message: 'A recording of speech is let go over who speaks.',
                remedy: 'For other sounds, open the kit room and drop the file there.',
            };
    }

    /** An asset of the tray is let go: a picture dresses what is there, all else comes to stand there. */
    readonly drop = (e: DragEvent): void => {
        const { scene } = this.desk;
        const id = Number(e.dataTransfer?.getData('application/x-crisp-asset'));
        const file = soundOf(e.dataTransfer);
        if ((!id && !file) || !this.painter) return;
        e.preventDefault();
        const at = this.place(e);
        const hit = this.painter.pick(...at);
        if (file) {
            this.say(file, hit?.item ? Number(hit.item.slice(1)) : 0);
            return;
        }
        if (scene.asset(id)?.kind === 'picture') {
            if (hit?.item) void scene.edit({ do: 'item.dress', item: hit.item, at: hit.surface, picture: id });
            else
                scene.notice = {
                    kind: 'info',
                    message: 'Nothing is there that could wear it.',
                    remedy: 'Let it go over a person, a set or a prop.',
                };
            return;
        }
        const point = hit?.point ?? this.onLevel(...at, 0);
        const eye = this.painter.camera.position;
        if (point) void scene.edit({ do: 'item.add', asset: id, near: [point.x, point.z], facing: [eye.x, eye.z] });
    };
}
