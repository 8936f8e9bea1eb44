import * as v from 'valibot';
import type { FramingRow, ItemRow } from '../rows';

/** Set-ups that the core proposes for whom is selected, and words for framings. */

const View = v.object({
    position: v.tuple([v.number(), v.number(), v.number()]),
    rotation: v.tuple([v.number(), v.number(), v.number(), v.number()]),
    focalMm: v.number(),
    focusMetres: v.number(),
    fStop: v.number(),
    sensorWidthMm: v.number(),
});

export const SetUp = v.object({
    family: v.picklist(['group', 'one', 'two', 'thing', 'hands', 'moving']),
    title: v.string(),
    framing: v.looseObject({ subject: v.string(), size: v.string() }),
    view: v.nullable(View),
    says: v.string(),
    crosses: v.boolean(),
});
export type SetUp = v.InferOutput<typeof SetUp>;
export const SetUps = v.object({ setUps: v.array(SetUp) });

const Command = v.intersect([v.object({ do: v.string() }), v.record(v.string(), v.unknown())]);
const FirstCut = v.object({
    title: v.string(),
    shots: v.array(v.object({ from: v.number(), to: v.number(), title: v.string(), role: v.string(), view: View })),
    facts: v.object({ seen: v.number(), crossings: v.number(), jumps: v.number(), shortest: v.number() }),
    commands: v.array(Command),
});
export type FirstCut = v.InferOutput<typeof FirstCut>;
export const FirstCuts = v.object({ cuts: v.record(v.string(), FirstCut) });

const counted = (n: number, one: string, many: string) => `${n} ${n === 1 ? one : many}`;

/** What is to be known of a first cut. */
export function cutWords(f: FirstCut['facts']): string {
    const broken = [
        f.crossings > 0 ? `${counted(f.crossings, 'cut crosses', 'cuts cross')} the line` : '',
        f.jumps > 0 ? counted(f.jumps, 'cut jumps', 'cuts jump') : '',
    ].filter(Boolean);
    const rules = broken.length > 0 ? broken.join(', ') : 'no rule of cutting is broken';
    return `Who speaks is seen ${Math.round(100 * f.seen)} % of the time; ${rules}.`;
}

const ShotLine = v.object({
    label: v.string(),
    camera: v.string(),
    name: v.string(),
    size: v.string(),
    focalMm: v.number(),
    in: v.number(),
    out: v.number(),
    seconds: v.number(),
    reelIn: v.string(),
    reelOut: v.string(),
    action: v.string(),
});
export type ShotLine = v.InferOutput<typeof ShotLine>;
export const ShotLines = v.object({ shots: v.array(ShotLine) });

export const FAMILIES: Record<SetUp['family'], string> = {
    group: 'A group',
    one: 'One person',
    two: 'Two people',
    thing: 'A thing',
    hands: 'Hands',
    moving: 'On the way',
};

/** Sides from which somebody is seen, by the degrees from before the face. */
export const SIDES: [number, string, string][] = [
    [0, 'Front', 'From before the face'],
    [35, 'Left', 'Three quarters from the left'],
    [-35, 'Right', 'Three quarters from the right'],
    [90, 'Profile L', 'From the left side'],
    [-90, 'Profile R', 'From the right side'],
    [180, 'Behind', 'From behind'],
];

export const HEIGHTS: [FramingRow['height'], string][] = [
    ['level', 'Level'],
    ['low', 'Low'],
    ['high', 'High'],
    ['overhead', 'Overhead'],
    ['floor', 'Floor'],
];

export const SIZES: [FramingRow['size'], string][] = [
    ['extremeCloseUp', 'Extreme close-up'],
    ['closeUp', 'Close-up'],
    ['mediumCloseUp', 'Medium close-up'],
    ['medium', 'Medium shot'],
    ['threeQuarter', 'Three-quarter'],
    ['full', 'Full shot'],
    ['wide', 'Wide'],
    ['veryWide', 'Very wide'],
];

/** Hands that hold a camera. */
export const HANDS: { name: string; shake: { degrees: number; hertz: number; metres: number; seed: number } | null }[] = [
    { name: 'Stands on its own', shake: null },
    { name: 'Breathing', shake: { degrees: 0.3, hertz: 0.35, metres: 0.004, seed: 1 } },
    { name: 'Walking', shake: { degrees: 0.8, hertz: 1.6, metres: 0.016, seed: 1 } },
    { name: 'Running', shake: { degrees: 2, hertz: 2.8, metres: 0.035, seed: 1 } },
];

/** Which of these a camera has. */
export function handsOf(shake: { degrees?: number; hertz?: number; metres?: number } | null): string {
    const same = HANDS.find(
        (h) => h.shake?.degrees === shake?.degrees && h.shake?.hertz === shake?.hertz && h.shake?.metres === shake?.metres,
    );
    return same?.name ?? 'As set';
}

export const KEEPS: [FramingRow['keep'], string][] = [
    ['still', 'Stands still'],
    ['turn', 'Turns with'],
    ['follow', 'Goes along'],
];

/** What of somebody filmed alone fills the picture, and is watched that it stays in it. */
export const PARTS: [FramingRow['part'], string][] = [
    ['face', 'Face and body'],
    ['leftHand', 'Left hand'],
    ['rightHand', 'Right hand'],
];

