import { describe, expect, it } from 'vitest';
import {
    aside,
    cutWords,
    framingFields,
    framingWords,
    HANDS,
    handsOf,
    hiddenAside,
    movesFrom,
    nearestOther,
    wishPath,
} from '../../resources/js/workspace/cover/setups';
import { dragged, draggedKey } from '../../resources/js/workspace/panes/cameraWay';
import type { CameraKeyRow, FramingRow, ItemRow } from '../../resources/js/workspace/rows';

const framing = (more: Partial<FramingRow> = {}): FramingRow => ({
    id: 1,
    cameraId: 1,
    subjectId: 1,
    partnerId: null,
    frame: 0,
    over: 0,
    ease: 'inOut',
    kind: 'single',
    size: 'medium',
    sideDeg: 150,
    height: 'level',
    focalMm: 50,
    keep: 'turn',
    room: 1,
    fStop: 4,
    focusId: null,
    shift: [0, 0, 0],
    others: [],
    part: 'face',
    ...more,
});
const item = (id: number, x: number, kind = 'performer') => ({ id, kind, position: [x, 0, 0] }) as unknown as ItemRow;
const at = (i: ItemRow): [number, number] => [i.position[0], i.position[2]];

describe('whom one is filmed with', () => {
    it('is who stands nearest, if anybody stands near', () => {
        const items = [item(1, 0), item(2, 3), item(3, 1.5), item(4, 0.5, 'prop')];
        expect(nearestOther(items, 1, at)).toBe(3);
        expect(nearestOther([item(1, 0), item(2, 9)], 1, at)).toBeNull();
        expect(nearestOther(items, 4, at)).toBeNull();
        // Where they are now counts, not where their marks are.
        expect(nearestOther(items, 1, (i) => (i.id === 2 ? [0.2, 0] : at(i)))).toBe(2);
    });
});

describe('words', () => {
    const name = (id: number) => ['', 'Oda', 'Bram'][id] ?? '?';
    it('say who is filmed how', () => {
        expect(framingWords(framing(), name)).toBe('Oda, medium shot');
        expect(framingWords(framing({ kind: 'overShoulder', partnerId: 2 }), name)).toBe('Oda, over Bram');
        expect(framingWords(framing({ kind: 'together', partnerId: 2, size: 'full' }), name)).toBe('Oda and Bram, full shot');
        expect(framingWords(framing({ kind: 'together', partnerId: 2, others: ['i3'] }), name)).toBe('Oda, Bram and ?, medium shot');
        expect(framingWords(framing({ part: 'leftHand', size: 'closeUp' }), name)).toBe('Oda, left hand, close-up');
    });
});

it('a first cut is told by what matters of it', () => {
    const facts = { seen: 0.987, crossings: 0, jumps: 0, shortest: 20 };
    expect(cutWords(facts)).toBe('Who speaks is seen 99 % of the time; no rule of cutting is broken.');
    expect(cutWords({ ...facts, crossings: 1, jumps: 2 })).toContain('1 cut crosses the line, 2 cuts jump');
});

describe('moves', () => {
    it('lead two sizes nearer or farther, and round without a jump in degrees', () => {
        const moves = Object.fromEntries(movesFrom(framing()).map((m) => [m.title, m.changes]));
        expect(moves['Push in']).toEqual({ size: 'closeUp' });
        expect(moves['Pull back']).toEqual({ size: 'full' });
        expect(moves['Round to the left']).toEqual({ sideDeg: -150 });
        expect(moves['Crane up']).toEqual({ height: 'high' });
    });
    it('end where the sizes end', () => {
        const titles = (f: FramingRow) => movesFrom(f).map((m) => m.title);
        expect(titles(framing({ size: 'extremeCloseUp' }))).not.toContain('Push in');
        expect(titles(framing({ size: 'veryWide' }))).not.toContain('Pull back');
    });
});

it('hands are told by how they hold', () => {
    expect(handsOf(null)).toBe('Stands on its own');
    expect(HANDS.map((h) => handsOf(h.shake))).toEqual(HANDS.map((h) => h.name));
    expect(handsOf({ degrees: 0.3, hertz: 0.35, metres: 0.1 })).toBe('As set');
});

it('a wish is asked for at an address of its own', () => {
    const wish = { subject: 4, partner: null, frame: 12, side: -35, height: 'low' as const, hand: 0, others: [] };
    expect(wishPath(7, wish)).toBe('scenes/7/set-ups?subject=i4&frame=12&sideDeg=-35&height=low');
    expect(wishPath(7, { ...wish, partner: 9, hand: -1 })).toContain('&partner=i9&hand=-1');
    expect(wishPath(7, { ...wish, partner: 9, others: [5, 6] })).toContain('&partner=i9&others=i5%2Ci6');
});

describe('a lens dragged on the plan', () => {
    it('goes round whom it films by as many degrees, and takes a lens that keeps the size', () => {
        // From 3 m before somebody at the origin to 4 m at their left: a quarter turn, and a third farther.
        expect(dragged(framing({ sideDeg: 20, focalMm: 48 }), [0, 0], [0, 3], [4, 0])).toEqual({ sideDeg: 110, focalMm: 64 });
        expect(dragged(framing({ sideDeg: 170 }), [1, 1], [1, 4], [4, 1]).sideDeg).toBe(-100);
        expect(dragged(framing({ focalMm: 400 }), [0, 0], [0, 1], [0, 9]).focalMm).toBe(800);
    });
    it('with a key stays turned to what it was turned to', () => {
        const key = { frame: 5, position: [0, 1.5, 4], rotation: [0, 0, 0, 1], focalMm: 50 } as unknown as CameraKeyRow;
        const moved = draggedKey(key, [4, 0], 4);
        // It looked along -z at the origin; from +x it looks along -x: a quarter turn to its left.
        expect(moved.position).toEqual([4, 1.5, 0]);
        expect(moved.rotation.map((n) => Math.round(n * 1e4) / 1e4)).toEqual([0, 0.7071, 0, 0.7071]);
    });
});

describe('moves aside', () => {
    it('go metre by metre to the right of the lens', () => {
        expect(aside(framing({ shift: [0.5, 0.2, 0] }), -1)).toEqual({ shift: [-0.5, 0.2, 0] });
    });
    it('of an over the shoulder are those that keep its angle', () => {
        const titles = movesFrom(framing({ kind: 'overShoulder', partnerId: 2 })).map((m) => m.title);
        expect(titles).toEqual(['Truck left', 'Truck right']);
    });
    it('begin a reveal where the middle of the picture is not seen yet', () => {
        // 50 mm on a sensor of 36 mm sees 0.72 m a metre away from it: at 2 m the edge is 0.72 m from the middle.
        // One stands up to two fifths of that aside for look room, and is a quarter of a metre wide to each side.
        const by = (kind: FramingRow['kind']) => hiddenAside(framing({ kind, focalMm: 50 }), 36, 2);
        expect(-by('single')).toBeGreaterThan(0.72 * 1.3 + 0.25);
        expect(-by('together')).toBeGreaterThan(0.72 * 1.8 + 0.25);
    });
    it('take everything along that makes the framing, and nothing of when it is', () => {
        const fields = framingFields(framing({ partnerId: 2, focusId: 3, frame: 40, over: 12 }));
        expect(fields).toMatchObject({ subject: 1, partner: 2, focus: 3, size: 'medium', shift: [0, 0, 0] });
        expect(Object.keys(fields)).not.toContain('frame');
        expect(framingFields(framing())).not.toHaveProperty('partner');
    });
});
