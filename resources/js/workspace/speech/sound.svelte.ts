import type { ManifestSound } from '../../picture';
import type { MixLane } from './heard';

/** A sound of the scene, and where its bytes are had. */
export type Heard = Omit<ManifestSound, 'muted'> & { from: 'line' | 'kit' };

/** How far what gives way is lowered: seconds of the scene and decibels, straight between them. */
export type Lowering = [number, number][];

/** Seconds of a grain that is heard while the playhead is dragged over a sound. */
const GRAIN = 0.09;

/** Where on the clock it began, at which frame, and the frame that it ends at; it goes round from its first one, or ends. */
export interface Begun {
    at: number;
    frame: number;
    perSecond: number;
    end: number;
    first: number | null;
}

/** The frame of the scene that is heard so many frames after it began, and how often it has gone round. */
export function heardAt(b: Begun, frames: number): [number, number] {
    const over = b.frame + frames - b.end;
    if (b.first === null || over < 0) return [b.frame + frames, 0];
    const span = Math.max(1, b.end - b.first);
    return [b.first + (over % span), 1 + Math.floor(over / span)];
}

/** Frames after it began at which a frame of the scene is heard in one of its rounds. */
export function framesTo(b: Begun, frame: number, round: number): number {
    if (round === 0 || b.first === null) return frame - b.frame;
    return b.end - b.frame + (round - 1) * Math.max(1, b.end - b.first) + frame - b.first;
}

/** Straight pieces that a fade or a lowering is made of. */
const PIECES = 8;

/** Decibels by which a sound's own curve raises it so many seconds after it begins. */
export function raised(curve: Heard['curve'], into: number): number {
    const after = curve.findIndex(([t]) => into < t);
    const [a, from] = curve[after - 1] ?? curve[after] ?? curve.at(-1) ?? [0, 0];
    const [b, to] = after <= 0 ? [a, from] : curve[after]!;
    if (after < 0) return curve.at(-1)?.[1] ?? 0;
    return b > a ? from + ((to - from) * (into - a)) / (b - a) : from;
}

/** Decibels of the lowering at a second of the scene. */
export function lowered(corners: Lowering, t: number): number {
    for (let k = 1; k < corners.length; k++) {
        const [a, from] = corners[k - 1]!;
        const [b, to] = corners[k]!;
        if (t >= a && t <= b && b > a) return from + ((to - from) * (t - a)) / (b - a);
    }
    return 0;
}

/** How loud a sound is at a second of the scene, as a factor: its level, its fades, and what it gives way by. */
export function loudness(s: Heard, corners: Lowering, perSecond: number, t: number): number {
    const [a, z] = [s.start / perSecond, s.end / perSecond];
    const share = (x: number) => Math.sin((Math.PI / 2) * Math.max(0, Math.min(1, x)));
    const into = s.fadeIn > 0 ? share((t - a) / s.fadeIn) : 1;
    const out = s.fadeOut > 0 ? share((z - t) / s.fadeOut) : 1;
    return 10 ** ((s.decibels + (s.yields ? lowered(corners, t) : 0) + raised(s.curve, t - a)) / 20) * into * out;
}

/** Seconds of the scene at which the loudness of a sound bends, after a moment. */
export function bends(s: Heard, corners: Lowering, perSecond: number, after: number): number[] {
    const [a, z] = [s.start / perSecond, s.end / perSecond];
    const pieces = (from: number, to: number) => Array.from({ length: PIECES + 1 }, (_, k) => from + ((to - from) * k) / PIECES);
    const all = [
        ...(s.fadeIn > 0 ? pieces(a, a + s.fadeIn) : []),
        ...(s.fadeOut > 0 ? pieces(z - s.fadeOut, z) : []),
        ...s.curve.flatMap(([t], k) => (k > 0 ? pieces(a + s.curve[k - 1]![0], a + t) : [a + t])),
        ...(s.yields ? corners.flatMap(([t], k) => (k > 0 ? pieces(corners[k - 1]![0], t) : [t])) : []),
    ];
    return all.filter((t, k) => t > after && t <= z && all.indexOf(t) === k).sort((x, y) => x - y);
}

