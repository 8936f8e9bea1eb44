import { describe, expect, it } from 'vitest';
import { headingTo, placeOf } from '../../resources/js/workspace/card/facing';
import type { SceneStore } from '../../resources/js/workspace/scene.svelte';

describe('the direction in which a place lies', () => {
    it.each([
        [[0, 0], [0, 1], 0],
        [[0, 0], [1, 0], 90],
        [[2, 2], [2, 1], 180],
        [[0, 0], [-1, 1], -45],
        [[1, 1], [1, 1], 0],
    ] as [[number, number], [number, number], number][])('from %j to %j is %d', (from, to, deg) => {
        expect(headingTo(from, to)).toBeCloseTo(deg, 6);
    });
});

describe('where somebody is', () => {
    const row = Float32Array.from([1, 0, 2, 0, 0, 0, 1, 1, 1, 1, 0.5, 1, 0.25]);
    const scene = (joints: string[], poses: boolean) =>
        ({
            find: () => ({ position: [7, 0, 8] }),
            posesAt: () => (poses ? { item: () => row } : null),
            manifest: { items: [{ id: 'i3', joints }] },
        }) as unknown as SceneStore;

    it('is where the hips are, for a person', () => expect(placeOf(scene(['hips'], true), 3, 10)).toEqual([1.5, 2.25]));
    it('is where it stands, for a thing', () => expect(placeOf(scene([], true), 3, 10)).toEqual([1, 2]));
    it('is its mark as long as the poses are not here', () => expect(placeOf(scene(['hips'], false), 3, 10)).toEqual([7, 8]));
});
