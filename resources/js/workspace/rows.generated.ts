/** The rows of a scene as the page gets them. Written by `bin/reel reel:fields` from the core's fields; not changed by hand. */

import * as v from 'valibot';

export const Vec3 = v.tuple([v.number(), v.number(), v.number()]);
export type Vec3 = v.InferOutput<typeof Vec3>;

export const Quat = v.tuple([v.number(), v.number(), v.number(), v.number()]);
export type Quat = v.InferOutput<typeof Quat>;

export const MoveRow = v.object({
    frame: v.number(),
    position: Vec3,
    rotation: Quat,
    ease: v.picklist(['linear', 'in', 'out', 'inOut', 'hold']),
});
export type MoveRow = v.InferOutput<typeof MoveRow>;

export const RouteRow = v.object({
    points: v.optional(v.array(v.tuple([v.number(), v.number()]))),
    from: v.optional(v.number()),
    to: v.optional(v.nullable(v.number())),
    speed: v.optional(v.number()),
    by: v.optional(v.nullable(v.string())),
});
export type RouteRow = v.InferOutput<typeof RouteRow>;

export const WishRow = v.object({
    key: v.string(),
    colour: v.optional(v.nullable(v.string())),
    finish: v.optional(v.nullable(v.picklist(['matt', 'satin', 'gloss', 'metal']))),
    picture: v.optional(v.nullable(v.number())),
    metres: v.optional(v.number()),
    variant: v.optional(v.nullable(v.string())),
});
export type WishRow = v.InferOutput<typeof WishRow>;

export const ClothKindRow = v.object({
    kind: v.optional(v.picklist(['silk', 'cotton', 'wool', 'oilskin', 'canvas', 'leather'])),
    grams: v.optional(v.nullable(v.number())),
    bend: v.optional(v.nullable(v.number())),
    catch: v.optional(v.nullable(v.number())),
    damping: v.optional(v.nullable(v.number())),
});
export type ClothKindRow = v.InferOutput<typeof ClothKindRow>;

export const ItemRow = v.object({
    id: v.number(),
    kind: v.picklist(['performer', 'set', 'prop']),
    name: v.string(),
    assetId: v.number(),
    position: Vec3,
    headingDeg: v.number(),
    scale: v.number(),
    tape: v.number(),
    moves: v.array(MoveRow),
    route: v.nullable(RouteRow),
    surfaces: v.record(v.string(), v.partial(WishRow)),
    cloth: v.nullable(ClothKindRow),
    locked: v.boolean(),
    fullness: v.number(),
    life: v.picklist(['calm', 'tense', 'cold', 'tired', 'off']),
    meets: v.boolean(),
    voice: v.string(),
    resting: v.picklist(['none', 'glad', 'sad', 'angry', 'afraid', 'surprised', 'disgusted', 'tender', 'doubtful', 'tired', 'pain']),
    restingAmount: v.number(),
    underfoot: v.picklist(['auto', 'wood', 'stone', 'gravel', 'earth', 'grass', 'carpet', 'metal', 'water']),
    /** The version of its asset that it stays at; null: it follows the newest. */
    pinned: v.nullable(v.number()),
});
export type ItemRow = v.InferOutput<typeof ItemRow>;

export const MannerRow = v.object({
    after: v.number(),
    style: v.record(v.string(), v.number()),
});
export type MannerRow = v.InferOutput<typeof MannerRow>;

export const PathRow = v.object({
    points: v.array(v.tuple([v.number(), v.number()])),
    arrive: v.optional(v.nullable(v.number())),
    faceDeg: v.optional(v.nullable(v.number())),
    from: v.optional(v.nullable(v.tuple([v.number(), v.number(), v.number(), v.number()]))),
    changes: v.optional(v.array(MannerRow)),
    goesOn: v.optional(v.boolean()),
});
export type PathRow = v.InferOutput<typeof PathRow>;

