import { BufferAttribute, BufferGeometry, Mesh, SkinnedMesh, Sphere, Vector3, type PerspectiveCamera } from 'three';
import { MeshoptEncoder } from 'meshoptimizer/encoder';
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';

/**
 * Levels of detail of a surface: the same vertices under ever shorter lists of triangles. An error is the largest distance
 * from the full surface in the surface's own metres; level 0 is the full surface.
 */
export interface Levels {
    index: BufferAttribute[];
    error: number[];
}

/** Levels of what is seen, and of what casts a shadow: there only the shape counts, not colours, creases or seams. */
interface Detail {
    seen: Levels;
    cast: Levels;
}

/** Surfaces under this many triangles are cheaper drawn than chosen from. */
const WORTH_IT = 400;
const SHARES = [0.5, 0.35, 0.25, 0.17, 0.11, 0.05];
/** Parts of a large set are gathered in cells of this size, in metres, so that each is left out or thinned by itself. */
const CELL = 3;

const known = new WeakMap<BufferGeometry, Detail>();

export const detailReady = Promise.all([MeshoptSimplifier.ready, MeshoptEncoder.ready]);

export function levelsOf(geometry: BufferGeometry): Levels | undefined {
    return known.get(geometry)?.seen;
}

export function castLevelsOf(geometry: BufferGeometry): Levels | undefined {
    return known.get(geometry)?.cast;
}

/** Makes the levels of a surface; call after detailReady. A surface too small or without index keeps its one level. */
export function makeLevels(geometry: BufferGeometry): void {
    const full = geometry.index;
    if (known.has(geometry) || !full || full.count < 3 * WORTH_IT) return;
    const places = floats(geometry, 'position', 3);
    const [looks, weights] = looksOf(geometry);
    const seen = thin(Uint32Array.from(full.array), places, (from, target) =>
        MeshoptSimplifier.simplifyWithAttributes(from, places, 3, looks, weights.length, weights, null, target, 1, ['Prune']),
    );
    // Vertices at one place count as one: fewer to move, and no seam holds a shorter list back.
    const one = MeshoptSimplifier.generatePositionRemap(places, 3);
    const welded = Uint32Array.from(full.array, (i) => one[i] ?? i);
    const cast = thin(welded, places, (from, target) => MeshoptSimplifier.simplify(from, places, 3, target, 1, ['Prune']));
    for (const levels of [seen, cast]) levels.index = levels.index.map((a) => new BufferAttribute(inOrder(Uint32Array.from(a.array)), 1));
    geometry.index = seen.index[0] ?? full;
    known.set(geometry, { seen, cast });
}

/** The same triangles in an order that uses a vertex again soon after it was moved: without a graphics chip that is a good part of a frame. */
export function inOrder(index: Uint32Array): Uint32Array {
    const made = index.slice();
    const [remap] = MeshoptEncoder.reorderMesh(made, true, false);
    const back = new Uint32Array(remap.length);
    remap.forEach((to, from) => {
        if (to !== 0xffffffff) back[to] = from;
    });
    return made.map((i) => back[i] ?? i);
}

function thin(full: Uint32Array, places: Float32Array, simplify: (from: Uint32Array, target: number) => [Uint32Array, number]): Levels {
    const scale = MeshoptSimplifier.getScale(places, 3);
    const levels: Levels = { index: [new BufferAttribute(full, 1)], error: [0] };
    let from = full;
    for (const share of SHARES) {
        const [made, error] = simplify(from, Math.min(from.length, 3 * Math.floor((full.length * share) / 3)));
        if (made.length > 0.9 * from.length || made.length === 0) break;
        const before = levels.error[levels.error.length - 1] ?? 0;
        levels.index.push(new BufferAttribute(made.slice(), 1));
        // Each level is thinned from the one before it, so the errors add up.
        levels.error.push(before + error * scale);
        from = made;
    }
    return levels;
}

/** Normals, colours and baked light keep their edges when a surface is thinned. */
function looksOf(geometry: BufferGeometry): [Float32Array, number[]] {
    const normals = floats(geometry, 'normal', 3);
    const colours = floats(geometry, 'color', 3);
    const count = geometry.getAttribute('position').count;
    const out = new Float32Array(count * 6);
    for (let i = 0; i < count; i++) {
        for (let k = 0; k < 3; k++) {
            out[6 * i + k] = normals[3 * i + k] ?? 0;
            out[6 * i + 3 + k] = colours[3 * i + k] ?? 0;
        }
    }
    return [out, [0.06, 0.06, 0.06, 0.1, 0.1, 0.1]];
}

function floats(geometry: BufferGeometry, name: string, width: number): Float32Array {
    const a = geometry.getAttribute(name);
    const out = new Float32Array(geometry.getAttribute('position').count * width);
    if (!a) return out;
    for (let i = 0; i < a.count; i++) for (let k = 0; k < width; k++) out[i * width + k] = a.getComponent(i, k);
    return out;
}

/** Parts a large still surface into meshes of whole pieces that lie near each other; small or skinned ones stay as they are. */
export function partSurface(mesh: Mesh): Mesh[] {
    const g = mesh.geometry;
    g.computeBoundingSphere();
    if (mesh instanceof SkinnedMesh || !g.index || g.index.count < 12000 || (g.boundingSphere?.radius ?? 0) < CELL / 2) return [mesh];
    const cells = new Map<string, number[]>();
    const places = floats(g, 'position', 3);
    const index = Uint32Array.from(g.index.array);
    const piece = piecesOf(index, places);
    const middle = middlesOf(index, places, piece);
    for (let t = 0; t < index.length; t += 3) {
        const key = middle.get(piece[index[t] ?? 0] ?? 0) ?? '';
        let cell = cells.get(key);
        if (!cell) cells.set(key, (cell = []));
        cell.push(index[t] ?? 0, index[t + 1] ?? 0, index[t + 2] ?? 0);
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
function middlesOf(index: Uint32Array, places: Float32Array, piece: Uint32Array): Map<number, string> {
    const sums = new Map<number, [number, number, number, number]>();
    for (const i of index) {
        const p = piece[i] ?? 0;
        const s = sums.get(p) ?? [0, 0, 0, 0];
        for (let k = 0; k < 3; k++) s[k as 0] += places[3 * i + k] ?? 0;
        s[3]++;
        sums.set(p, s);
    }
    return new Map([...sums].map(([p, [x, y, z, n]]) => [p, [x, y, z].map((v) => Math.floor(v / n / CELL)).join()]));
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
    const { seen, cast } = detail;
    const use = (levels: Levels, k: number) => (g.index = levels.index[k] ?? null);
    mesh.onBeforeRender = (_r, _s, camera) => use(seen, levelFor(seen, mesh, camera as PerspectiveCamera, fineness));
    mesh.onBeforeShadow = () => use(cast, coarsest(cast, fineness.shadowMetres / mesh.matrixWorld.getMaxScaleOnAxis()));
    // Who asks the geometry between pictures (a ray, a measure) finds the full surface.
    mesh.onAfterRender = mesh.onAfterShadow = () => use(seen, 0);
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
