import * as v from 'valibot';
import { ApiError, call } from '../../lib/api';
import type { ManifestNote } from '../../picture';

const Note = v.object({
    code: v.string(),
    severity: v.picklist(['harms', 'look', 'fyi']),
    sentence: v.string(),
    effect: v.string(),
    remedy: v.string(),
    about: v.array(v.string()),
    frames: v.nullable(v.tuple([v.number(), v.number()])),
    figures: v.array(v.any()),
    mends: v.array(v.object({ words: v.string(), commands: v.array(v.looseObject({ do: v.string() })), safe: v.boolean() })),
});
export const Notes = v.object({ notes: v.array(Note) });

/** Milliseconds after the last change until cameras are asked what they lose. */
const AFTER = 1200;

/** What cameras that know whom they film lose on the reel: asked for a while after a change, when nothing plays. */
export class Lookout {
    notes = $state.raw<ManifestNote[]>([]);
    private asked = 0;

    /** Asks, unless something changes meanwhile; the answer undoes it. */
    ask(scene: number): () => void {
        const mine = ++this.asked;
        const timer = setTimeout(() => void this.look(scene, mine), AFTER);
        return () => clearTimeout(timer);
    }

    none(): void {
        this.asked++;
        this.notes = [];
    }

    private async look(scene: number, mine: number): Promise<void> {
        try {
            const found = (await call(Notes, 'GET', `scenes/${scene}/lookout`)).notes;
            if (mine === this.asked) this.notes = found as ManifestNote[];
        } catch (e) {
            // What is only told in passing is not worth an error; the next change asks again.
            if (!(e instanceof ApiError)) throw e;
        }
    }
}
