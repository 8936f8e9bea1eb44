import { call } from '../../lib/api';
import { Plans, type Storey } from '../answers';

/** Metres that a storey may lie above what is looked at and still be the one to be drawn. */
const STEP = 0.9;

/** Plans in one call. */
const AT_ONCE = 24;

/** The storey of a thing that is seen from a height over its foot: the highest below it, else the lowest. */
export function storeyAt(storeys: Storey[], height: number): Storey | null {
    return storeys.findLast((s) => s.y <= height + STEP) ?? storeys[0] ?? null;
}

/** Heights of storeys in the scene, those within a stair's height of each other once. */
export function heightsOf(all: number[]): number[] {
    const sorted = [...all].sort((a, b) => a - b);
    return sorted.filter((y, k) => k === 0 || y - (sorted[k - 1] ?? 0) > 1.2);
}

/** Lines of x and z by turns as a path of SVG, in metres. */
export function pathOf(lines: number[][]): string {
    return lines
        .map((l) => {
            const points: string[] = [];
            for (let i = 0; i + 1 < l.length; i += 2) points.push(`${l[i]} ${l[i + 1]}`);
            const closed = l.length > 4 && l[0] === l[l.length - 2] && l[1] === l[l.length - 1];
            return `M${points.join('L')}${closed ? 'Z' : ''}`;
        })
        .join('');
}

/** Triangles, 6 numbers each, as a path of SVG. */
export function trianglesOf(floor: number[]): string {
    const out: string[] = [];
    for (let i = 0; i + 5 < floor.length; i += 6)
        out.push(`M${floor[i]} ${floor[i + 1]}L${floor[i + 2]} ${floor[i + 3]}L${floor[i + 4]} ${floor[i + 5]}Z`);
    return out.join('');
}

/** Floor plans of the files of a scene, asked for once each. */
export class PlanBook {
    private plans = $state.raw<Record<string, Storey[]>>({});
    private readonly asked: Record<string, boolean> = {};

    constructor(private readonly scene: number) {}

    of(blob: string): Storey[] {
        return this.plans[blob] ?? [];
    }

    async ask(blobs: string[]): Promise<void> {
        const wanted = blobs.filter((b, k) => !this.asked[b] && blobs.indexOf(b) === k).slice(0, AT_ONCE);
        if (wanted.length === 0) return;
        wanted.forEach((b) => (this.asked[b] = true));
        try {
            const got = await call(Plans, 'GET', `scenes/${this.scene}/plans?of=${wanted.join(',')}`);
            this.plans = { ...this.plans, ...got.plans };
        } catch {
            // Without it the plan shows the thing's bounds; the next change of the scene asks again.
            wanted.forEach((b) => (this.asked[b] = false));
            return;
        }
        await this.ask(blobs);
    }
}
