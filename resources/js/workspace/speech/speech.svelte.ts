import { angles } from '../cover/speakerCuts';
import * as v from 'valibot';
import { call } from '../../lib/api';
import type { ManifestLine } from '../../picture';
import type { LineRow } from '../rows';
import type { SceneStore } from '../scene.svelte';

export const VoiceCard = v.object({
    id: v.string(),
    name: v.string(),
    says: v.string(),
    language: v.string(),
    suits: v.array(v.string()),
});
export type VoiceCard = v.InferOutput<typeof VoiceCard>;

const Speech = v.object({
    voices: v.array(VoiceCard),
    cast: v.record(v.string(), v.string()),
    sayAs: v.record(v.string(), v.string()),
});

const Sample = v.object({ voice: v.string(), seconds: v.number() });

export const DELIVERIES: [LineRow['delivery'], string][] = [
    ['plain', 'plain'],
    ['calm', 'calm'],
    ['eager', 'eager'],
    ['angry', 'angry'],
    ['sad', 'sad'],
    ['whispered', 'whispered'],
    ['called', 'called out'],
    ['tired', 'tired'],
];

/** Emotions that a face shows, as they are stored and as they are called. */
export const EMOTIONS = ['glad', 'sad', 'angry', 'afraid', 'surprised', 'disgusted', 'tender', 'doubtful', 'tired', 'pain'] as const;
export const emotionWord = (e: string): string => (e === 'pain' ? 'in pain' : e);

/** Voices of the scene: who has which, and what is said otherwise than it is written. */
export class SpeechStore {
    voices = $state.raw<VoiceCard[]>([]);
    cast = $state.raw<Record<string, string>>({});
    sayAs = $state.raw<Record<string, string>>({});
    /** The voice that is heard as a sample, or that is being made. */
    sampling = $state('');
    private player: HTMLAudioElement | null = null;

    constructor(private readonly scene: SceneStore) {}

    async refresh(): Promise<void> {
        const told = await call(Speech, 'GET', `scenes/${this.scene.id}/speech`);
        this.voices = told.voices;
        this.cast = told.cast;
        this.sayAs = told.sayAs;
    }

    voiceOf(item: number): VoiceCard | null {
        const own = this.scene.find('items', item)?.voice;
        return this.voices.find((c) => c.id === (own || this.cast[String(item)])) ?? null;
    }

    async sample(voice: string): Promise<void> {
        this.player?.pause();
        if (this.sampling === voice) {
            this.sampling = '';
            return;
        }
        this.sampling = voice;
        try {
            await call(Sample, 'GET', `scenes/${this.scene.id}/voices/${voice}/sample`);
            this.player = new Audio(`/api/scenes/${this.scene.id}/voices/${voice}/sound`);
            this.player.onended = () => (this.sampling = '');
            await this.player.play();
        } catch (e) {
            this.sampling = '';
            this.scene.notice = {
                kind: 'error',
                message: e instanceof Error ? e.message : 'The voice cannot be heard.',
                remedy: 'Choose another voice.',
            };
        }
    }

    /** Letters of the cameras that are on air while a line is said. */
    anglesOf(id: number): string[] {
        const at = this.settled.get(id);
        const shots = (this.scene.manifest?.shots ?? []).map((s) => ({ camera: Number(s.camera.slice(1)), in: s.in, out: s.out }));
        return at ? angles(shots, at.from, at.to).map((c) => this.scene.rows.cameras.find((r) => r.id === c)?.letter ?? '?') : [];
    }

    /** Lines as the scene has settled them, by their rows' numbers. */
    get settled(): ReadonlyMap<number, ManifestLine> {
        // Made anew with every manifest, and never changed.
        // eslint-disable-next-line svelte/prefer-svelte-reactivity
        return new Map((this.scene.manifest?.lines ?? []).map((l) => [Number(l.id.slice(1)), l]));
    }

    /** Rows in the order in which they are spoken. */
    get page(): LineRow[] {
        const at = this.settled;
        // One that was just typed and is not settled yet comes last: there it will be.
        const start = (l: LineRow) => at.get(l.id)?.start ?? Infinity;
        return [...this.scene.rows.lines].sort((a, b) => (start(a) === start(b) ? a.id - b.id : start(a) - start(b)));
    }
}
