import type { Rows } from './rows.generated';

/** Rows of a scene as the server keeps them, and what goes to and fro about them. */

export type { AssetRow } from './answers';
export { type CameraRow as CameraRowData } from './rows.generated';
export type {
    BeatRow,
    CameraKeyRow,
    ContactRow,
    ExpressionRow,
    FramingRow,
    ItemRow,
    LineRow,
    LinkRow,
    MixRow,
    PathRow,
    PlayRow,
    Quat,
    Rows,
    ShotRow,
    SoundRow,
    TakeRow,
    TouchUpRow,
    Vec3,
} from './rows.generated';

export type Table = keyof Rows;

export interface Command {
    do: string;
    as?: string;
    [key: string]: unknown;
}

export type Selection = { table: Table; id: number };

/** Tape colours, told apart by letter too. */
export const TAPE = ['#d1495b', '#2e86ab', '#edae49', '#3c8d53', '#7b5ea7', '#e07a3f', '#1b998b', '#8d6b48'];
export const tapeColour = (n: number): string => TAPE[((n % TAPE.length) + TAPE.length) % TAPE.length] ?? '#2e86ab';