/**
 * What is heard of a scene. While it plays, the audio clock is the master: pictures follow it and are left out, never the sound.
 */
export class SoundDesk {
    /** Off: nothing is heard, and pictures go by the page's clock. */
    on = $state(kept());
    /** The one lane that is heard; it is no part of the scene. */
    solo = $state<MixLane | null>(null);
    /** Sounds that are not here yet. */
    loading = $state(0);
    private player: HTMLAudioElement | null = null;
    private context: AudioContext | null = null;
    private out: GainNode | null = null;
    // Nobody looks at these: what is drawn asks the clock.
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    private readonly buffers = new Map<string, AudioBuffer | null>();
    /** What sounds or is to, by all that is known of it. */
    // eslint-disable-next-line svelte/prefer-svelte-reactivity
    private readonly playing = new Map<string, AudioBufferSourceNode>();
    private begun: Begun | null = null;
    /** What was last looked through for what is to come. */
    private known: { now: Heard[]; round: number; loading: number } | null = null;

    constructor(
        private readonly sounds: () => Heard[],
        private readonly lowering: () => Lowering,
        private readonly fetch: (sound: Heard) => Promise<ArrayBuffer | null>,
    ) {}

    toggle(): void {
        this.on = !this.on;
        try {
            localStorage.setItem('sound', this.on ? 'on' : 'off');
        } catch {
            // Not allowed: then it lives as long as the page.
        }
        if (!this.on) this.stop();
    }

    /** Begins to sound at a frame, up to another; called within a gesture, as browsers ask for it. */
    begin(frame: number, end: number, perSecond: number, first: number | null): void {
        this.stop();
        if (!this.on || this.sounds().length === 0) return;
        const context = this.ready();
        if (!context) return;
        // A breath ahead, so that the first sound is not cut.
        this.begun = { at: context.currentTime + 0.02, frame, perSecond, end, first };
        this.schedule();
    }

    /** The frame that is heard now; null: the page's clock counts. */
    frame(): number | null {
        const b = this.begun;
        if (!b || !this.context || this.context.state !== 'running') return null;
        this.schedule();
        const late = this.context.outputLatency || this.context.baseLatency || 0;
        return heardAt(b, Math.max(0, this.context.currentTime - late - b.at) * b.perSecond)[0];
    }

    stop(): void {
        for (const n of this.playing.values()) n.stop();
        this.playing.clear();
        this.begun = null;
        this.known = null;
    }

    /** A sound of the production by itself, once; again, and it stops. */
    audition(blob: string): void {
        this.player?.pause();
        const again = this.player?.src.endsWith(blob) === true && !this.player.ended;
        this.player = again ? null : new Audio(`/api/blobs/${blob}`);
        void this.player?.play();
    }

    /** The sound under a playhead that is dragged. */
    grain(frame: number, perSecond: number): void {
        if (!this.on || this.begun || !this.context || !this.out) return;
        const t = this.context.currentTime;
        for (const s of this.sounds()) {
            const buffer = this.buffers.get(s.sound);
            if (!buffer || frame < s.start || frame >= s.end) continue;
            const turn = s.turn || buffer.duration;
            const node = new AudioBufferSourceNode(this.context, { buffer });
            const gain = new GainNode(this.context, { gain: 0 });
            const loud = loudness(s, this.lowering(), perSecond, frame / perSecond);
            gain.gain.setValueAtTime(0, t);
            gain.gain.linearRampToValueAtTime(loud, t + 0.01);
            gain.gain.setValueAtTime(loud, t + GRAIN - 0.02);
            gain.gain.linearRampToValueAtTime(0, t + GRAIN);
            node.connect(gain).connect(this.out);
            node.start(t, s.offset + (((frame - s.start) / perSecond) % turn), GRAIN);
        }
    }

