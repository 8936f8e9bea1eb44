import type { Command, FramingRow } from '../rows';
import type { SetUp } from './setups';

export interface Said {
    item: number;
    from: number;
    to: number;
}
export interface OnAir {
    camera: number;
    in: number;
    out: number;
}

/** Frames around a change of speaker in which a cut belongs to it. */
export const NEAR = 3;
/** A speaker who is heard no longer than that is no change: seconds. */
const SHORT = 0.5;

/** Cameras that are on air while something is said, in the order in which they come. */
export function angles(shots: OnAir[], from: number, to: number): number[] {
    const on = shots.filter((s) => s.in < to - NEAR && s.out > from + NEAR).map((s) => s.camera);
    return on.filter((c, k) => c !== on[k - 1]);
}

/** Whom a camera films at a frame, by what it was told; null where it was told nothing. */
export function filmed(framings: FramingRow[], camera: number, frame: number): FramingRow | null {
    const own = framings.filter((f) => f.cameraId === camera).sort((a, b) => a.frame - b.frame);
    return own.findLast((f) => f.frame <= frame) ?? own[0] ?? null;
}

/** The camera that films somebody by themselves or over a shoulder at a frame: the one that was last on air, else the first. */
export function cameraOf(speaker: number, frame: number, shots: OnAir[], cameras: number[], framings: FramingRow[]): number | null {
    const fit = cameras.filter((c) => {
        const f = filmed(framings, c, frame);
        return f !== null && f.subjectId === speaker && f.kind !== 'together' && f.part === 'face';
    });
    const last = shots.findLast((s) => s.in < frame && fit.includes(s.camera));
    return last?.camera ?? fit[0] ?? null;
}

export interface Change {
    frame: number;
    speaker: number;
    /** Who spoke before. */
    before: number;
    /** The camera to cut to; null: none films them yet. */
    camera: number | null;
}

/** Where somebody else begins to speak and no cut shows it, nor is the one on air theirs. */
export function changes(said: Said[], shots: OnAir[], cameras: number[], framings: FramingRow[], perSecond: number): Change[] {
    const heard = said.filter((s) => s.to - s.from >= SHORT * perSecond).sort((a, b) => a.from - b.from);
    return heard.flatMap((s, k): Change[] => {
        const frame = Math.max(0, Math.round(s.from) - 1);
        const on = shots.find((o) => o.in <= frame && frame < o.out);
        const isChange = k > 0 && heard[k - 1]!.item !== s.item;
        if (!isChange || !on || shots.some((o) => Math.abs(o.in - frame) <= NEAR)) return [];
        const camera = cameraOf(s.item, frame, shots, cameras, framings);
        return camera === on.camera ? [] : [{ frame, speaker: s.item, before: heard[k - 1]!.item, camera }];
    });
}

/** From above: x and z. */
export type Spot = [number, number];

/** On which side of the line from one to the other a place is: 1 or -1, 0 on it. */
export function sideOf(one: Spot, other: Spot, place: Spot): number {
    return Math.sign((other[0] - one[0]) * (place[1] - one[1]) - (other[1] - one[1]) * (place[0] - one[0]));
}

/**
 * Of set-ups the one for who speaks: past a shoulder, else close, on the side of the line that the reel is on.
 *
 * @param isOurs whether a place of a camera is on that side
 */
export function best(found: SetUp[], isOurs: (place: Spot) => boolean = () => true): SetUp['framing'] | null {
    const kept = found.filter((s) => !s.crosses && s.view !== null && isOurs([s.view.position[0], s.view.position[2]]));
    const shoulder = kept.find((s) => s.framing.kind === 'overShoulder');
    return (shoulder ?? kept.find((s) => s.family === 'one' && /^(mediumC|c)loseUp$/.test(s.framing.size)) ?? kept[0])?.framing ?? null;
}

/**
 * The edits that cut at all of them.
 *
 * @param framings how whoever is filmed by no camera yet is to be, by their numbers
 */
export function cutsAt(all: Change[], framings: Record<number, SetUp['framing']>): Command[] {
    const out: Command[] = [];
    const made: number[] = [];
    for (const c of all) {
        if (c.camera === null && !made.includes(c.speaker)) {
            made.push(c.speaker);
            out.push({
                do: 'camera.frame',
                ...(framings[c.speaker] ?? { subject: c.speaker, size: 'mediumCloseUp' }),
                as: `$of${c.speaker}`,
                frame: c.frame,
            });
        }
        out.push({ do: 'shot.cut', camera: c.camera ?? `$of${c.speaker}`, frame: c.frame });
    }
    return out;
}
