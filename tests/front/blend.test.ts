import { describe, expect, it } from 'vitest';
import { blendAt, blendedAt } from '../../resources/js/picture/blend';
import type { Stretch } from '../../resources/js/picture/pieces';
import type { Manifest } from '../../resources/js/picture/stream';

const manifest = {
    cameras: [
        { id: 'c1', sensorWidthMm: 36, wallsAway: null },
        { id: 'c2', sensorWidthMm: 24, wallsAway: ['front'] },
    ],
    blends: [
        { from: 0, to: 10, a: null, b: 'c1', colour: 'black' },
        { from: 36, to: 44, a: 'c1', b: 'c2', colour: null },
    ],
} as unknown as Manifest;
const poses = { camera: (id: string) => ({ position: [id === 'c1' ? 1 : 2, 0, 0], focalMm: 50 }) } as unknown as Stretch;

describe('what the reel is blended of', () => {
    it('is told at the middle of each frame, so that both ends are alike', () => {
        expect([36, 39, 40, 43].map((f) => blendAt(manifest, f)?.share)).toEqual([1 / 16, 7 / 16, 9 / 16, 15 / 16]);
        expect([35, 44, 10].map((f) => blendAt(manifest, f))).toEqual([null, null, null]);
    });

    it('comes with what both cameras see, each with its own sensor and walls', () => {
        const mixed = blendedAt(manifest, poses, 40);
        expect([mixed?.a?.position[0], mixed?.b?.position[0]]).toEqual([1, 2]);
        expect([mixed?.a?.sensorWidthMm, mixed?.b?.sensorWidthMm, mixed?.b?.wallsAway]).toEqual([36, 24, ['front']]);
    });

    it('has no camera on the side of its colour', () => {
        const mixed = blendedAt(manifest, poses, 4);
        expect([mixed?.a, mixed?.b?.position[0], mixed?.blend.colour]).toEqual([null, 1, 'black']);
        expect(blendedAt(manifest, poses, 20)).toBeNull();
    });
});
