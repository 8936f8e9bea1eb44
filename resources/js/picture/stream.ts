import type { Mood } from './moods';

/** The scene as the core settled it. docs/pose-stream.md has the layout. */

export interface LampFact {
    at: [number, number, number];
    power: number;
    halo: number;
    channel: 'A' | 'B';
}

/** What something does over the scene: one row where it never moves, else the names of its pieces. */
export interface ManifestTrack {
    kind: 'place' | 'figure' | 'cloth' | 'camera';
    stride: number;
    still?: number[];
    pieces?: string[];
}

export interface ManifestItem {
    id: string;
    kind: 'performer' | 'set' | 'prop';
    name: string;
    tape: number;
    blob: string;
    joints: string[];
    jointNodes: number[];
    hips: number;
    /** Joint of the head, the middle of its eyes and the way it looks, in the joint's own space; null: it has none. */
    face: [number, [number, number, number], [number, number, number]] | null;
    morphs: string[];
    mounts: string[];
    extras: {
        lamps?: LampFact[];
        water?: number;
        backdrop?: boolean;
        around?: string;
        /** It has layers, so that there may be less of it. */
        layers?: boolean;
        /** Names of its wild walls. */
        wild?: string[];
        home?: number[];
        mirrorSlabs?: [number, number, number][];
        vehicle?: { rider?: object };
        cloth?: { worn?: string };
    };
    bounds: [[number, number, number], [number, number, number]];
    /** How much of what lies around is there, 0 bare to 1. */
    fullness: number;
    /** What a cloth is made of, where that was chosen. */
    cloth: { kind: string; grams: number; bend: number; catch: number; damping: number } | null;
    track: ManifestTrack;
}

export interface ManifestCamera {
    id: string;
    letter: string;
    name: string;
    sensorWidthMm: number;
    /** Wild walls taken away for it by hand; null: those that it stands behind. */
    wallsAway: string[] | null;
    track: ManifestTrack;
}

/** Frames in which the reel shows two cameras at once, or one and a plain colour; where the colour is, there is no camera. */
export interface ManifestBlend {
    from: number;
    /** Frame after the last. */
    to: number;
    a: string | null;
    b: string | null;
    colour: 'black' | 'white' | null;
}

export interface ManifestShot {
    id: string;
    camera: string;
    in: number;
    out: number;
    label: string;
}

/** A line as it is spoken: frames of the scene, which may lie between two. */
export interface ManifestLine {
    id: string;
    item: string;
    /** Where its sound begins and ends, and in it the first and the last word. */
    start: number;
    end: number;
    from: number;
    to: number;
    heard: string;
    /** The sound that a voice read it as; null: none has yet. */
    sound: string | null;
    /** Where in a recording it is heard, and how long that is, seconds; null: a voice reads it. */
    take: { from: number; to: number; seconds: number } | null;
    words: [string, number, number][];
}

/** A sound of the scene, where it is heard: frames may lie between two. */
export interface ManifestSound {
    id: string;
    sound: string;
    start: number;
    end: number;
    /** Seconds into the file at which a turn of it begins, and that a turn lasts. */
    offset: number;
    turn: number;
    repeats: boolean;
    decibels: number;
    fadeIn: number;
    fadeOut: number;
    yields: boolean;
    muted: boolean;
    lane: string;
    /** Seconds after it begins, and decibels that it is raised by then, straight between. */
    curve: [number, number][];
}

/** What is heard to happen: what, whose, its sound, start, end, seconds into it and of a turn, whether it goes round, decibels, fades. */
export type ManifestNoise = ['step' | 'land' | 'roll', string, string, number, number, number, number, boolean, number, number];

export interface Manifest {
    /** Of a preview: where each item stands. */
    stands?: [number, number, number][];
    frames: number;
    rate: [number, number];
    width: number;
    height: number;
    mood: string;
    /** The mood's light in numbers. */
    look: Mood;
    /** The name of the state that it tells of. */
    state: string;
    pieceFrames: number;
    pieces: number;
    beats: Record<string, { start: number; end: number; seconds: number; loops: boolean }>;
    items: ManifestItem[];
    cameras: ManifestCamera[];
    shots: ManifestShot[];
    blends: ManifestBlend[];
    notes: ManifestNote[];
    lines: ManifestLine[];
    sounds: ManifestSound[];
    noises: ManifestNoise[];
    /** How far ambience and music give way: seconds of the scene, decibels. */
    lowering: [number, number][];
}

/** Something that a person should know about the scene; docs/formats.md has the fields. */
export interface ManifestNote {
    code: string;
    severity: 'harms' | 'look' | 'fyi';
    sentence: string;
    effect: string;
    remedy: string;
    /** Ids of rows: whose it is, and which of their beats or contacts. */
    about: string[];
    frames: [number, number] | null;
    figures: { name: string; value: number; unit: string; allowed: number | null }[];
    mends: { words: string; commands: { do: string; [key: string]: unknown }[]; safe: boolean }[];
}

/** The shot on air at a scene frame, by the reel's order. */
export function shotAt(manifest: Manifest, frame: number): ManifestShot | null {
    return manifest.shots.find((s) => s.in <= frame && frame < s.out) ?? null;
}

/** What an edit changed of a manifest: things as they are now, and the ids of those that stayed as they were. */
export type ManifestPart = Partial<Omit<Manifest, 'items' | 'cameras'>> & {
    since?: string;
    items: (ManifestItem | string)[];
    cameras: (ManifestCamera | string)[];
};

/** The whole manifest of a part; null when it is told from a state that is not the one here. */
export function wholeManifest(part: ManifestPart, before: Manifest | null): Manifest | null {
    const { since, ...now } = part;
    if (since === undefined) return now as Manifest;
    if (before?.state !== since) return null;
    const items = whole(now.items, before.items);
    const cameras = whole(now.cameras, before.cameras);
    return items && cameras ? { ...before, ...now, items, cameras } : null;
}

function whole<T extends { id: string }>(now: (T | string)[], before: T[]): T[] | null {
    const known = new Map(before.map((b) => [b.id, b]));
    const all = now.map((n) => (typeof n === 'string' ? known.get(n) : n));
    return all.every((n) => n !== undefined) ? all : null;
}
