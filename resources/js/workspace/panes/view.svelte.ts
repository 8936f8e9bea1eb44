import { Matrix4, PerspectiveCamera, Quaternion, Vector3 } from 'three';
import { shotAt, viewOf, type Painter, type Stretch, type View } from '../../picture';
import type { Step } from '../context';
import { framingsOf, framingWords } from '../cover/setups';
import type { Playhead } from '../playhead.svelte';
import type { Command, Quat, Vec3 } from '../rows';
import type { SceneStore } from '../scene.svelte';
import { CloseLook } from './closeLook';

/** A close look goes back to where one looked from before. */
export type Source = { kind: 'reel' } | { kind: 'camera'; id: number } | { kind: 'free' } | { kind: 'close'; item: number; back: Source };

/** A place that was clicked in the picture: on a thing, in the thing's own space, or in the scene. */
export interface AimedAt {
    item: number | null;
    offset: Vec3;
}

/** What the frame pane looks through: the reel's camera, one camera, or a free view of one's own. */
export class FrameView {
    source = $state.raw<Source>({ kind: 'free' });
    /** The step that is worked on. */
    step = $state<Step>('Cast');
    /** Raised to draw again. */
    version = $state(0);
    /** The beat or thing whose way is drawn on the plan at present. */
    pathing = $state<{ table: 'beats' | 'items'; id: number } | null>(null);
    /** Who waits for a place to be clicked in the picture, and what for, in words. */
    aiming = $state.raw<{ what: string; take: (place: AimedAt) => void } | null>(null);
    /** The camera that is worked on, whoever is selected meanwhile. */
    covering = $state<number | null>(null);
    /** Who was filmed last. */
    filmed = $state<number | null>(null);
    /** What the Act step shows. */
    acting = $state<'motions' | 'lines' | 'sounds'>('motions');
    /** What is said stands in the picture. */
    subtitles = $state(false);
    /** The card over the plan is folded away. */
    folded = $state(false);
    /** The two between whom the line of action runs, while cameras are set up for them. */
    line = $state.raw<{ a: number; b: number } | null>(null);
    /** Frame at which a new route sets off. */
    routeFrom = 0;
    private close = new CloseLook();
    readonly free = new PerspectiveCamera(30, 16 / 9, 0.08, 420);
    readonly target = new Vector3(0.6, 0.9, 0);
    freeFocal = $state(32);
    painter: Painter | null = null;
    /** Told the frame of each picture as it is drawn. */
    painted: ((frame: number) => void) | null = null;
    /** What the picture shows at present. */
    shown: Stretch | null = null;
    /** When the first whole picture stood, in ms since the page began; 0 before. */
    firstPicture = $state(0);

    constructor(
        private readonly scene: SceneStore,
        private readonly playhead: Playhead,
    ) {
        this.free.position.set(1.6, 2.3, 8.6);
        this.free.lookAt(this.target);
    }

    /** One more place at the end of the path that is drawn. */
    addToPath(at: [number, number]): void {
        const place: [number, number] = [Math.round(at[0] * 1000) / 1000, Math.round(at[1] * 1000) / 1000];
        const beat = this.pathing?.table === 'beats' ? this.scene.find('beats', this.pathing.id) : null;
        const item = this.pathing?.table === 'items' ? this.scene.find('items', this.pathing.id) : null;
        if (beat) this.saveWay({ table: 'beats', id: beat.id }, [...(beat.path?.points ?? []), place]);
        else if (item) this.saveWay({ table: 'items', id: item.id }, [...(item.route?.points ?? []), place]);
        else this.pathing = null;
    }

    saveWay(of: { table: 'beats' | 'items'; id: number }, points: [number, number][]): void {
        const beat = of.table === 'beats' ? this.scene.find('beats', of.id) : null;
        const item = of.table === 'items' ? this.scene.find('items', of.id) : null;
        if (beat) void this.scene.edit({ do: 'beat.set', beat: beat.id, path: points.length > 0 ? { ...beat.path, points } : null });
        if (item)
            void this.scene.edit({
                do: 'item.route',
                item: item.id,
                points: points.length > 0 ? points : null,
                ...(item.route ? {} : { from: this.routeFrom }),
            });
    }

