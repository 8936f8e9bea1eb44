import { untrack } from 'svelte';
import type { Painter, Stretch, View } from '../../picture';

export interface Asked {
    key: string;
    view: View;
    frame: number;
}

/** Small pictures of the scene, drawn one after the other by the one painter while it has nothing else to do. */
export class SmallPictures {
    /** Addresses of pictures by what they show. */
    made = $state.raw<Record<string, string>>({});
    private waiting: Asked[] = [];
    private running = false;
    private closed = false;

    constructor(
        private readonly painter: () => Painter | null,
        private readonly poses: (frame: number) => Stretch | null,
        private readonly width: number,
        private readonly height: number,
        /** Whether pictures are wanted soon rather than with shadows of their own. */
        private readonly quick: () => boolean = () => false,
    ) {}

    /** Whether any are still to be drawn. */
    get busy(): boolean {
        return this.waiting.length > 0;
    }

    /** These and no others; those that are here already stay. */
    ask(list: Asked[]): void {
        const keys = list.map((a) => a.key);
        // Whoever asks does not ask again because something has been made.
        const here = untrack(() => this.made);
        const kept = Object.entries(here).filter(([k]) => keys.includes(k));
        if (kept.length < Object.keys(here).length) this.made = Object.fromEntries(kept);
        this.waiting = list.filter((a) => !(a.key in here));
        if (!this.running && this.waiting.length > 0) void this.run();
    }

    close(): void {
        this.closed = true;
        this.waiting = [];
    }

    private async run(): Promise<void> {
        this.running = true;
        for (;;) {
            await new Promise((r) => setTimeout(r, 16));
            const next = this.waiting[0];
            if (this.closed || !next) break;
            const painter = this.painter();
            const block = this.poses(next.frame);
            if (!painter || !block) {
                await new Promise((r) => setTimeout(r, 200));
                continue;
            }
            this.waiting.shift();
            const picture = painter.small(block, next.frame, next.view, this.width, this.height, this.quick());
            this.made = { ...this.made, [next.key]: picture };
        }
        this.running = false;
    }
}
