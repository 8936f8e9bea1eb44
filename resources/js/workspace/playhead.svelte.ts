/** What is heard: it is the master of time while it sounds. */
export interface Sounding {
    /** @param first where it goes round to; null: it ends */
    begin(frame: number, end: number, perSecond: number, first: number | null): void;
    frame(): number | null;
    stop(): void;
}

/** Where the scene is being watched: frame, playing, shuttle speed, in and out, and the true rate. */
export class Playhead {
    frame = $state(0);
    speed = $state(0);
    inFrame = $state<number | null>(null);
    outFrame = $state<number | null>(null);
    /** Pictures drawn a second while playing. */
    drawnRate = $state(0);
    private last = 0;
    private exact = 0;
    private drawn: number[] = [];
    private range: [number, number] = [0, 0];
    /** The frame at which it stops by itself, and the one that it goes back to then. */
    private once: { until: number; back: number } | null = null;
    /** Told when it begins, goes round or ends; and asked which frame is heard, where something is. */
    sound: Sounding | null = null;

    constructor(
        private readonly length: () => number,
        private readonly perSecond: () => number,
    ) {}

    get playing(): boolean {
        return this.speed !== 0;
    }

    get first(): number {
        return this.inFrame ?? 0;
    }

    get end(): number {
        return Math.min(this.once?.until ?? this.outFrame ?? this.length(), this.length());
    }

    go(frame: number): void {
        this.frame = Math.max(0, Math.min(this.length() - 1, Math.round(frame)));
        this.exact = this.frame;
        if (this.playing) this.sounds();
    }

    step(by: number): void {
        this.stop();
        this.go(this.frame + by);
    }

    stop(): void {
        this.speed = 0;
        this.once = null;
        this.sound?.stop();
    }

    /** Sound is heard at its own pace only. */
    private sounds(): void {
        // What goes round is known beforehand, so that no gap is heard.
        this.range = [this.first, this.end];
        if (this.speed === 1) this.sound?.begin(this.frame, this.end, this.perSecond(), this.once ? null : this.first);
        else this.sound?.stop();
    }

    toggle(): void {
        if (this.playing) this.stop();
        else this.play(1);
    }

    /** Some frames by themselves, once; then it is where it was. */
    playOnce(from: number, to: number): void {
        const back = this.once?.back ?? this.frame;
        this.stop();
        this.go(from);
        this.once = { until: Math.max(this.frame + 2, Math.ceil(to)), back };
        this.play(1);
    }

    play(speed: number): void {
        if (speed > 0 && this.frame >= this.end - 1) this.go(this.first);
        this.speed = speed;
        this.exact = this.frame;
        this.last = performance.now();
        this.drawn = [];
        this.sounds();
    }

    /** J and L: each press doubles, the other way begins again at one. */
    shuttle(way: 1 | -1): void {
        const now = Math.sign(this.speed) === way ? Math.min(8, Math.abs(this.speed) * 2) : 1;
        this.play(way * now);
    }

    /** Moves on by the clock: time is kept, pictures are dropped. */
    tick(now: number): void {
        if (!this.playing) return;
        // Another beginning or end while it plays: what is to come is another.
        if (this.range[0] !== this.first || this.range[1] !== this.end) this.sounds();
        const heard = this.speed === 1 ? (this.sound?.frame() ?? null) : null;
        this.exact = heard ?? this.exact + ((now - this.last) / 1000) * this.perSecond() * this.speed;
        this.last = now;
        const span = Math.max(1, this.end - this.first);
        if (this.once && this.exact >= this.end) {
            const { back } = this.once;
            this.stop();
            this.go(back);
            return;
        }
        if (this.exact >= this.end) {
            this.exact = this.first + ((this.exact - this.first) % span);
            this.frame = Math.floor(this.exact);
            this.sounds();
        }
        if (this.exact < this.first && this.speed < 0) {
            this.exact = this.first;
            this.stop();
        }
        this.frame = Math.min(this.length() - 1, Math.floor(this.exact));
    }

    counted(now: number): void {
        this.drawn.push(now);
        while (this.drawn.length > 0 && (this.drawn[0] ?? 0) < now - 1500) this.drawn.shift();
        const span = now - (this.drawn[0] ?? now);
        this.drawnRate = span > 200 ? ((this.drawn.length - 1) * 1000) / span : 0;
    }
}