export const PlayRow = v.object({
    mirror: v.optional(v.boolean()),
    reverse: v.optional(v.boolean()),
    ease: v.optional(v.nullable(v.tuple([v.number(), v.number(), v.number(), v.number()]))),
    speeds: v.optional(v.array(v.tuple([v.number(), v.number()]))),
    holdBefore: v.optional(v.number()),
    holdAfter: v.optional(v.number()),
    fill: v.optional(v.nullable(v.number())),
    keepLooping: v.optional(v.boolean()),
    skip: v.optional(v.number()),
    length: v.optional(v.nullable(v.number())),
    armWidthDeg: v.optional(v.number()),
    energy: v.optional(v.number()),
    hipOffset: v.optional(v.number()),
    layer: v.optional(v.number()),
    mask: v.optional(v.array(v.picklist(['face', 'head', 'trunk', 'armL', 'armR', 'legs']))),
    weight: v.optional(v.number()),
    fadeIn: v.optional(v.number()),
    fadeOut: v.optional(v.number()),
    anchor: v.optional(v.picklist(['foot', 'hips'])),
    with: v.optional(v.string()),
    on: v.optional(v.string()),
    stance: v.optional(v.picklist(['fit', 'own'])),
});
export type PlayRow = v.InferOutput<typeof PlayRow>;

export const BeatRow = v.object({
    id: v.number(),
    itemId: v.number(),
    assetId: v.number(),
    start: v.number(),
    sourceIn: v.number(),
    sourceOut: v.nullable(v.number()),
    speed: v.number(),
    loops: v.number(),
    root: v.picklist(['travel', 'spot']),
    join: v.picklist(['carryOn', 'blend', 'cut']),
    joinFrames: v.number(),
    settings: v.record(v.string(), v.union([v.number(), v.string()])),
    path: v.nullable(PathRow),
    play: PlayRow,
});
export type BeatRow = v.InferOutput<typeof BeatRow>;

export const LinkRow = v.object({
    id: v.number(),
    childId: v.number(),
    parentId: v.number(),
    mount: v.string(),
    from: v.number(),
    to: v.nullable(v.number()),
    keep: v.picklist(['place', 'grip']),
    easeFrames: v.number(),
    release: v.picklist(['stay', 'fall']),
    velocity: v.nullable(Vec3),
});
export type LinkRow = v.InferOutput<typeof LinkRow>;

export const CameraKeyRow = v.object({
    frame: v.number(),
    position: Vec3,
    rotation: Quat,
    focalMm: v.number(),
    focusMetres: v.nullable(v.number()),
    fStop: v.number(),
    ease: v.picklist(['linear', 'in', 'out', 'inOut', 'hold']),
});
export type CameraKeyRow = v.InferOutput<typeof CameraKeyRow>;

export const ShakeRow = v.object({
    degrees: v.optional(v.number()),
    hertz: v.optional(v.number()),
    metres: v.optional(v.number()),
    seed: v.optional(v.number()),
});
export type ShakeRow = v.InferOutput<typeof ShakeRow>;

export const CameraRow = v.object({
    id: v.number(),
    letter: v.string(),
    name: v.string(),
    sensorWidthMm: v.number(),
    sensorHeightMm: v.number(),
    keys: v.array(CameraKeyRow),
    locked: v.boolean(),
    shake: v.nullable(ShakeRow),
    wallsAway: v.nullable(v.array(v.picklist(['back', 'left', 'right', 'front', 'ceiling']))),
});
export type CameraRow = v.InferOutput<typeof CameraRow>;

export const ShotRow = v.object({
    id: v.number(),
    cameraId: v.number(),
    in: v.number(),
    out: v.nullable(v.number()),
    label: v.nullable(v.string()),
    begins: v.picklist(['cut', 'dissolve', 'black', 'white']),
    beginsOver: v.number(),
    ends: v.picklist(['cut', 'black', 'white']),
    endsOver: v.number(),
    kept: v.boolean(),
    sort: v.number(),
});
export type ShotRow = v.InferOutput<typeof ShotRow>;

export const TouchUpKeyRow = v.object({
    frame: v.number(),
    rotation: Quat,
    shift: Vec3,
});
export type TouchUpKeyRow = v.InferOutput<typeof TouchUpKeyRow>;

export const TouchUpRow = v.object({
    id: v.number(),
    itemId: v.number(),
    joint: v.string(),
    keys: v.array(TouchUpKeyRow),
    from: v.number(),
    to: v.nullable(v.number()),
    easeIn: v.number(),
    easeOut: v.number(),
});
export type TouchUpRow = v.InferOutput<typeof TouchUpRow>;

