import { Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { depthOfField } from '../../resources/js/lib/lens';
import { CloseLook } from '../../resources/js/workspace/panes/closeLook';

describe('what is sharp', () => {
    it('lies between the limits of the thin lens', () => {
        // f 50, N 2.8, 3 m: H = 2500 / (2.8 x 0.02884) + 50 = 31 008 mm; near 3000 x 30958 / 33908, far 3000 x 30958 / 28008.
        const [near, far] = depthOfField(50, 2.8, 3, 36);
        expect(near).toBeCloseTo(2.739, 3);
        expect(far).toBeCloseTo(3.316, 3);
    });
    it('has no end beyond the hyperfocal distance', () => {
        expect(depthOfField(24, 11, 6, 36)[1]).toBe(Infinity);
    });
});

describe('a close look', () => {
    const heading = (v: { position: number[] }, eyes: Vector3) => Math.atan2(v.position[0]! - eyes.x, v.position[2]! - eyes.z);
    const eyes = new Vector3(1, 1.6, 2);

    it('stands a little aside before the face and has it in the middle', () => {
        const view = new CloseLook().at(eyes, new Vector3(0, 0, 1));
        expect(heading(view, eyes)).toBeCloseTo(0.35);
        const [x, y, z, w] = view.rotation;
        const axis = new Vector3(-2 * (x * z + y * w), 2 * (x * w - y * z), -(1 - 2 * (x * x + y * y)));
        const to = eyes
            .clone()
            .sub(new Vector3(...view.position))
            .normalize();
        expect(axis.distanceTo(to)).toBeLessThan(1e-6);
    });
    it('goes along at once and turns less hastily', () => {
        const look = new CloseLook();
        look.at(eyes, new Vector3(0, 0, 1));
        const moved = eyes.clone().add(new Vector3(3, 0, 0));
        const view = look.at(moved, new Vector3(Math.sin(0.4), 0, Math.cos(0.4)));
        expect(heading(view, moved)).toBeCloseTo(0.35 + 0.1);
    });
    it('takes a jump at once', () => {
        const look = new CloseLook();
        look.at(eyes, new Vector3(0, 0, 1));
        expect(heading(look.at(eyes, new Vector3(1, 0, 0)), eyes)).toBeCloseTo(0.35 + Math.PI / 2);
    });
});
