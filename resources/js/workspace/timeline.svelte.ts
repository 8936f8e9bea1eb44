/** Scale of reel strip and lanes: frames to pixels, shared so that cuts and beats line up. */
export class Timeline {
    left = 148;
    width = $state(900);
    /** First frame shown and frames shown. */
    from = $state(0);
    shown = $state(240);

    get perFrame(): number {
        return Math.max(0.01, (this.width - this.left - 12) / Math.max(1, this.shown));
    }

    x(frame: number): number {
        return this.left + (frame - this.from) * this.perFrame;
    }

    frame(x: number): number {
        return Math.round((x - this.left) / this.perFrame + this.from);
    }

    zoom(factor: number, around: number, length: number): void {
        const shown = Math.max(24, Math.min(length, this.shown * factor));
        this.from = Math.max(0, Math.min(length - shown, around - (around - this.from) * (shown / this.shown)));
        this.shown = shown;
    }
}
