import { describe, expect, it } from 'vitest';
import { hipsOver } from '../../resources/js/workspace/panes/plan';

/** A row: place, turn about +y in degrees, scale, hips. */
function row(place: number[], degrees: number, scale: number, hips: number[]): number[] {
    const half = (degrees * Math.PI) / 360;
    return [...place, 0, Math.sin(half), 0, Math.cos(half), scale, scale, scale, ...hips];
}

describe('where hips are over the ground', () => {
    it.each([
        ['as it stands', row([1, 0.3, 2], 0, 1, [0.5, 0.9, 3]), [1.5, 5]],
        ['turned a quarter: its own ahead is +x', row([0, 0, 0], 90, 1, [0, 0.9, 2]), [2, 0]],
        ['turned round', row([1, 0, 1], 180, 1, [0.25, 0.9, 2]), [0.75, -1]],
        ['half as large: half the way', row([0, 0, 0], 0, 0.5, [1, 0.9, 4]), [0.5, 2]],
        ['twice as large and turned', row([1, 0, 0], 90, 2, [0, 0.9, 1.5]), [4, 0]],
    ] as const)('%s', (_, given, wanted) => {
        const [x, z] = hipsOver(given);
        expect(x).toBeCloseTo(wanted[0], 9);
        expect(z).toBeCloseTo(wanted[1], 9);
    });

    it('a row that says nothing stands at the origin', () => {
        expect(hipsOver([])).toEqual([0, 0]);
    });
});
