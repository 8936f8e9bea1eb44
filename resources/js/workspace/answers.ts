import * as v from 'valibot';
import type { Manifest, ManifestPart } from '../picture';
import {
    ContactRow,
    BeatRow,
    CameraRow,
    ExpressionRow,
    FramingRow,
    ItemRow,
    LineRow,
    LinkRow,
    Rows,
    ShotRow,
    SoundRow,
    TakeRow,
    TouchUpRow,
    MixRow,
    WindRow,
} from './rows.generated';

/** What the server answers about a scene: checked where it comes in, typed from there on. */

const part = v.looseObject({ items: v.array(v.union([v.string(), v.looseObject({ id: v.string() })])), cameras: v.array(v.unknown()) });

/** A manifest as the core wrote it, or what of it has changed; the picture reads the rest. */
export const ManifestShape = v.custom<Manifest>((m) => v.is(part, m) && typeof m.state === 'string' && Array.isArray(m.shots));
export const ManifestPartShape = v.custom<ManifestPart>((m) => v.is(part, m));
export const WithManifest = v.object({ manifest: ManifestShape });
/** Of something alone on a turntable: it is no state of a scene. */
export const Preview = v.object({ manifest: v.custom<Manifest>((m) => v.is(part, m)) });

const Steps = v.object({ undo: v.nullable(v.string()), redo: v.nullable(v.string()) });

const SceneRow = v.object({
    id: v.number(),
    name: v.string(),
    mood: v.string(),
    story: v.nullable(v.string()),
    wind: v.nullable(v.partial(WindRow)),
    mix: v.nullable(v.partial(MixRow)),
});
export type SceneRow = v.InferOutput<typeof SceneRow>;

export const Opened = v.object({
    scene: v.object({ ...SceneRow.entries, revision: v.number() }),
    production: v.object({
        id: v.number(),
        name: v.string(),
        role: v.string(),
        scenes: v.array(v.object({ id: v.number(), name: v.string() })),
    }),
    rows: Rows,
    manifest: ManifestShape,
    history: Steps,
});

export const AssetKind = v.picklist(['performer', 'set', 'prop', 'motion', 'sound', 'picture']);

export const AssetRow = v.object({
    id: v.number(),
    kind: AssetKind,
    name: v.string(),
    slug: v.string(),
    tags: v.array(v.string()),
    credit: v.string(),
    licence: v.string(),
    house: v.boolean(),
    colour: v.nullable(v.number()),
    folder: v.nullable(v.string()),
    archived: v.boolean(),
    source: v.nullable(v.string()),
    version: v.number(),
    /** None as long as its first version is being read. */
    blob: v.pipe(
        v.nullable(v.string()),
        v.transform((b) => b ?? ''),
    ),
    picture: v.nullable(v.string()),
    facts: v.record(v.string(), v.unknown()),
});
export type AssetRow = v.InferOutput<typeof AssetRow>;
export const Assets = v.object({ assets: v.array(AssetRow) });

const changed = <T extends string, S extends v.GenericSchema>(table: T, row: S) =>
    v.object({ table: v.literal(table), id: v.number(), row: v.nullable(row) });

/** A row that came, changed or went. */
export const Change = v.variant('table', [
    changed('items', ItemRow),
    changed('beats', BeatRow),
    changed('links', LinkRow),
    changed('touch_ups', TouchUpRow),
    changed('contacts', ContactRow),
    changed('framings', FramingRow),
    changed('cameras', CameraRow),
    changed('shots', ShotRow),
    changed('lines', LineRow),
    changed('expressions', ExpressionRow),
    changed('sounds', SoundRow),
    changed('takes', TakeRow),
    changed('scenes', SceneRow),
    changed('productions', v.looseObject({})),
]);
export type Change = v.InferOutput<typeof Change>;

export const EditAnswer = v.object({
    revision: v.number(),
    label: v.optional(v.string()),
    changes: v.array(Change),
    manifest: v.nullable(ManifestPartShape),
    /** Pieces that changed where the playhead stands, by name, in base 64. */
    pieces: v.optional(v.record(v.string(), v.string())),
    history: v.optional(Steps),
    here: v.optional(v.array(v.string())),
    /** Lines that no voice has read yet, and why some never will be; by line. */
    voices: v.optional(v.object({ waiting: v.number(), problems: v.record(v.string(), v.string()) })),
});
export type EditAnswer = v.InferOutput<typeof EditAnswer>;

export const Render = v.object({
    id: v.string(),
    status: v.picklist(['waiting', 'drawing', 'encoding', 'done', 'cancelled', 'failed']),
    from: v.number(),
    to: v.number(),
    width: v.number(),
    height: v.number(),
    format: v.string(),
    fileName: v.string(),
    frames: v.number(),
    drawn: v.number(),
    error: v.nullable(v.string()),
    secondsLeft: v.nullable(v.number()),
    bytes: v.nullable(v.number()),
});
export type Render = v.InferOutput<typeof Render>;
export const Renders = v.object({ renders: v.array(Render), pace: v.nullable(v.number()) });

/** A storey of a thing from above, metres of its own space: lines of x and z by turns, floors of 6 numbers a triangle. */
export const Storey = v.object({
    y: v.number(),
    walls: v.array(v.array(v.number())),
    things: v.array(v.array(v.number())),
    floor: v.array(v.number()),
});
export type Storey = v.InferOutput<typeof Storey>;
export const Plans = v.object({ plans: v.record(v.string(), v.array(Storey)) });

export const Surface = v.object({
    key: v.string(),
    name: v.string(),
    colour: v.string(),
    picture: v.boolean(),
    share: v.number(),
});
export type Surface = v.InferOutput<typeof Surface>;
export const Variant = v.object({ name: v.string(), colour: v.string(), picture: v.boolean() });
export type Variant = v.InferOutput<typeof Variant>;
export const Surfaces = v.object({ surfaces: v.array(Surface), variants: v.array(Variant) });