    /** Hands the clicked place on; a place on a thing goes with the thing. */
    aimed(hit: { item: string | null; point: Vector3 }): void {
        const taker = this.aiming;
        this.aiming = null;
        const group = hit.item ? this.painter?.stage.groupOf(hit.item) : null;
        const p = group ? group.worldToLocal(hit.point.clone()) : hit.point;
        const offset = p.toArray().map((v) => Math.round(v * 1000) / 1000) as Vec3;
        taker?.take({ item: hit.item ? Number(hit.item.slice(1)) : null, offset });
    }

    isPathing(table: 'beats' | 'items', id: number): boolean {
        return this.pathing?.table === table && this.pathing.id === id;
    }

    redraw(): void {
        this.version++;
    }

    /** A look at somebody's face from near, there and back by the same action. */
    lookClose(item: number): void {
        this.source = this.source.kind === 'close' ? this.source.back : { kind: 'close', item, back: this.source };
        this.close = new CloseLook();
    }

    /** The view at the playhead, and in words what it is. */
    at(block: Stretch | null, frame: number): { view: View; label: string; camera: number | null } {
        const m = this.scene.manifest;
        if (this.source.kind === 'close' && block && this.painter) {
            this.painter.stage.pose(block, frame);
            const face = this.painter.stage.faceOf(`i${this.source.item}`);
            const name = this.scene.find('items', this.source.item)?.name ?? '';
            if (face) return { view: this.close.at(face.eyes, face.ahead), label: `${name}, from near`, camera: null };
        }
        const id =
            this.source.kind === 'camera'
                ? `c${this.source.id}`
                : this.source.kind === 'reel' && m
                  ? (shotAt(m, frame)?.camera ?? null)
                  : null;
        const camera = m?.cameras.find((c) => c.id === id);
        const row = camera && block ? block.camera(camera.id, frame) : null;
        if (camera && row) {
            const name = camera.name || this.filming(Number(camera.id.slice(1)), frame);
            return {
                view: viewOf(row, camera),
                label: `Camera ${camera.letter}${name && ', '}${name}`,
                camera: Number(camera.id.slice(1)),
            };
        }
        return { view: this.freeView(), label: 'Free view', camera: null };
    }

    /** In words, whom a camera films at a frame; nothing for one that is led by keys. */
    private filming(camera: number, frame: number): string {
        const all = framingsOf(this.scene.rows.framings, camera);
        const now = [...all].reverse().find((f) => f.frame <= frame) ?? all[0];
        return now ? framingWords(now, (id) => this.scene.find('items', id)?.name ?? '?') : '';
    }

    freeView(): View {
        const p = this.free.position;
        const q = this.free.quaternion;
        return {
            position: [p.x, p.y, p.z],
            rotation: [q.x, q.y, q.z, q.w],
            focalMm: this.freeFocal,
            focusMetres: Math.max(0.5, p.distanceTo(this.target)),
            fStop: 11,
            sensorWidthMm: 36,
        };
    }

    /** Begins a free view from what is seen now. */
    leave(view: View): void {
        this.free.position.set(...view.position);
        this.free.quaternion.set(...view.rotation);
        this.freeFocal = view.focalMm;
        const ahead = new Vector3(0, 0, -1).applyQuaternion(this.free.quaternion);
        this.target.copy(this.free.position).addScaledVector(ahead, Math.min(Math.max(view.focusMetres, 1.5), 12));
        this.source = { kind: 'free' };
        this.redraw();
    }

    orbit(dx: number, dy: number): void {
        const off = this.free.position.clone().sub(this.target);
        const r = off.length();
        const yaw = Math.atan2(off.x, off.z) - dx * 0.006;
        const pitch = Math.max(-1.45, Math.min(1.5, Math.asin(Math.max(-1, Math.min(1, off.y / r))) + dy * 0.006));
        off.set(Math.sin(yaw) * Math.cos(pitch), Math.sin(pitch), Math.cos(yaw) * Math.cos(pitch)).multiplyScalar(r);
        this.free.position.copy(this.target).add(off);
        this.aim();
    }

