import type { ManifestPart } from '../picture';

/** Rows of a scene as the server keeps them. */

export type Vec3 = [number, number, number];
export type Quat = [number, number, number, number];

export interface ItemRow {
    id: number;
    kind: 'performer' | 'set' | 'prop';
    assetId: number;
    name: string;
    tape: number;
    position: Vec3;
    headingDeg: number;
    scale: number;
    /** The version of its asset that it stays at; null: it follows the newest. */
    pinned: number | null;
    moves: { frame: number; position: Vec3; rotation: Quat; ease: string }[];
    route: { points: [number, number][]; from?: number; to?: number; speed?: number; by?: string } | null;
    /** What a cloth is made of; null: as its file says. */
    cloth: { kind: string; grams?: number; bend?: number; catch?: number; damping?: number } | null;
    /** What surfaces are to be in place of what came with the asset, by the surface's key. */
    surfaces: Record<string, { colour?: string; finish?: string; picture?: number; metres?: number; variant?: string }>;
}

export interface BeatRow {
    id: number;
    itemId: number;
    assetId: number;
    start: number;
    sourceIn: number;
    sourceOut: number | null;
    speed: number;
    loops: number;
    root: 'travel' | 'spot';
    join: 'carryOn' | 'blend' | 'cut';
    joinFrames: number;
    settings: Record<string, number | string>;
    path: PathRow | null;
    play: PlayRow;
}

/** A drawn way over the ground: x and z in metres. */
export interface PathRow {
    points: [number, number][];
    arrive?: number | null;
    faceDeg?: number | null;
    changes?: { after: number; style: Record<string, number> }[] | null;
}

/** What is set of how a beat plays; what is not there is as usual. */
export interface PlayRow {
    mirror?: boolean;
    reverse?: boolean;
    ease?: [number, number, number, number] | null;
    speeds?: [number, number][];
    holdBefore?: number;
    holdAfter?: number;
    fill?: number | null;
    keepLooping?: boolean;
    skip?: number;
    length?: number | null;
    armWidthDeg?: number;
    energy?: number;
    hipOffset?: number;
    layer?: number;
    mask?: string[];
    weight?: number;
    fadeIn?: number;
    fadeOut?: number;
    anchor?: 'foot' | 'hips';
    with?: string;
}

export interface TouchUpRow {
    id: number;
    itemId: number;
    joint: string;
    from: number;
    to: number | null;
    easeIn: number;
    easeOut: number;
    keys: { frame: number; rotation?: Quat; shift?: Vec3 }[];
}

export interface ContactRow {
    id: number;
    itemId: number;
    effector: string;
    targetId: number | null;
    mount: string;
    offset: Vec3;
    from: number;
    to: number | null;
    easeIn: number;
    easeOut: number;
    turn: 'keep' | 'follow' | 'match';
}

export interface LinkRow {
    id: number;
    childId: number;
    parentId: number;
    mount: string;
    from: number;
    to: number | null;
    keep: 'place' | 'grip';
    easeFrames: number;
    release: 'stay' | 'fall';
    velocity: Vec3 | null;
}

export interface CameraKeyRow {
    frame: number;
    position: Vec3;
    rotation: Quat;
    focalMm: number;
    focusMetres: number | null;
    fStop: number;
    ease: string;
}

export interface CameraRowData {
    id: number;
    letter: string;
    name: string;
    sensorWidthMm: number;
    sensorHeightMm: number;
    keys: CameraKeyRow[];
}

export interface ShotRow {
    id: number;
    cameraId: number;
    sort: number;
    in: number;
    out: number | null;
    label: string | null;
}

export interface AssetRow {
    id: number;
    kind: 'performer' | 'set' | 'prop' | 'motion' | 'sound' | 'picture';
    name: string;
    slug: string;
    tags: string[];
    credit: string;
    licence: string;
    house: boolean;
    colour: number | null;
    folder: string | null;
    archived: boolean;
    source: string | null;
    version: number;
    blob: string;
    picture: string | null;
    facts: Record<string, unknown>;
}

export interface Rows {
    items: ItemRow[];
    beats: BeatRow[];
    links: LinkRow[];
    touch_ups: TouchUpRow[];
    contacts: ContactRow[];
    cameras: CameraRowData[];
    shots: ShotRow[];
}

export type Table = keyof Rows;

export interface Change {
    table: Table | 'scenes' | 'productions';
    id: number;
    row: Record<string, unknown> | null;
}

export interface EditAnswer {
    revision: number;
    label?: string;
    changes: Change[];
    manifest: ManifestPart | null;
    /** Pieces that changed where the playhead stands, by name, in base 64. */
    pieces?: Record<string, string>;
    history?: { undo: string | null; redo: string | null };
    here?: string[];
}

export interface Command {
    do: string;
    as?: string;
    [key: string]: unknown;
}

export type Selection = { table: Table; id: number };

/** Tape colours, told apart by letter too. */
export const TAPE = ['#d1495b', '#2e86ab', '#edae49', '#3c8d53', '#7b5ea7', '#e07a3f', '#1b998b', '#8d6b48'];
export const tapeColour = (n: number): string => TAPE[((n % TAPE.length) + TAPE.length) % TAPE.length] ?? '#2e86ab';
