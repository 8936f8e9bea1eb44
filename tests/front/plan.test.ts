import { describe, expect, it } from 'vitest';
import type { Manifest, Stretch } from '../../resources/js/picture';
import { camerasOn } from '../../resources/js/workspace/panes/cameras';
import { gridOf, hipsOver } from '../../resources/js/workspace/panes/plan';

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

describe('cameras on the plan', () => {
    const manifest = {
        cameras: [
            { id: 'c4', letter: 'A', sensorWidthMm: 36 },
            { id: 'c5', letter: 'B', sensorWidthMm: 36 },
        ],
        shots: [{ camera: 'c4', in: 0, out: 10 }],
    } as unknown as Manifest;
    const poses = {
        camera: (id: string) => (id === 'c4' ? { position: [1, 2, 3], rotation: [0, Math.SQRT1_2, 0, Math.SQRT1_2], focalMm: 18 } : null),
    } as unknown as Stretch;

    it('lie where they are, look along their axis, and see as wide as their lens; one without poses is left out', () => {
        const [a, ...others] = camerasOn(manifest, poses, 3);
        expect(others).toEqual([]);
        // Turned by a quarter to the left, -z looks along -x; 36 mm over 18 mm is a right angle.
        expect(a).toMatchObject({ id: 4, letter: 'A', x: 1, z: 3, onAir: true });
        expect(a?.a).toBeCloseTo(-Math.PI / 2, 6);
        expect(a?.half).toBeCloseTo(Math.PI / 4, 6);
        expect(camerasOn(manifest, poses, 12)[0]?.onAir).toBe(false);
    });
});

it('the grid has a line at each metre that is seen, and the main ones where x and z are 0', () => {
    const { lines, step } = gridOf({ x: 0, z: 0 }, 20, { width: 100, height: 60 });
    expect(step).toBe(1);
    expect(lines).toHaveLength(5 + 3);
    expect(lines.filter((l) => l.main)).toEqual([
        { x1: 50, y1: 0, x2: 50, y2: 60, main: true },
        { x1: 0, y1: 30, x2: 100, y2: 30, main: true },
    ]);
    expect(gridOf({ x: 0, z: 0 }, 10, { width: 100, height: 60 }).step).toBe(5);
});