export const ContactRow = v.object({
    id: v.number(),
    itemId: v.number(),
    effector: v.picklist(['hips', 'footL', 'footR', 'head', 'handL', 'handR', 'look']),
    targetId: v.nullable(v.number()),
    mount: v.string(),
    offset: Vec3,
    from: v.number(),
    to: v.nullable(v.number()),
    easeIn: v.number(),
    easeOut: v.number(),
    turn: v.picklist(['keep', 'follow', 'match']),
});
export type ContactRow = v.InferOutput<typeof ContactRow>;

export const FramingRow = v.object({
    id: v.number(),
    cameraId: v.number(),
    subjectId: v.number(),
    partnerId: v.nullable(v.number()),
    frame: v.number(),
    over: v.number(),
    ease: v.picklist(['linear', 'in', 'out', 'inOut', 'hold']),
    kind: v.picklist(['single', 'overShoulder', 'together']),
    size: v.picklist(['extremeCloseUp', 'closeUp', 'mediumCloseUp', 'medium', 'threeQuarter', 'full', 'wide', 'veryWide']),
    sideDeg: v.number(),
    height: v.picklist(['level', 'low', 'high', 'overhead', 'floor']),
    focalMm: v.number(),
    keep: v.picklist(['still', 'turn', 'follow']),
    room: v.number(),
    fStop: v.number(),
    focusId: v.nullable(v.number()),
    shift: Vec3,
    others: v.array(v.string()),
    part: v.picklist(['face', 'leftHand', 'rightHand']),
});
export type FramingRow = v.InferOutput<typeof FramingRow>;

export const LineRow = v.object({
    id: v.number(),
    itemId: v.number(),
    text: v.string(),
    start: v.number(),
    afterId: v.nullable(v.number()),
    pause: v.number(),
    delivery: v.picklist(['plain', 'calm', 'eager', 'angry', 'sad', 'whispered', 'called', 'tired']),
    pace: v.number(),
    toId: v.nullable(v.number()),
    beatId: v.nullable(v.number()),
    voice: v.string(),
    reading: v.string(),
});
export type LineRow = v.InferOutput<typeof LineRow>;

export const TakeRow = v.object({
    id: v.number(),
    lineId: v.number(),
    assetId: v.number(),
    sourceIn: v.nullable(v.number()),
    sourceOut: v.nullable(v.number()),
    chosen: v.boolean(),
});
export type TakeRow = v.InferOutput<typeof TakeRow>;

export const ExpressionRow = v.object({
    id: v.number(),
    itemId: v.number(),
    emotion: v.picklist(['none', 'glad', 'sad', 'angry', 'afraid', 'surprised', 'disgusted', 'tender', 'doubtful', 'tired', 'pain']),
    amount: v.number(),
    from: v.number(),
    to: v.nullable(v.number()),
    easeIn: v.number(),
    easeOut: v.number(),
    shapes: v.record(v.string(), v.union([v.number(), v.string()])),
});
export type ExpressionRow = v.InferOutput<typeof ExpressionRow>;

export const SoundRow = v.object({
    id: v.number(),
    assetId: v.number(),
    start: v.number(),
    lineId: v.nullable(v.number()),
    sourceIn: v.number(),
    sourceOut: v.nullable(v.number()),
    level: v.number(),
    fadeIn: v.number(),
    fadeOut: v.number(),
    repeats: v.boolean(),
    until: v.nullable(v.number()),
    lane: v.picklist(['effects', 'ambience', 'music']),
    muted: v.boolean(),
    contactId: v.nullable(v.number()),
    thingId: v.nullable(v.number()),
    curve: v.array(v.tuple([v.number(), v.number()])),
});
export type SoundRow = v.InferOutput<typeof SoundRow>;

export const WindRow = v.object({
    towardsDeg: v.number(),
    speed: v.number(),
    gusts: v.number(),
    seed: v.number(),
});
export type WindRow = v.InferOutput<typeof WindRow>;

export const MixRow = v.object({
    speech: v.number(),
    steps: v.number(),
    effects: v.number(),
    ambience: v.number(),
    music: v.number(),
    muted: v.array(v.picklist(['speech', 'steps', 'effects', 'ambience', 'music'])),
    lowered: v.nullable(v.number()),
    happens: v.boolean(),
    placed: v.array(v.picklist(['speech', 'steps', 'effects'])),
});
export type MixRow = v.InferOutput<typeof MixRow>;

