import type { ManifestSound } from '../../picture';

/** A sound of the scene, and where its bytes are had. */
export type Heard = Omit<ManifestSound, 'muted'> & {
    from: 'line' | 'kit';
    /** From where: frames, decibels, sides (-1 left to 1 right), straight between; none: as it is, from both sides. */
    placed: [number, number, number][];
};

/** How far what gives way is lowered: seconds of the scene and decibels, straight between them. */
export type Lowering = [number, number][];

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

/** Decibels and side of where a sound is at a frame. */
export function placedAt(placed: Heard['placed'], frame: number): [number, number] {
    const along = (k: 1 | 2) =>
        raised(
            placed.map((p): [number, number] => [p[0], p[k]]),
            frame,
        );
    return placed.length === 0 ? [0, 0] : [along(1), along(2)];
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
    const away = placedAt(s.placed, t * perSecond)[0];
    return 10 ** ((s.decibels + (s.yields ? lowered(corners, t) : 0) + raised(s.curve, t - a) + away) / 20) * into * out;
}

/** Seconds of the scene at which the loudness of a sound bends, after a moment. */
export function bends(s: Heard, corners: Lowering, perSecond: number, after: number): number[] {
    const [a, z] = [s.start / perSecond, s.end / perSecond];
    const pieces = (from: number, to: number) => Array.from({ length: PIECES + 1 }, (_, k) => from + ((to - from) * k) / PIECES);
    const all = [
        ...(s.fadeIn > 0 ? pieces(a, a + s.fadeIn) : []),
        ...(s.fadeOut > 0 ? pieces(z - s.fadeOut, z) : []),
        ...s.curve.flatMap(([t], k) => (k > 0 ? pieces(a + s.curve[k - 1]![0], a + t) : [a + t])),
        ...s.placed.map(([f]) => f / perSecond),
        ...(s.yields ? corners.flatMap(([t], k) => (k > 0 ? pieces(corners[k - 1]![0], t) : [t])) : []),
    ];
    return all.filter((t, k) => t > after && t <= z && all.indexOf(t) === k).sort((x, y) => x - y);
}