    /** Fetches what is not here, so that it sounds at once when it is wanted. */
    prepare(): void {
        for (const s of this.sounds()) {
            if (this.buffers.has(s.sound)) continue;
            this.buffers.set(s.sound, null);
            this.loading++;
            void this.load(s);
        }
    }

    private async load(s: Heard): Promise<void> {
        try {
            const bytes = await this.fetch(s);
            // Decoding needs no clock and no leave to sound.
            if (bytes) this.buffers.set(s.sound, await new OfflineAudioContext(1, 1, 48_000).decodeAudioData(bytes));
            else this.buffers.delete(s.sound);
        } catch {
            this.buffers.delete(s.sound);
        } finally {
            this.loading--;
        }
    }

    /** What is here of what is still to come; what arrives late comes in where it would be, what is heard no more or otherwise ends. */
    private schedule(): void {
        const b = this.begun;
        if (!b || !this.context) return;
        const round = heardAt(b, Math.max(0, this.context.currentTime - b.at) * b.perSecond)[1];
        // This round and the next, which is to begin without a gap.
        const rounds = b.first === null ? [0] : [round, round + 1];
        const now = this.sounds();
        const known = this.known;
        if (known?.now === now && known.round === round && known.loading === this.loading) return;
        this.known = { now, round, loading: this.loading };
        // eslint-disable-next-line svelte/prefer-svelte-reactivity
        const wanted = new Map<string, { s: Heard; r: number }>(
            rounds.flatMap((r) => now.map((s) => [`${r} ${JSON.stringify(s)}`, { s, r }] as const)),
        );
        for (const [key, node] of this.playing) {
            if (wanted.has(key)) continue;
            node.stop();
            this.playing.delete(key);
        }
        for (const [key, { s, r }] of wanted) {
            const buffer = this.buffers.get(s.sound);
            if (!buffer || this.playing.has(key)) continue;
            const node = this.sound(s, buffer, b, r);
            if (node) this.playing.set(key, node);
        }
    }

    private sound(s: Heard, buffer: AudioBuffer, b: Begun, round: number): AudioBufferSourceNode | null {
        if (!this.context || !this.out) return null;
        /** A frame of the scene on the clock of the sound. */
        const clock = (frame: number) => b.at + framesTo(b, frame, round) / b.perSecond;
        const opens = clock(round === 0 ? b.frame : (b.first ?? 0));
        const begins = Math.max(this.context.currentTime, clock(s.start), opens);
        const ends = clock(Math.min(s.end, b.end));
        if (ends <= begins) return null;
        const turn = Math.min(s.turn || buffer.duration, buffer.duration - s.offset);
        const skip = begins - clock(s.start);
        const node = new AudioBufferSourceNode(this.context, {
            buffer,
            loop: s.repeats,
            loopStart: s.offset,
            loopEnd: s.offset + turn,
        });
        const gain = new GainNode(this.context);
        const scene = (at: number) => at - clock(0);
        const corners = this.lowering();
        gain.gain.setValueAtTime(loudness(s, corners, b.perSecond, scene(begins)), begins);
        for (const t of bends(s, corners, b.perSecond, scene(begins)))
            gain.gain.linearRampToValueAtTime(loudness(s, corners, b.perSecond, t), clock(t * b.perSecond));
        node.connect(gain).connect(this.out);
        node.start(begins, s.offset + (s.repeats ? skip % turn : skip));
        node.stop(ends);
        return node;
    }

    private ready(): AudioContext | null {
        if (!this.context) {
            try {
                this.context = new AudioContext({ latencyHint: 'interactive' });
                this.out = new GainNode(this.context);
                this.out.connect(this.context.destination);
            } catch {
                return null;
            }
        }
        if (this.context.state === 'suspended') void this.context.resume();
        this.prepare();
        return this.context;
    }
}

function kept(): boolean {
    try {
        return localStorage.getItem('sound') !== 'off';
    } catch {
        return true;
    }
}
