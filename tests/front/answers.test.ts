import * as v from 'valibot';
import { describe, expect, it, vi } from 'vitest';
import { ApiError, checked } from '../../resources/js/lib/api';
import { Change, EditAnswer, ManifestShape } from '../../resources/js/workspace/answers';
import { BeatRow, ranges } from '../../resources/js/workspace/rows.generated';

const beat = {
    id: 3,
    itemId: 7,
    assetId: 4,
    start: 12,
    sourceIn: 0,
    sourceOut: null,
    speed: 1,
    loops: 1,
    root: 'travel',
    join: 'carryOn',
    joinFrames: 8,
    settings: { line: 'No.', bounce: 1.5 },
    path: null,
    play: {},
};

describe('an answer is checked where it comes in', () => {
    it('and typed from there on', () => {
        const row = checked(BeatRow, beat, 'scenes/1');
        expect(row.settings.line).toBe('No.');
        expect(row.sourceOut).toBeNull();
    });

    it.each([
        ['a number that is a text', { ...beat, start: '12' }, 'start'],
        ['a word that the page does not know', { ...beat, join: 'melt' }, 'join'],
        ['a field that is missing', { ...beat, speed: undefined }, 'speed'],
        ['a part that is no part', { ...beat, play: { energy: 'much' } }, 'play.energy'],
        ['a list of pairs with a single', { ...beat, path: { points: [[1]] } }, 'path.points.0'],
    ])('%s stops the page from building on it, and says where', (_, answer, where) => {
        const said = vi.spyOn(console, 'error').mockImplementation(() => undefined);
        expect(() => checked(BeatRow, answer, 'scenes/1')).toThrow(ApiError);
        expect(said.mock.calls[0]?.[0]).toContain(where);
        said.mockRestore();
    });

    it('rows are told apart by their table', () => {
        expect(v.is(Change, { table: 'beats', id: 3, row: beat })).toBe(true);
        expect(v.is(Change, { table: 'beats', id: 3, row: null })).toBe(true);
        expect(v.is(Change, { table: 'shots', id: 3, row: beat })).toBe(false);
        expect(v.is(Change, { table: 'nothing', id: 3, row: null })).toBe(false);
    });

    it('an edit of which nothing is drawn has no manifest; half of one is none', () => {
        expect(v.is(EditAnswer, { revision: 4, changes: [], manifest: null })).toBe(true);
        expect(v.is(EditAnswer, { revision: 4, changes: [], manifest: { items: 3 } })).toBe(false);
        expect(v.is(ManifestShape, { items: [], cameras: [] })).toBe(false);
        expect(v.is(ManifestShape, { items: [], cameras: [], shots: [], state: 'a' })).toBe(true);
    });
});

it('ranges of numbers are those of the fields', () => {
    expect(ranges.BeatRow.speed).toEqual([0.05, 20]);
    expect(ranges.CameraKeyRow.focalMm).toEqual([4, 1200]);
});
