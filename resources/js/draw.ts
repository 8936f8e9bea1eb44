import { blendedAt, ModelShelf, Painter, PieceStore, shotAt, Stretch, viewOf, type Manifest, type Quality, type View } from './picture';

/** The internal page of the render worker: draws frames with the workspace's own drawing module and posts them back. */

interface RenderManifest extends Manifest {
    render: { width: number; height: number; quality: Quality };
}

declare global {
    interface Window {
        crispReel?: {
            ready: Promise<void>;
            draw: (frames: number[]) => Promise<void>;
            time: (frames: number[]) => Promise<number[]>;
            plain: (frames: number[]) => Promise<number[]>;
            gpu: () => string;
        };
    }
}

const render = document.body.dataset.render ?? '';
const token = location.hash.slice(1);
const base = `/internal/renders/${render}`;

async function get(path: string): Promise<Response> {
    const r = await fetch(`${base}/${path}`, { headers: { 'X-Render-Token': token, Accept: 'application/json' } });
    if (!r.ok) throw new Error(`${path.slice(0, 30)} answered ${r.status}`);
    return r;
}

const shelf = new ModelShelf((hash) => get(`blobs/${hash}`).then((r) => r.arrayBuffer()));
const pieces = new PieceStore((path) => get(path).then((r) => r.arrayBuffer()), 60e6);

let manifest: RenderManifest;
let painter: Painter;
const canvas = document.createElement('canvas');

async function prepare(): Promise<void> {
    // Making the canvas ready takes as long as the manifest: both at once.
    const asked = get('manifest').then((r) => r.json() as Promise<RenderManifest>);
    document.body.append(canvas);
    painter = new Painter(canvas, shelf, (document.body.dataset.quality ?? 'draft') as Quality);
    manifest = await asked;
    painter.exact = true;
    painter.resize(manifest.render.width, manifest.render.height);
    await painter.show(manifest);
    await shelf.settled();
}

let stretch: Stretch | null = null;

async function stretchAt(frame: number): Promise<Stretch | null> {
    const n = Math.floor(frame / manifest.pieceFrames);
    if (stretch?.from === n * manifest.pieceFrames) return stretch;
    await pieces.get(n, Stretch.names(manifest, n));
    return (stretch = Stretch.of(manifest, n, pieces));
}

async function lookup(frame: number): Promise<[Stretch, View]> {
    const found = await stretchAt(frame);
    const shot = shotAt(manifest, frame);
    const camera = found && shot ? found.camera(shot.camera, frame) : null;
    if (!found || !shot || !camera) throw new Error(`No shot shows frame ${frame}.`);
    const through = manifest.cameras.find((c) => c.id === shot.camera);
    return [found, viewOf(camera, through)];
}

async function paint(frame: number): Promise<void> {
    const [poses, view] = await lookup(frame);
    painter.draw(poses, frame, view, blendedAt(manifest, poses, frame));
}

async function poseOnly(frame: number): Promise<void> {
    const [poses, view] = await lookup(frame);
    painter.stage.pose(poses, frame);
    painter.look(view);
}

async function post(frame: number): Promise<void> {
    const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
    if (!blob) throw new Error(`Frame ${frame} could not be read back.`);
    const r = await fetch(`${base}/frames/${frame}`, {
        method: 'POST',
        headers: { 'X-Render-Token': token, 'Content-Type': 'image/png' },
        body: blob,
    });
    if (!r.ok) throw new Error(`Frame ${frame} was not taken (${r.status}).`);
}

window.crispReel = {
    ready: prepare(),
    async draw(frames) {
        // The picture of one frame travels while the next is drawn.
        let sending: Promise<void> = Promise.resolve();
        for (const f of frames) {
            await paint(f);
            await sending;
            sending = post(f);
        }
        await sending;
    },
    /** Milliseconds a frame with a read-back, for the benchmark. */
    time: (frames) => timed(frames, paint),
    /** The same for a plain loop: the scene with three.js's own materials and two lights, without shadows or passes. */
    async plain(frames) {
        painter.stage.strip();
        painter.renderer.shadowMap.enabled = false;
        return timed(frames, async (f) => {
            await poseOnly(f);
            painter.renderer.setRenderTarget(null);
            painter.renderer.render(painter.stage.scene, painter.camera);
        });
    },
    gpu: () => painter.facts().gpu,
};

async function timed(frames: number[], act: (frame: number) => Promise<void>): Promise<number[]> {
    const gl = painter.renderer.getContext();
    const px = new Uint8Array(4);
    const out: number[] = [];
    for (const f of frames) {
        const begin = performance.now();
        await act(f);
        gl.readPixels(2, 2, 1, 1, gl.RGBA, gl.UNSIGNED_BYTE, px);
        out.push(performance.now() - begin);
    }
    return out;
}
