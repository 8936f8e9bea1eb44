import { describe, expect, it } from 'vitest';
import { parseFrame, parseFrameChange, parseNumber, perSecond, short, timecode, type Rate, type Unit } from '../../resources/js/lib/time';
import { cutsIn, expectedRow, inWords } from '../../resources/js/workspace/expected';
import type { Rows } from '../../resources/js/workspace/rows';

const RATES: Rate[] = [
    [24, 1],
    [25, 1],
    [30, 1],
    [24000, 1001],
    [30000, 1001],
    [60000, 1001],
];

describe('a typed number', () => {
    const cases: [string, Unit, number, number | null][] = [
        // Metres, from two of them.
        ['2.5', 'm', 2, 2.5],
        ['250cm', 'm', 2, 2.5],
        ['-3', 'm', 2, -3],
        ['1,5', 'm', 2, 1.5],
        ['1ft', 'm', 2, 0.3048],
        ['+0.1', 'm', 2, 2.1],
        ['+10cm', 'm', 2, 2.1],
        ['+=10 cm', 'm', 2, 2.1],
        ['-=0.5', 'm', 2, 1.5],
        ['-=5cm', 'm', 2, 1.95],
        ['*2', 'm', 2, 4],
        ['* 1.5', 'm', 2, 3],
        ['/4', 'm', 2, 0.5],
        ['50%', 'm', 2, 1],
        ['+10%', 'm', 2, 2.2],
        ['-=25%', 'm', 2, 1.5],
        ['*2cm', 'm', 2, null],
        ['/0', 'm', 2, null],
        ['++1', 'm', 2, null],
        ['2kg', 'm', 2, null],
        ['', 'm', 2, null],
        ['.', 'm', 2, null],
        // Degrees, from forty-five.
        ['45deg', 'deg', 45, 45],
        ['+45', 'deg', 45, 90],
        ['-=90°', 'deg', 45, -45],
        ['*2', 'deg', 45, 90],
        ['-10%', 'deg', 45, -4.5],
        ['3m', 'deg', 45, null],
        // Millimetres of a lens, from thirty-five.
        ['50mm', 'mm', 35, 50],
        ['+15mm', 'mm', 35, 50],
        ['*2', 'mm', 35, 70],
        ['5cm', 'mm', 35, 50],
        ['/2', 'mm', 35, 17.5],
        // Numbers without a unit.
        ['+0.1', '', 0.2, 0.3],
        ['*3', '', 0.1, 0.3],
        ['150%', '', 1, 1.5],
        ['1m', '', 1, null],
    ];
    it.each(cases)('"%s" in a field of "%s" that shows %d is %s', (text, unit, present, wanted) => {
        expect(parseNumber(text, unit, present)).toBe(wanted);
    });

    it('a change is none where there is nothing to change', () => {
        expect(parseNumber('+1', 'm')).toBeNull();
        expect(parseNumber('50%', '')).toBeNull();
        expect(parseNumber('2.5m', 'm')).toBe(2.5);
    });

    it('what a field shows is read back as itself', () => {
        for (const n of [0, -0.001, 1.25, 1234.5, -90]) expect(parseNumber(short(n, 3), '', 7)).toBe(n);
        expect(short(-0.0001)).toBe('0');
    });
});

describe('a typed time', () => {
    it.each([
        ['130', 130],
        ['130f', 130],
        ['5.5s', 132],
        ['5:12', 132],
        ['00:00:05:12', 132],
        ['+12', 36],
        ['+1s', 48],
        ['-=00:00:00:12', 12],
        ['-=100', 0],
        ['*2', 48],
        ['/4', 6],
        ['*1s', null],
        ['1:2:3:4:5', null],
        ['soon', null],
        ['-5', null],
    ] as const)('"%s" at frame 24 of 24 a second is %s', (text, wanted) => {
        expect(parseFrameChange(text, [24, 1], 24)).toBe(wanted);
    });

    it.each(RATES)('every frame is read back from its timecode at %d/%d', (num, den) => {
        const rate: Rate = [num, den];
        for (let f = 0; f < 200_000; f += 37) expect(parseFrame(timecode(f, rate), rate)).toBe(f);
    });

    it.each(RATES)('seconds are those of the true rate at %d/%d', (num, den) => {
        expect(parseFrame('60s', [num, den])).toBe(Math.round((60 * num) / den));
        expect(perSecond([num, den])).toBeCloseTo(num / den, 12);
    });

    it('drop-frame numbers by the standard: no :00 and :01 at the start of a minute, but of the tenth', () => {
        expect(timecode(1799, [30000, 1001])).toBe('00:00:59;29');
        expect(timecode(1800, [30000, 1001])).toBe('00:01:00;02');
        expect(timecode(17982, [30000, 1001])).toBe('00:10:00;00');
        expect(timecode(107892, [30000, 1001])).toBe('01:00:00;00');
    });
});

describe('what is expected of an edit', () => {
    const rows = {
        items: [{ id: 7, name: 'Oda', position: [1, 2, 3], headingDeg: 0, scale: 1 }],
        beats: [{ id: 3, start: 10, speed: 1 }],
        links: [],
        touch_ups: [],
        contacts: [],
        cameras: [{ id: 2, name: '' }],
        shots: [],
    } as unknown as Rows;

    it('a place is shown part by part', () => {
        expect(expectedRow(rows, { do: 'item.place', item: 7, z: 9 })?.row.position).toEqual([1, 2, 9]);
        expect(expectedRow(rows, { do: 'item.place', item: 7, position: [4, 5, 6], y: 0 })?.row.position).toEqual([4, 0, 6]);
        expect(expectedRow(rows, { do: 'item.place', item: 7, headingDeg: 45 })?.row).toMatchObject({
            position: [1, 2, 3],
            headingDeg: 45,
        });
    });

    it('fields that are not shown simply, and rows that are not there, are waited for', () => {
        expect(expectedRow(rows, { do: 'beat.set', beat: 3, start: 20, mirror: true })?.row).toEqual({ id: 3, start: 20, speed: 1 });
        expect(expectedRow(rows, { do: 'beat.split', beat: 3 })).toBeNull();
        expect(expectedRow(rows, { do: 'item.place', item: 99, x: 1 })).toBeNull();
    });

    it('is said in words', () => {
        const named = (_: unknown, id: number) => (id === 7 ? 'Oda' : null);
        expect(inWords({ do: 'item.place', item: 7 }, named)).toBe('move Oda');
        expect(inWords({ do: 'camera.add', name: 'B' }, named)).toBe('add B');
        expect(inWords({ do: 'camera.add' }, named)).toBe('add a camera');
        expect(inWords({ do: 'item.remove', item: 8 }, named)).toBe('remove a thing');
    });
});

it('cuts are told from what else is on its way, in their order', () => {
    const cut = (frame: unknown, camera: unknown) => ({ do: 'shot.cut', frame, camera });
    expect(cutsIn([cut(12, 3), { do: 'item.set', item: 1 }, cut(40, 1), cut(50, 'B')])).toEqual([
        { frame: 12, camera: 3 },
        { frame: 40, camera: 1 },
    ]);
});