    pan(dx: number, dy: number): void {
        const k = this.free.position.distanceTo(this.target) * 0.0012;
        const right = new Vector3(1, 0, 0).applyQuaternion(this.free.quaternion);
        const up = new Vector3(0, 1, 0).applyQuaternion(this.free.quaternion);
        const by = right.multiplyScalar(-dx * k).add(up.multiplyScalar(dy * k));
        this.free.position.add(by);
        this.target.add(by);
        this.redraw();
    }

    zoom(amount: number): void {
        const off = this.free.position.clone().sub(this.target);
        off.multiplyScalar(Math.min(1.6, Math.max(0.6, 1 + amount)));
        if (off.length() < 0.4 && amount < 0) this.target.addScaledVector(off.clone().normalize(), -0.4);
        off.setLength(Math.min(90, Math.max(0.4, off.length())));
        this.free.position.copy(this.target).add(off);
        this.redraw();
    }

    /** Walks ahead and aside at head height, the target going along. */
    walk(ahead: number, aside: number): void {
        const f = new Vector3(0, 0, -1).applyQuaternion(this.free.quaternion).setY(0).normalize();
        const by = f
            .clone()
            .multiplyScalar(ahead)
            .add(new Vector3(-f.z, 0, f.x).multiplyScalar(aside));
        this.free.position.add(by);
        this.target.add(by);
        this.redraw();
    }

    /** Brings a place into view from where one is. */
    centre(at: Vector3, radius: number): void {
        const off = this.free.position
            .clone()
            .sub(this.target)
            .setLength(Math.max(2.2, radius * 3.4));
        this.target.copy(at);
        this.free.position.copy(at).add(off);
        this.aim();
    }

    private aim(): void {
        const m = new Matrix4().lookAt(this.free.position, this.target, new Vector3(0, 1, 0));
        this.free.quaternion.copy(new Quaternion().setFromRotationMatrix(m));
        this.redraw();
    }

    /** The picture's inner parts for the browser's console, for tests and for the benchmark. */
    expose(): void {
        (window as unknown as Record<string, unknown>).crispReelWorkspace = {
            painter: () => this.painter,
            block: () => this.scene.posesAt(this.playhead.frame),
            view: () => this.at(this.scene.posesAt(this.playhead.frame), this.playhead.frame).view,
            /** Milliseconds from the start of the page to its first whole picture, or 0. */
            firstPicture: () => this.firstPicture,
            /** Resolves when all surfaces have their levels of detail. */
            settled: () => this.scene.shelf.settled(),
            timeEdit: (command: Command) => this.timeEdit(command),
            /** The frame that is heard now, by the clock of the sound; null: nothing sounds. */
            heard: () => this.playhead.sound?.frame() ?? null,
            /** Told the frame of each picture as it is drawn. */
            onPaint: (tell: (frame: number) => void) => (this.painted = tell),
        };
    }

    /** Milliseconds from an edit to the core's own picture of it; those of the server, and of the last picture alone. */
    private async timeEdit(command: Command): Promise<{ total: number; server: number; picture: number }> {
        const before = this.scene.manifest;
        performance.clearResourceTimings();
        const begin = performance.now();
        if (!(await this.scene.edit(command))) throw new Error(this.scene.notice?.message ?? 'The edit was refused.');
        while (this.scene.manifest === before || this.shown?.manifest !== this.scene.manifest)
            await new Promise((r) => requestAnimationFrame(r));
        const gl = this.painter?.renderer.getContext();
        gl?.readPixels(2, 2, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
        const total = performance.now() - begin;
        const calls = performance.getEntriesByType('resource') as PerformanceResourceTiming[];
        const call = calls.find((c) => c.name.endsWith('/edits'));
        const again = performance.now();
        this.painter?.redraw(this.at(this.shown, this.playhead.frame).view);
        gl?.readPixels(2, 2, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, new Uint8Array(4));
        return { total, server: call ? call.responseEnd - call.requestStart : 0, picture: performance.now() - again };
    }

    /** Payload of a camera made from what is seen now. */
    pose(): { position: Vec3; rotation: Quat; focalMm: number } {
        const v = this.at(this.scene.posesAt(this.playhead.frame), this.playhead.frame).view;
        return { position: v.position, rotation: v.rotation, focalMm: v.focalMm };
    }
}
