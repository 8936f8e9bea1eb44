import type { MixLane } from './heard';
import { bends, framesTo, heardAt, loudness, placedAt, type Begun, type Heard, type Lowering } from './loudness';

/** Seconds of a grain that is heard while the playhead is dragged over a sound. */
const GRAIN = 0.09;

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
            node.connect(gain);
            this.towards(s, gain, frame, [], this.out);
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
        node.connect(gain);
        const turns = s.placed.flatMap(([f]): [number, number][] => (clock(f) > begins ? [[f, clock(f)]] : []));
        this.towards(s, gain, scene(begins) * b.perSecond, turns, this.out);
        node.start(begins, s.offset + (s.repeats ? skip % turn : skip));
        node.stop(ends);
        return node;
    }

    /** Lets a sound be heard from where it is, from a frame on; the middle is as loud as what is nowhere. */
    private towards(s: Heard, gain: GainNode, frame: number, turns: [number, number][], out: GainNode): void {
        if (s.placed.length === 0) {
            gain.connect(out);
            return;
        }
        gain.channelCount = 1;
        gain.channelCountMode = 'explicit';
        const full = new GainNode(out.context, { gain: Math.SQRT2 });
        const side = new StereoPannerNode(out.context);
        side.pan.setValueAtTime(placedAt(s.placed, frame)[1], out.context.currentTime);
        for (const [f, at] of turns) side.pan.linearRampToValueAtTime(placedAt(s.placed, f)[1], at);
        gain.connect(full).connect(side).connect(out);
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
