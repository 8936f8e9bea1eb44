import { BufferAttribute, BufferGeometry, Mesh, SkinnedMesh, Sphere, Vector3, type PerspectiveCamera } from 'three';
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';
import { LOOKS, thinningReady, thinSurface, type BothThinned, type Surface, type Thinned } from './thinning';

/**
 * Levels of detail of a surface: the same vertices under ever shorter lists of triangles. An error is the largest distance
 * from the full surface in the surface's own metres; level 0 is the full surface.
 */
export interface Levels {
    index: BufferAttribute[];
    error: number[];
}

interface Detail {
    seen: Levels;
    cast: Levels;
}

/** Surfaces under this many triangles are cheaper drawn than chosen from. */
const WORTH_IT = 400;
/** Parts of a large set, and of what lies far around one, are gathered in cells of this size, in metres: each is left out by itself. */
export const CELLS = { near: 3, far: 16 };

const known = new WeakMap<BufferGeometry, Detail>();
const waiting = new Map<number, (made: BothThinned) => void>();
let asked = 0;
let worker: Worker | null = null;

/** Thins a surface beside the page; where there are no workers, in it. */
function thinBeside(surface: Surface): Promise<BothThinned> {
    if (typeof Worker === 'undefined') return thinningReady.then(() => thinSurface(surface));
    if (!worker) {
        worker = new Worker(new URL('./thinning.worker.ts', import.meta.url), { type: 'module' });
        worker.onmessage = ({ data }: MessageEvent<BothThinned & { id: number }>) => {
            waiting.get(data.id)?.(data);
            waiting.delete(data.id);
        };
    }
    const id = ++asked;
    const done = new Promise<BothThinned>((resolve) => waiting.set(id, resolve));
    const { index, places, looks } = surface;
    worker.postMessage({ id, index, places, looks }, [places.buffer, looks.buffer] as ArrayBuffer[]);
    return done;
}

/** Makes the levels of a surface: until they are there it is drawn whole. One too small or without index keeps its one level. */
export async function makeLevels(geometry: BufferGeometry): Promise<void> {
    const full = geometry.index;
    if (known.has(geometry) || !full || full.count < 3 * WORTH_IT) return;
    const whole = { index: [full], error: [0] };
    const detail: Detail = { seen: whole, cast: whole };
    known.set(geometry, detail);
    const places = floats(geometry, 'position', 3);
    const made = await thinBeside({ index: Uint32Array.from(full.array), places, looks: looksOf(geometry) });
    const levels = (t: Thinned): Levels => ({ index: t.index.map((i) => new BufferAttribute(i, 1)), error: t.error });
    detail.seen = levels(made.seen);
    detail.cast = levels(made.cast);
    geometry.index = detail.seen.index[0] ?? full;
}

/** Normals, colours and baked light of all vertices: they keep their edges when a surface is thinned. */
function looksOf(geometry: BufferGeometry): Float32Array {
    const normals = floats(geometry, 'normal', 3);
    const colours = floats(geometry, 'color', 3);
    const baked = floats(geometry, '_bake', 3);
    const count = geometry.getAttribute('position').count;
    const out = new Float32Array(count * LOOKS);
    for (let i = 0; i < count; i++) {
        for (let k = 0; k < 3; k++) {
            out[LOOKS * i + k] = normals[3 * i + k] ?? 0;
            out[LOOKS * i + 3 + k] = colours[3 * i + k] ?? 0;
            out[LOOKS * i + 6 + k] = baked[3 * i + k] ?? 0;
        }
    }
    return out;
}

function floats(geometry: BufferGeometry, name: string, width: number): Float32Array {
    const a = geometry.getAttribute(name);
    const out = new Float32Array(geometry.getAttribute('position').count * width);
    if (!a) return out;
    // A plain list of floats needs no conversion, which is most of the time that reading a model takes.
    if (a instanceof BufferAttribute && a.array instanceof Float32Array && a.itemSize === width) return a.array.slice(0, out.length);
    for (let i = 0; i < a.count; i++) for (let k = 0; k < width; k++) out[i * width + k] = a.getComponent(i, k);
    return out;
}

/** Parts a large still surface into meshes of whole pieces that lie near each other; small or skinned ones stay as they are. */
export function partSurface(mesh: Mesh, cell: number = CELLS.near): Mesh[] {
    const g = mesh.geometry;
    g.computeBoundingSphere();
    if (mesh instanceof SkinnedMesh || !g.index || g.index.count < 12000 || (g.boundingSphere?.radius ?? 0) < cell / 2) return [mesh];
    const cells = new Map<string, number[]>();
    const places = floats(g, 'position', 3);
    const index = Uint32Array.from(g.index.array);
    const piece = piecesOf(index, places);
    const middle = middlesOf(index, places, piece, cell);
    for (let t = 0; t < index.length; t += 3) {
        const key = middle.get(piece[index[t] ?? 0] ?? 0) ?? '';
        let within = cells.get(key);
        if (!within) cells.set(key, (within = []));
        within.push(index[t] ?? 0, index[t + 1] ?? 0, index[t + 2] ?? 0);
    }
    if (cells.size < 2) return [mesh];
    return [...cells.values()].map((list) => partOf(mesh, list, places));
}

