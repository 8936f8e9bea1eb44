import * as v from 'valibot';
import { AssetKind, AssetRow } from '../answers';

/** What the server answers about the kit and what is brought into it: checked where it comes in, typed from there on. */

export const Finding = v.object({
    code: v.string(),
    severity: v.picklist(['harms', 'look', 'fyi']),
    sentence: v.string(),
    effect: v.string(),
    /** Names of the file's parts. */
    about: v.array(v.string()),
    mends: v.array(
        v.object({
            words: v.string(),
            safe: v.boolean(),
            commands: v.array(v.object({ with: v.record(v.string(), v.unknown()) })),
        }),
    ),
    mended: v.boolean(),
});
export type Finding = v.InferOutput<typeof Finding>;
/** Whether it is mended with all others by one button. */
export const isToMend = (f: Finding): boolean => !f.mended && (f.mends[0]?.safe ?? false);

export const ArrivalRow = v.object({
    id: v.number(),
    name: v.string(),
    path: v.string(),
    format: v.string(),
    bytes: v.number(),
    status: v.picklist(['waiting', 'reading', 'ready', 'known', 'refused']),
    kind: v.nullable(AssetKind),
    assetId: v.nullable(v.number()),
    choices: v.record(v.string(), v.union([v.record(v.string(), v.unknown()), v.literal(false)])),
    motions: v.record(v.string(), v.number()),
    findings: v.array(Finding),
    facts: v.record(v.string(), v.unknown()),
    parts: v.nullable(v.object({ inFile: v.number(), made: v.array(v.string()), skipped: v.record(v.string(), v.string()) })),
    error: v.nullable(v.object({ reason: v.string(), message: v.string(), remedy: v.string() })),
    seconds: v.nullable(v.number()),
    seen: v.boolean(),
    picture: v.nullable(v.string()),
    /** The file of a sound, to be heard. */
    blob: v.nullable(v.string()),
});
export type ArrivalRow = v.InferOutput<typeof ArrivalRow>;

export const Work = v.object({
    drop: v.string(),
    files: v.number(),
    done: v.number(),
    megabytes: v.number(),
    secondsLeft: v.nullable(v.number()),
});
export type Work = v.InferOutput<typeof Work>;

export const Arrivals = v.object({
    arrivals: v.array(ArrivalRow),
    work: v.array(Work),
    unused: v.record(v.string(), v.string()),
    brings: v.record(v.string(), v.string()),
});

export const Spec = v.looseObject({ name: v.string(), neck: v.string(), colours: v.record(v.string(), v.number()) });
export const Choices = v.object({
    spec: Spec,
    hair: v.array(v.string()),
    hats: v.array(v.string()),
    tops: v.array(v.string()),
    necks: v.array(v.string()),
    parts: v.record(v.string(), v.string()),
});

export const Sheet = v.object({
    joints: v.array(v.string()),
    roles: v.record(v.string(), v.object({ joint: v.string(), confidence: v.number(), byHand: v.boolean() })),
    parts: v.array(v.string()),
});

export const Page = v.object({
    total: v.number(),
    assets: v.array(AssetRow),
    licences: v.array(v.string()),
    folders: v.array(v.string()),
});

export const Part = v.object({
    kind: AssetKind,
    id: v.number(),
    name: v.string(),
    words: v.array(v.string()),
    here: v.boolean(),
    picture: v.nullable(v.string()),
});
export type Part = v.InferOutput<typeof Part>;
export const Line = v.object({
    text: v.string(),
    found: v.array(Part),
    missing: v.array(v.string()),
    cannot: v.array(v.string()),
});
export type Line = v.InferOutput<typeof Line>;
export const Lines = v.object({ lines: v.array(Line) });

/** An asset with where it came from and where it is used. */
export const Whole = v.object({
    ...AssetRow.entries,
    versions: v.array(v.object({ number: v.number(), blob: v.string() })),
    uses: v.array(v.object({ scene: v.string(), times: v.number() })),
    arrival: v.nullable(v.number()),
    same: v.array(v.string()),
    since: v.nullable(v.string()),
    collected: v.boolean(),
    /** The production that it belongs to, where that is another one. */
    elsewhere: v.nullable(v.string()),
});

export const Credit = v.object({ credit: v.string(), licence: v.string(), names: v.array(v.string()) });
export type Credit = v.InferOutput<typeof Credit>;
export const Credits = v.object({ credits: v.array(Credit) });

const Point = v.tuple([v.number(), v.number(), v.number()]);
export const Markers = v.object({
    markers: v.record(v.string(), Point),
    proposed: v.record(v.string(), Point),
    sure: v.boolean(),
    fingers: v.boolean(),
});
