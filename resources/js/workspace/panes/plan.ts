import type { Storey } from '../answers';
import type { ItemRow } from '../rows';

/** What stands somewhere on the plan: place and heading in the scene, bounds in metres of its own. */
export interface Mark {
    item: ItemRow;
    x: number;
    z: number;
    heading: number;
    bounds: [number, number, number, number];
    backdrop: boolean;
    /** What of it is drawn from above; null: its bounds alone. */
    storey: Storey | null;
}

const ABOVE = -14;
const BELOW = 24;
const LINE = 12;
const LETTER = 6.4;

/** How far above (or below) its place each name is written, so that it lies on no other name and on nobody's mark. */
export function namesApart(people: { id: number; x: number; y: number; text: string }[]): Map<number, number> {
    const out = new Map<number, number>();
    // Middles, half widths and half heights.
    const taken = people.map((p) => ({ x: p.x, y: p.y - 2, half: 11, tall: 10 }));
    for (const p of [...people].sort((a, b) => a.y - b.y || a.x - b.x)) {
        const half = (p.text.length * LETTER) / 2;
        const free = (dy: number) =>
            taken.every((t) => Math.abs(t.y - (p.y + dy - 4)) >= t.tall + LINE / 2 - 0.5 || Math.abs(t.x - p.x) >= t.half + half);
        // Above the mark, then below it, then farther off by turns.
        const tries = [ABOVE, BELOW, ABOVE - LINE, BELOW + LINE, ABOVE - 2 * LINE, BELOW + 2 * LINE, ABOVE - 3 * LINE, BELOW + 3 * LINE];
        const dy = tries.find(free) ?? ABOVE;
        out.set(p.id, dy);
        taken.push({ x: p.x, y: p.y + dy - 4, half, tall: LINE / 2 });
    }
    return out;
}

/** Where a performer's hips are over the ground, from a row of a pose block: place 3, turn 4, scale 3, hips 3 in its own space. */
export function hipsOver(row: ArrayLike<number>): [number, number] {
    const n = (i: number, otherwise = 0) => row[i] ?? otherwise;
    const turn = 2 * Math.atan2(n(4), n(6, 1));
    const [hx, hz] = [n(10) * n(7, 1), n(12) * n(9, 1)];
    return [n(0) + hx * Math.cos(turn) + hz * Math.sin(turn), n(2) - hx * Math.sin(turn) + hz * Math.cos(turn)];
}

/** Lines of a metre grid over what is shown; of five metres from afar. */
export function gridOf(centre: { x: number; z: number }, zoom: number, size: { width: number; height: number }) {
    const step = zoom < 14 ? 5 : 1;
    const lines: { x1: number; y1: number; x2: number; y2: number; main: boolean }[] = [];
    const [w, h] = [size.width / zoom / 2, size.height / zoom / 2];
    for (let x = Math.ceil((centre.x - w) / step) * step; x < centre.x + w; x += step) {
        const at = size.width / 2 + (x - centre.x) * zoom;
        lines.push({ x1: at, y1: 0, x2: at, y2: size.height, main: x === 0 });
    }
    for (let z = Math.ceil((centre.z - h) / step) * step; z < centre.z + h; z += step) {
        const at = size.height / 2 + (z - centre.z) * zoom;
        lines.push({ x1: 0, y1: at, x2: size.width, y2: at, main: z === 0 });
    }
    return { lines, step };
}
