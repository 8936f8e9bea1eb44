import { describe, expect, it } from 'vitest';
import type { Manifest } from '../../resources/js/picture';
import { EVEN, heardIn } from '../../resources/js/workspace/speech/heard';
import {
    bends,
    framesTo,
    heardAt,
    lowered,
    loudness,
    placedAt,
    raised,
    type Heard,
    type Lowering,
} from '../../resources/js/workspace/speech/loudness';

const SEA: Heard = {
    id: 'n1',
    start: 48,
    end: 288,
    sound: 'a',
    from: 'kit',
    offset: 0,
    turn: 4,
    repeats: true,
    decibels: -6,
    fadeIn: 2,
    fadeOut: 1,
    yields: true,
    lane: 'ambience',
    curve: [],
    placed: [],
};
/** Somebody speaks from the fifth to the sixth second. */
const CORNERS: Lowering = [
    [4.8, 0],
    [4.88, -14],
    [6, -14],
    [6.4, 0],
];
const db = (x: number) => 20 * Math.log10(x);

describe('how loud a sound is', () => {
    it('has its level, where nothing else is', () => expect(db(loudness(SEA, CORNERS, 24, 8))).toBeCloseTo(-6, 6));

    it('gives way where somebody speaks, and comes back', () => {
        expect(db(loudness(SEA, CORNERS, 24, 5.5))).toBeCloseTo(-20, 6);
        expect(db(loudness(SEA, CORNERS, 24, 6.2))).toBeCloseTo(-13, 6);
        expect(lowered(CORNERS, 4)).toBe(0);
        expect(db(loudness({ ...SEA, yields: false }, CORNERS, 24, 5.5))).toBeCloseTo(-6, 6);
    });

    it('is softer from afar, and its place is straight between two looks', () => {
        const placed: Heard['placed'] = [
            [48, 0, -0.5],
            [96, -12, 0.5],
        ];
        expect(placedAt(placed, 72)).toEqual([-6, 0]);
        expect(placedAt(placed, 500)).toEqual([-12, 0.5]);
        expect(placedAt([], 72)).toEqual([0, 0]);
        expect(db(loudness({ ...SEA, placed, fadeIn: 0 }, [], 24, 3))).toBeCloseTo(-12, 6);
        expect(bends({ ...SEA, placed, fadeIn: 0, fadeOut: 0 }, [], 24, 2)).toContain(4);
    });

    it('is bent by a curve, straight in decibels from point to point and level beyond', () => {
        const curve: Heard['curve'] = [
            [1, -12],
            [3, 0],
        ];
        expect([0, 1, 2, 3, 9].map((t) => raised(curve, t))).toEqual([-12, -12, -6, 0, 0]);
        expect(raised([], 4)).toBe(0);
        expect(db(loudness({ ...SEA, curve, fadeIn: 0 }, [], 24, 4))).toBeCloseTo(-12, 6);
        expect(bends({ ...SEA, curve, fadeIn: 0, fadeOut: 0 }, [], 24, 2)).toContain(5);
    });

    it('keeps its power in a fade: half way in it is 3 dB down', () => {
        expect(db(loudness(SEA, [], 24, 3))).toBeCloseTo(-6 - 3.01, 2);
        expect(db(loudness(SEA, [], 24, 11.5))).toBeCloseTo(-6 - 3.01, 2);
        expect(loudness(SEA, [], 24, 2)).toBeCloseTo(0, 9);
    });

    it('between its bends a straight line is within a quarter of a decibel of it', () => {
        const at = [2.3, ...bends(SEA, CORNERS, 24, 2.3)];
        expect(at.at(-1)).toBe(12);
        for (let k = 1; k < at.length; k++) {
            const [a, b] = [at[k - 1]!, at[k]!];
            if (b > 11.8) continue;
            const straight = (loudness(SEA, CORNERS, 24, a) + loudness(SEA, CORNERS, 24, b)) / 2;
            expect(Math.abs(db(straight) - db(loudness(SEA, CORNERS, 24, (a + b) / 2)))).toBeLessThan(0.25);
        }
    });
});

describe('a range that goes round', () => {
    const b = { at: 0, frame: 30, perSecond: 24, end: 40, first: 20 };

    it('is heard without a gap: every frame of it has its moment in every round', () => {
        expect([0, 9, 10, 12.5, 29, 30, 50].map((n) => heardAt(b, n))).toEqual([
            [30, 0],
            [39, 0],
            [20, 1],
            [22.5, 1],
            [39, 1],
            [20, 2],
            [20, 3],
        ]);
        for (const n of [0, 3.25, 10, 17, 30, 44.5]) {
            const [frame, round] = heardAt(b, n);
            expect(framesTo(b, frame, round)).toBeCloseTo(n, 9);
        }
    });

    it('one that does not go round ends', () => expect(heardAt({ ...b, first: null }, 15)).toEqual([45, 0]));
});

describe('what is heard of a scene', () => {
    it('is what voices have read, and sounds that are not muted', () => {
        const line = { id: 'd1', item: 'i1', start: 2, end: 30, from: 6, to: 28, heard: 'Go.', words: [] };
        const sound = { ...SEA, muted: false };
        const manifest = {
            lines: [
                { ...line, sound: 'x' },
                { ...line, id: 'd2', sound: null },
            ],
            sounds: [sound, { ...sound, id: 'n2', muted: true }],
            noises: [['step', 'i1', 'w', 30, 42, 1.5, 0.5, false, -13, 0]],
        } as unknown as Manifest;
        expect(heardIn(manifest, EVEN, null).map((h) => [h.id, h.from])).toEqual([
            ['d1', 'line'],
            ['n1', 'kit'],
            ['step i1 30', 'kit'],
        ]);
        expect(heardIn(null, EVEN, null)).toEqual([]);
        const of = (mix: Partial<typeof EVEN>, solo: 'music' | 'steps' | null = null) =>
            heardIn(manifest, { ...EVEN, ...mix }, solo).map((h) => [h.id, h.decibels]);
        expect(of({ muted: ['ambience'], speech: 3, steps: -6 })).toEqual([
            ['d1', 3],
            ['step i1 30', -19],
        ]);
        // One lane alone is heard even where it is muted, and the scene stays as it is.
        expect(of({ muted: ['steps'] }, 'steps')).toEqual([['step i1 30', -13]]);
        expect(of({}, 'music')).toEqual([]);
    });
});
