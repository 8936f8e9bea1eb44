import { MeshoptEncoder } from 'meshoptimizer/encoder';
import { MeshoptSimplifier } from 'meshoptimizer/simplifier';

/** A surface to be thinned: triangles, places (x y z) and looks (normal, colour, and baked shade and lamps: nine numbers a vertex). */
export interface Surface {
    index: Uint32Array;
    places: Float32Array;
    looks: Float32Array;
}

/** Ever shorter lists of triangles over the same vertices, and how far each is off, in the surface's own metres; the first is whole. */
export interface Thinned {
    index: Uint32Array[];
    error: number[];
}

export interface BothThinned {
    seen: Thinned;
    cast: Thinned;
}

const SHARES = [0.5, 0.35, 0.25, 0.17, 0.11, 0.05];
/** What normals, colours and baked light weigh, so that edges of paint and a lamp's light on a flat wall are kept. */
const WEIGHTS = [0.06, 0.06, 0.06, 0.1, 0.1, 0.1, 0.06, 0.2, 0.2];
export const LOOKS = WEIGHTS.length;

export const thinningReady = Promise.all([MeshoptSimplifier.ready, MeshoptEncoder.ready]);

/** Levels of what is seen, and of what casts a shadow: there only the shape counts, not colours, creases or seams. */
export function thinSurface({ index, places, looks }: Surface): BothThinned {
    const seen = thin(index, places, (from, target) =>
        MeshoptSimplifier.simplifyWithAttributes(from, places, 3, looks, WEIGHTS.length, WEIGHTS, null, target, 1, ['Prune']),
    );
    // Vertices at one place count as one: fewer to move, and no seam holds a shorter list back.
    const one = MeshoptSimplifier.generatePositionRemap(places, 3);
    const welded = index.map((i) => one[i] ?? i);
    const cast = thin(welded, places, (from, target) => MeshoptSimplifier.simplify(from, places, 3, target, 1, ['Prune']));
    for (const levels of [seen, cast]) levels.index = levels.index.map(inOrder);
    return { seen, cast };
}

/** The same triangles in an order that uses a vertex again soon after it was moved: without a graphics chip that is a good part of a frame. */
function inOrder(index: Uint32Array): Uint32Array {
    const made = index.slice();
    const [remap] = MeshoptEncoder.reorderMesh(made, true, false);
    const back = new Uint32Array(remap.length);
    remap.forEach((to, from) => {
        if (to !== 0xffffffff) back[to] = from;
    });
    return made.map((i) => back[i] ?? i);
}

function thin(full: Uint32Array, places: Float32Array, simplify: (from: Uint32Array, target: number) => [Uint32Array, number]): Thinned {
    const scale = MeshoptSimplifier.getScale(places, 3);
    const levels: Thinned = { index: [full], error: [0] };
    let from = full;
    for (const share of SHARES) {
        const [made, error] = simplify(from, Math.min(from.length, 3 * Math.floor((full.length * share) / 3)));
        if (made.length > 0.9 * from.length || made.length === 0) break;
        const before = levels.error[levels.error.length - 1] ?? 0;
        levels.index.push(made.slice());
        // Each level is thinned from the one before it, so the errors add up.
        levels.error.push(before + error * scale);
        from = made;
    }
    return levels;
}