export const sizeWords = (size: string): string => (SIZES.find(([s]) => s === size)?.[1] ?? size).toLowerCase();

/** Those of a camera, in the order of their frames. */
export const framingsOf = (all: FramingRow[], camera: number): FramingRow[] =>
    all.filter((f) => f.cameraId === camera).sort((a, b) => a.frame - b.frame);

/** What a framing films, in words. */
export function framingWords(f: FramingRow, name: (item: number) => string): string {
    const who = name(f.subjectId);
    const other = f.partnerId === null ? null : name(f.partnerId);
    if (f.kind === 'overShoulder' && other) return `${who}, over ${other}`;
    if (f.kind === 'together' && other) {
        const more = f.others.map((id) => name(Number(id.slice(1))));
        const all = [who, other, ...more];
        return `${all.slice(0, -1).join(', ')} and ${all[all.length - 1]}, ${sizeWords(f.size)}`;
    }
    const part = PARTS.find(([p]) => p === f.part && p !== 'face');
    return `${who}, ${part ? `${part[1].toLowerCase()}, ` : ''}${sizeWords(f.size)}`;
}

export interface Wish {
    subject: number;
    partner: number | null;
    frame: number;
    side: number;
    height: FramingRow['height'];
    hand: number;
    others: number[];
}

/** Where a wish is answered. */
export function wishPath(scene: number, w: Wish): string {
    const query = new URLSearchParams({ subject: `i${w.subject}`, frame: String(w.frame), sideDeg: String(w.side), height: w.height });
    if (w.partner !== null) query.set('partner', `i${w.partner}`);
    if (w.others.length > 0) query.set('others', w.others.map((id) => `i${id}`).join(','));
    if (w.hand !== 0) query.set('hand', String(w.hand));
    return `scenes/${scene}/set-ups?${query.toString()}`;
}

/** Metres beyond which nobody is taken to have to do with somebody. */
const NEAR = 4;

/**
 * Who is most likely meant beside somebody: the performer who stands nearest at the moment.
 * @param at where somebody stands, from above
 */
export function nearestOther(items: ItemRow[], subject: number, at: (item: ItemRow) => [number, number]): number | null {
    const own = items.find((i) => i.id === subject);
    if (own?.kind !== 'performer') return null;
    const [x, z] = at(own);
    const away = (i: ItemRow) => Math.hypot(at(i)[0] - x, at(i)[1] - z);
    const others = items.filter((i) => i.kind === 'performer' && i.id !== subject && away(i) < NEAR);
    return others.sort((a, b) => away(a) - away(b))[0]?.id ?? null;
}

/** The same framing so many metres further to the right of the lens. */
export function aside(f: FramingRow, metres: number): Partial<FramingRow> {
    return { shift: [f.shift[0] + metres, f.shift[1], f.shift[2]] };
}

/** Metres to the left from which a lens does not see yet whom it films at a distance: two stand farther to the sides than one. */
export function hiddenAside(f: Pick<FramingRow, 'kind' | 'focalMm'>, sensorWidthMm: number, metres: number): number {
    const widths = f.kind === 'single' ? 0.85 : 1.1;
    return -Math.round(widths * (sensorWidthMm / f.focalMm) * metres * 100) / 100;
}

/** What a framing is made of, as a command takes it. */
export function framingFields(f: FramingRow): Record<string, unknown> {
    const { size, sideDeg, height, focalMm, keep, kind, room, fStop, shift, others, part } = f;
    return {
        subject: f.subjectId,
        ...(f.partnerId === null ? {} : { partner: f.partnerId }),
        ...(f.focusId === null ? {} : { focus: f.focusId }),
        ...{ size, sideDeg, height, focalMm, keep, kind, room, fStop, shift, others, part },
    };
}

/** Moves from what a camera shows to something else of the same subject. */
export function movesFrom(f: FramingRow): { title: string; changes: Partial<FramingRow> }[] {
    const at = SIZES.findIndex(([s]) => s === f.size);
    const sized = (by: number): Partial<FramingRow> | null => {
        const to = SIZES[at + by];
        return to ? { size: to[0] } : null;
    };
    const wrapped = (deg: number) => (deg > 180 ? deg - 360 : deg < -180 ? deg + 360 : deg);
    const out: { title: string; changes: Partial<FramingRow> | null }[] = [
        { title: 'Push in', changes: sized(-2) ?? sized(-1) },
        { title: 'Pull back', changes: sized(2) ?? sized(1) },
        { title: 'Round to the left', changes: { sideDeg: wrapped(f.sideDeg + 60) } },
        { title: 'Round to the right', changes: { sideDeg: wrapped(f.sideDeg - 60) } },
        { title: 'Crane up', changes: f.height === 'high' ? { height: 'overhead' } : { height: 'high' } },
        { title: 'Crane down', changes: f.height === 'low' ? { height: 'floor' } : { height: 'low' } },
        { title: 'Truck left', changes: aside(f, -1) },
        { title: 'Truck right', changes: aside(f, 1) },
    ];
    const over = new Set(['Truck left', 'Truck right']);
    return out.flatMap((m) =>
        m.changes && (f.kind !== 'overShoulder' || over.has(m.title)) ? [{ title: m.title, changes: m.changes }] : [],
    );
}
