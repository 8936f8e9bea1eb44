import * as v from 'valibot';
import { ApiError, call } from '../../lib/api';
import type { SceneStore } from '../scene.svelte';
import { heardIn, NOWHERE, type MixLane, type Places } from './heard';
import type { Heard } from './loudness';

const Points = v.array(v.tuple([v.number(), v.number(), v.number()]));
export const HeardFrom = v.object({
    lines: v.record(v.string(), Points),
    sounds: v.record(v.string(), Points),
    /** In the order of the manifest's noises. */
    noises: v.array(Points),
});

/** Milliseconds after the last change until it is asked. */
const AFTER = 400;

/** Asked for after each change, while any lane is heard from the camera; until then sounds are where they were. */
export class PlacesStore {
    now = $state.raw<Places>(NOWHERE);
    private asked = 0;

    /** What is heard of the scene, from where it is. */
    readonly heard: Heard[] = $derived.by(() => heardIn(this.scene.manifest, this.scene.mix, this.solo(), this.now));

    constructor(
        private readonly scene: SceneStore,
        private readonly solo: () => MixLane | null,
    ) {
        $effect(() => {
            void scene.manifest?.state;
            return scene.mix.placed.length === 0 ? this.none() : this.ask(scene.id);
        });
    }

    /** Asks, unless something changes meanwhile; the answer undoes it. */
    private ask(scene: number): () => void {
        const mine = ++this.asked;
        const timer = setTimeout(() => void this.look(scene, mine), AFTER);
        return () => clearTimeout(timer);
    }

    private none(): void {
        this.asked++;
        this.now = NOWHERE;
    }

    private async look(scene: number, mine: number): Promise<void> {
        try {
            const found = await call(HeardFrom, 'GET', `scenes/${scene}/places`);
            if (mine === this.asked) this.now = found;
        } catch (e) {
            // Sounds stay where they were; the next change asks again.
            if (!(e instanceof ApiError)) throw e;
        }
    }
}
