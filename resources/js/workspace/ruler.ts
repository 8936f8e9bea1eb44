import { perSecond, type Rate } from '../lib/time';

export interface Tick {
    frame: number;
    /** Empty for a mark between two that are named. */
    label: string;
}

/** Seconds between named marks; what is finer than a second is counted in frames, a whole number of times to the second. */
const SECONDS = [1, 2, 5, 10, 15, 30, 60, 120, 300, 600, 900, 1800, 3600];
const LEAST_PX = 64;
const LEAST_BETWEEN_PX = 7;

/** Marks of a ruler over frames `from` to `to`: named ones far enough apart to be read, plain ones between them. */
export function ticks(from: number, to: number, pxPerFrame: number, rate: Rate): Tick[] {
    const second = perSecond(rate);
    const base = Math.round(second);
    const parted = Array.from({ length: Math.floor(base / 2) }, (_, k) => k + 1).filter((n) => base % n === 0);
    const fine = parted.find((n) => n * pxPerFrame >= LEAST_PX);
    const seconds = SECONDS.find((s) => s * second * pxPerFrame >= LEAST_PX) ?? SECONDS[SECONDS.length - 1] ?? 3600;
    const out: Tick[] = [];
    if (fine !== undefined) {
        for (let f = Math.ceil(from / fine) * fine; f <= to; f += fine) {
            const s = Math.floor(f / second + 1e-6);
            const rest = Math.round(f - s * second);
            out.push({ frame: f, label: rest === 0 ? clock(s) : `${clock(s)}+${rest}` });
        }
        return out;
    }
    const parts = [10, 5, 4, 2].find((n) => (seconds * second * pxPerFrame) / n >= LEAST_BETWEEN_PX) ?? 1;
    for (let k = Math.max(0, Math.ceil((from / second / seconds) * parts - 1e-6)); ; k++) {
        const frame = Math.round((k * seconds * second) / parts);
        if (frame > to) return out;
        out.push({ frame, label: k % parts === 0 ? clock((k / parts) * seconds) : '' });
    }
}

/** Minutes and seconds (0:05); where marks stand closer than a second the frame follows (0:05+12). */
function clock(s: number): string {
    const [h, m] = [Math.floor(s / 3600), Math.floor(s / 60) % 60];
    return `${h > 0 ? `${h}:${String(m).padStart(2, '0')}` : m}:${String(s % 60).padStart(2, '0')}`;
}
