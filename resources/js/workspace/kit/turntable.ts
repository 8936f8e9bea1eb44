import { PerspectiveCamera, Vector3 } from 'three';
import { bytes } from '../../lib/api';
import { ModelShelf, Painter, PieceStore, Stretch, type Manifest, type View } from '../../picture';

/** Models and poses of turntables, shared so that what was looked at once is there at once. */
const shelf = new ModelShelf(async (hash) => (await bytes(`previews/blobs/${hash}`)) ?? new ArrayBuffer(0));
const pieces = new PieceStore((path) => bytes(`previews/${path}`), 40e6);

/** One small scene that turns before the eye and plays, drawn like any other picture. */
export class Turntable {
    private readonly painter: Painter;
    private readonly eye = new PerspectiveCamera();
    private readonly centre = new Vector3(0, 0.9, 0);
    private manifest: Manifest | null = null;
    private loop = 0;
    private begun = 0;
    private last = 0;
    private asked = 0;
    private distance = 4;
    /** Degrees; the front is 0. */
    angle = 24;
    tilt = 9;
    turning = true;
    playing = true;
    frame = 0;
    /** What happens when the first picture of a thing is there. */
    shown: () => void = () => undefined;
    /** What happens after each picture. */
    painted: () => void = () => undefined;

    constructor(canvas: HTMLCanvasElement) {
        this.painter = new Painter(canvas, shelf, 'draft');
        this.loop = requestAnimationFrame(this.run);
    }

    resize(width: number, height: number): void {
        if (width > 8 && height > 8) this.painter.resize(Math.round(width), Math.round(height));
    }

    async show(manifest: Manifest, keepView = false): Promise<void> {
        const turn = ++this.asked;
        await this.painter.show(manifest);
        const stretches = Array.from({ length: Math.ceil(manifest.frames / manifest.pieceFrames) }, (_, n) => n);
        await Promise.all(stretches.map((n) => pieces.get(n, Stretch.names(manifest, n))));
        if (turn !== this.asked) return;
        this.manifest = manifest;
        this.begun = performance.now();
        if (!keepView) this.frameUp(manifest);
        this.paint(performance.now());
        this.shown();
    }

    /** The whole thing in the picture, with air around it. */
    private frameUp(manifest: Manifest): void {
        const low = new Vector3(Infinity, Infinity, Infinity);
        const high = low.clone().negate();
        for (const [n, i] of manifest.items.entries()) {
            const at = new Vector3(...(manifest.stands?.[n] ?? [0, 0, 0]));
            low.min(new Vector3(...i.bounds[0]).add(at));
            high.max(new Vector3(...i.bounds[1]).add(at));
        }
        if (manifest.items[0]?.kind === 'performer') {
            // Arms hang when it plays, so the width at rest says little.
            const h = Math.max(0.2, high.y);
            this.centre.set((low.x + high.x) / 2, h * 0.5, 0);
            this.distance = Math.max(h * 2.35, (high.x - low.x) * 1.6);
        } else {
            this.centre.copy(low).add(high).multiplyScalar(0.5);
            this.distance = Math.max(0.12, high.distanceTo(low) * 1.55);
        }
    }

    turn(dx: number, dy: number): void {
        this.turning = false;
        this.angle -= dx * 0.5;
        this.tilt = Math.min(80, Math.max(-10, this.tilt + dy * 0.4));
    }

    zoom(by: number): void {
        this.distance = Math.min(400, Math.max(0.05, this.distance * by));
    }

    /** Where a point of the canvas (-1 to 1) meets the thing, in its own space. */
    pick(x: number, y: number): Vector3 | null {
        return this.painter.pick(x, y)?.point ?? null;
    }

    /** Stands still and is seen straight from the front. */
    front(): void {
        this.turning = this.playing = false;
        this.angle = this.tilt = this.frame = 0;
    }

    /** Where a point of the thing is on the canvas, from 0 to 1 across and down. */
    place(point: [number, number, number]): [number, number] {
        const p = this.painter.project(new Vector3(...point));
        return [(p.x + 1) / 2, (1 - p.y) / 2];
    }

    /** The point at a depth (z) that lies behind a place of the canvas. */
    behind(x: number, y: number, depth: number): [number, number] {
        const eye = this.painter.camera.position;
        const far = new Vector3(2 * x - 1, 1 - 2 * y, 0.5).unproject(this.painter.camera).sub(eye);
        const t = (depth - eye.z) / far.z;
        return [eye.x + far.x * t, eye.y + far.y * t];
    }

    private readonly run = (now: number): void => {
        this.loop = requestAnimationFrame(this.run);
        // Software drawing leaves time for the rest of the page.
        if (!this.manifest || now - this.last < 40 || document.hidden) return;
        if (this.turning || this.playing) this.paint(now);
    };

    paint(now: number): void {
        const m = this.manifest;
        if (!m) return;
        if (this.turning && this.last > 0) this.angle += Math.min(200, now - this.last) * 0.022;
        this.last = now;
        const rate = m.rate[0] / m.rate[1];
        if (this.playing) this.frame = Math.floor(((now - this.begun) / 1000) * rate) % Math.max(1, m.frames);
        this.frame = Math.min(this.frame, m.frames - 1);
        const stretch = Stretch.of(m, Math.floor(this.frame / m.pieceFrames), pieces);
        if (!stretch) return;
        this.painter.draw(stretch, this.frame, this.view());
        this.painted();
    }

    private view(): View {
        const a = (this.angle * Math.PI) / 180;
        const t = (this.tilt * Math.PI) / 180;
        this.eye.position
            .set(Math.sin(a) * Math.cos(t), Math.sin(t), Math.cos(a) * Math.cos(t))
            .multiplyScalar(this.distance)
            .add(this.centre);
        this.eye.position.y = Math.max(0.03, this.eye.position.y);
        this.eye.lookAt(this.centre);
        const q = this.eye.quaternion;
        return {
            position: this.eye.position.toArray(),
            rotation: [q.x, q.y, q.z, q.w],
            focalMm: 46,
            focusMetres: this.distance,
            fStop: 11,
            sensorWidthMm: 36,
        };
    }

    /** A still of what is shown, as a data address. */
    still(): string {
        return this.painter.renderer.domElement.toDataURL('image/jpeg', 0.85);
    }

    dispose(): void {
        cancelAnimationFrame(this.loop);
        this.painter.dispose();
    }
}
