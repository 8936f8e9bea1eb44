import type { CameraKeyRow, FramingRow } from '../rows';

/** Where a lens is dragged on the plan, as what it films or as a key. Places are from above: x and z in metres. */

type Spot = readonly [number, number];
const heading = (from: Spot, to: Spot) => Math.atan2(to[0] - from[0], to[1] - from[1]);
const wrapped = (deg: number) => ((((deg + 180) % 360) + 360) % 360) - 180;

/**
 * Another side of whom it films, and the lens with which the size stays from there.
 * @param about whom it films
 */
export function dragged(f: FramingRow, about: Spot, from: Spot, to: Spot): { sideDeg: number; focalMm: number } {
    const turn = ((heading(about, to) - heading(about, from)) * 180) / Math.PI;
    const far = Math.hypot(to[0] - about[0], to[1] - about[1]) / Math.max(0.05, Math.hypot(from[0] - about[0], from[1] - about[1]));
    return {
        sideDeg: Math.round(wrapped(f.sideDeg + turn) * 10) / 10,
        focalMm: Math.round(Math.max(8, Math.min(800, f.focalMm * far)) * 10) / 10,
    };
}

/** A key elsewhere, still turned to what it was turned to, so many metres before it. */
export function draggedKey(k: CameraKeyRow, to: Spot, metres: number): CameraKeyRow {
    const [x, y, z, w] = k.rotation;
    const ahead = [-2 * (x * z + y * w), -(1 - 2 * (x * x + y * y))] as const;
    const from: Spot = [k.position[0], k.position[2]];
    const aim: Spot = [from[0] + ahead[0] * metres, from[1] + ahead[1] * metres];
    const half = (wrapped(((heading(to, aim) - heading(from, aim)) * 180) / Math.PI) * Math.PI) / 360;
    const [s, c] = [Math.sin(half), Math.cos(half)];
    return {
        ...k,
        position: [to[0], k.position[1], to[1]],
        rotation: [c * x + s * z, c * y + s * w, c * z - s * x, c * w - s * y],
    };
}
