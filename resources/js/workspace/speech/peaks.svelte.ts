import * as v from 'valibot';
import { call } from '../../lib/api';

const Told = v.object({ perSecond: v.number(), levels: v.string() });

/** How loud a sound is along its length. */
export interface Peaks {
    perSecond: number;
    /** Of each stretch its loudest sample, 0 to 1. */
    levels: Float32Array;
}

/** Peaks of sounds, by their files: asked for once. */
export class PeaksStore {
    private readonly known = $state<Record<string, Peaks | null>>({});
    // Nobody looks at what is on its way.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    private readonly asked = new Set<string>();

    constructor(private readonly scene: number) {}

    /** Null: not here yet. */
    of(sound: string): Peaks | null {
        if (!this.asked.has(sound)) {
            this.asked.add(sound);
            void this.fetch(sound);
        }
        return this.known[sound] ?? null;
    }

    private async fetch(sound: string): Promise<void> {
        try {
            const told = await call(Told, 'GET', `scenes/${this.scene}/peaks/${sound}`);
            this.known[sound] = { perSecond: told.perSecond, levels: Float32Array.from(atob(told.levels), (c) => c.charCodeAt(0) / 255) };
        } catch {
            // Looked for again when it is drawn next.
            this.asked.delete(sound);
        }
    }
}

/**
 * The loudest of a stretch of a sound for each of so many columns.
 *
 * @param from seconds of the sound at the first column
 * @param seconds how many all columns last
 * @param turn seconds after which it begins anew; 0: it does not
 */
export function columns(peaks: Peaks, from: number, seconds: number, count: number, turn = 0): number[] {
    const out: number[] = [];
    for (let k = 0; k < count; k++) {
        const into = (k / count) * seconds;
        const a = Math.floor((from + (turn > 0 ? into % turn : into)) * peaks.perSecond);
        const z = Math.max(a + 1, a + Math.ceil((seconds / count) * peaks.perSecond));
        let most = 0;
        for (let i = a; i < z; i++) most = Math.max(most, peaks.levels[i] ?? 0);
        out.push(most);
    }
    return out;
}