export const Rows = v.object({
    items: v.array(ItemRow),
    beats: v.array(BeatRow),
    links: v.array(LinkRow),
    cameras: v.array(CameraRow),
    shots: v.array(ShotRow),
    touch_ups: v.array(TouchUpRow),
    contacts: v.array(ContactRow),
    framings: v.array(FramingRow),
    lines: v.array(LineRow),
    takes: v.array(TakeRow),
    expressions: v.array(ExpressionRow),
    sounds: v.array(SoundRow),
});
export type Rows = v.InferOutput<typeof Rows>;

/** Least and most of each number. */
export const ranges = {
    BeatRow: {
        start: [0, 1000000],
        sourceIn: [0, 3600],
        sourceOut: [0, 3600],
        speed: [0.05, 20],
        loops: [1, 10000],
        joinFrames: [0, 240],
    },
    CameraKeyRow: {
        frame: [0, 1000000],
        focalMm: [4, 1200],
        focusMetres: [0.05, 10000],
        fStop: [0.7, 64],
    },
    CameraRow: {
        sensorWidthMm: [1, 200],
        sensorHeightMm: [1, 200],
    },
    ClothKindRow: {
        grams: [20, 3000],
        bend: [0, 1],
        catch: [0, 3],
        damping: [0, 0.99],
    },
    ContactRow: {
        from: [0, 1000000],
        to: [1, 1000000],
        easeIn: [0, 240],
        easeOut: [0, 240],
    },
    ExpressionRow: {
        amount: [0, 1.2],
        from: [0, 1000000],
        to: [1, 1000000],
        easeIn: [0, 240],
        easeOut: [0, 240],
    },
    FramingRow: {
        frame: [0, 1000000],
        over: [0, 100000],
        sideDeg: [-180, 180],
        focalMm: [8, 800],
        room: [-2, 2],
        fStop: [0.7, 64],
    },
    ItemRow: {
        headingDeg: [-36000, 36000],
        scale: [0.001, 1000],
        tape: [0, 7],
        fullness: [0, 1],
        restingAmount: [0, 1.2],
    },
    LineRow: {
        start: [0, 1000000],
        pause: [-10, 60],
        pace: [0.5, 2],
    },
    LinkRow: {
        from: [0, 1000000],
        to: [1, 1000000],
        easeFrames: [0, 240],
    },
    MannerRow: {
        after: [1, 200],
    },
    MixRow: {
        speech: [-60, 12],
        steps: [-60, 12],
        effects: [-60, 12],
        ambience: [-60, 12],
        music: [-60, 12],
        lowered: [0, 40],
    },
    MoveRow: {
        frame: [0, 1000000],
    },
    PathRow: {
        arrive: [1, 1000000],
        faceDeg: [-36000, 36000],
    },
    PlayRow: {
        holdBefore: [0, 100000],
        holdAfter: [0, 100000],
        fill: [1, 1000000],
        skip: [0, 1000000],
        length: [1, 1000000],
        armWidthDeg: [-40, 60],
        energy: [0, 2],
        hipOffset: [-0.6, 0.2],
        layer: [0, 8],
        weight: [0, 1],
        fadeIn: [0, 240],
        fadeOut: [0, 240],
    },
    RouteRow: {
        from: [0, 1000000],
        to: [1, 1000000],
        speed: [0.05, 60],
    },
    ShakeRow: {
        degrees: [0, 12],
        hertz: [0.05, 12],
        metres: [0, 0.3],
        seed: [0, 9999],
    },
    ShotRow: {
        in: [0, 1000000],
        out: [1, 1000000],
        beginsOver: [1, 240],
        endsOver: [1, 240],
    },
    SoundRow: {
        start: [0, 1000000],
        sourceIn: [0, 36000],
        sourceOut: [0, 36000],
        level: [-60, 12],
        fadeIn: [0, 60],
        fadeOut: [0, 60],
        until: [1, 1000000],
    },
    TakeRow: {
        sourceIn: [0, 36000],
        sourceOut: [0, 36000],
    },
    TouchUpKeyRow: {
        frame: [0, 1000000],
    },
    TouchUpRow: {
        from: [0, 1000000],
        to: [1, 1000000],
        easeIn: [0, 240],
        easeOut: [0, 240],
    },
    WindRow: {
        towardsDeg: [-3600, 3600],
        speed: [0, 40],
        gusts: [0, 1],
        seed: [0, 1000000],
    },
    WishRow: {
        metres: [0.01, 100],
    },
} as const;