function partOf(mesh: Mesh, list: number[], places: Float32Array): Mesh {
    const g = new BufferGeometry();
    for (const [name, a] of Object.entries(mesh.geometry.attributes)) g.setAttribute(name, a);
    g.setIndex(new BufferAttribute(Uint32Array.from(list), 1));
    g.boundingSphere = new Sphere().setFromPoints([...new Set(list)].map((i) => new Vector3().fromArray(places, 3 * i)));
    const part = new Mesh(g, mesh.material);
    part.name = mesh.name;
    part.matrix.copy(mesh.matrix);
    part.matrix.decompose(part.position, part.quaternion, part.scale);
    part.userData = mesh.userData;
    return part;
}

/** For each vertex the lowest vertex of its connected piece; vertices at one place count as one. */
function piecesOf(index: Uint32Array, places: Float32Array): Uint32Array {
    const parent = MeshoptSimplifier.generatePositionRemap(places, 3).slice();
    const find = (a: number): number => {
        for (let up = parent[a] ?? a; up !== a; up = parent[a] ?? a) {
            parent[a] = parent[up] ?? up;
            a = up;
        }
        return a;
    };
    for (let t = 0; t < index.length; t += 3) {
        const a = find(index[t] ?? 0);
        for (const other of [find(index[t + 1] ?? 0), find(index[t + 2] ?? 0)]) parent[other] = a;
    }
    return parent.map((_, i) => find(i));
}

/** The cell that the middle of each piece lies in. */
function middlesOf(index: Uint32Array, places: Float32Array, piece: Uint32Array, cell: number): Map<number, string> {
    const sums = new Map<number, [number, number, number, number]>();
    for (const i of index) {
        const p = piece[i] ?? 0;
        const s = sums.get(p) ?? [0, 0, 0, 0];
        for (let k = 0; k < 3; k++) s[k as 0] += places[3 * i + k] ?? 0;
        s[3]++;
        sums.set(p, s);
    }
    return new Map([...sums].map(([p, [x, y, z, n]]) => [p, [x, y, z].map((v) => Math.floor(v / n / cell)).join()]));
}

/** How fine the picture has to be: its width, what may be off in it, and what may be off in a shadow's caster. */
export interface Fineness {
    widthPx: number;
    tolerancePx: number;
    shadowMetres: number;
    /** Where the lens blurs: distance in focus, in metres, and the blur of a thing at infinity, in px; 0 for a lens that blurs nothing. */
    focusMetres: number;
    blurPx: number;
}

/** Lets a mesh choose its level each time it is drawn or casts its shadow. */
export function chooseLevels(mesh: Mesh, fineness: Fineness): void {
    const detail = known.get(mesh.geometry);
    const g = mesh.geometry;
    if (!detail) return;
    const use = (levels: Levels, k: number) => (g.index = levels.index[k] ?? null);
    mesh.onBeforeRender = (_r, _s, camera) => use(detail.seen, levelFor(detail.seen, mesh, camera as PerspectiveCamera, fineness));
    mesh.onBeforeShadow = () => use(detail.cast, coarsest(detail.cast, fineness.shadowMetres / mesh.matrixWorld.getMaxScaleOnAxis()));
    // Who asks the geometry between pictures (a ray, a measure) finds the full surface.
    mesh.onAfterRender = mesh.onAfterShadow = () => use(detail.seen, 0);
}

const centre = new Vector3();

function sphereOf(mesh: Mesh): Sphere | null {
    return (mesh as SkinnedMesh).boundingSphere ?? mesh.geometry.boundingSphere;
}

/** How near the surface comes to the camera, in metres of the world. */
function nearest(mesh: Mesh, sphere: Sphere, camera: PerspectiveCamera): number {
    const reach = sphere.radius * mesh.matrixWorld.getMaxScaleOnAxis();
    const away = centre.copy(sphere.center).applyMatrix4(mesh.matrixWorld).distanceTo(camera.position) - reach;
    return Math.max(camera.near, away);
}

/** Metres of the world across the picture at a distance. */
function widthAt(metres: number, camera: PerspectiveCamera): number {
    return 2 * Math.tan((camera.fov * Math.PI) / 360) * camera.aspect * metres;
}

/** The coarsest level whose error covers at most the tolerance in the picture. */
function levelFor(levels: Levels, mesh: Mesh, camera: PerspectiveCamera, fineness: Fineness): number {
    const sphere = sphereOf(mesh);
    if (!sphere) return 0;
    const away = nearest(mesh, sphere, camera);
    // A figure's outline is looked at more closely than a plank's, and what the lens blurs less than what is sharp.
    const sharp = fineness.tolerancePx * (mesh instanceof SkinnedMesh ? 0.5 : 1);
    const px = Math.max(sharp, 0.3 * fineness.blurPx * (1 - fineness.focusMetres / away));
    return coarsest(levels, (px / fineness.widthPx) * (widthAt(away, camera) / mesh.matrixWorld.getMaxScaleOnAxis()));
}

/** The coarsest level that is at most `metres` off. */
export function coarsest(levels: Levels, metres: number): number {
    let k = 0;
    while (k + 1 < levels.error.length && (levels.error[k + 1] ?? Infinity) <= metres) k++;
    return k;
}

/** Whether a surface is large in the picture, so that laying its depth first saves more paint than it costs. */
export function isLarge(mesh: Mesh, camera: PerspectiveCamera): boolean {
    const sphere = sphereOf(mesh);
    return sphere !== null && sphere.radius * mesh.matrixWorld.getMaxScaleOnAxis() > 0.13 * widthAt(nearest(mesh, sphere, camera), camera);
}
