import { Quaternion, Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import type { View } from '../../resources/js/picture';
import { sideViews } from '../../resources/js/workspace/panes/sideViews';

/** Where a place falls across and up the picture, -1 to 1, for a picture of 16 to 9. */
function seen(view: View, place: [number, number, number]): [number, number] {
    const p = new Vector3(...place).sub(new Vector3(...view.position)).applyQuaternion(new Quaternion(...view.rotation).invert());
    const half = view.sensorWidthMm / 2 / view.focalMm;
    return [p.x / -p.z / half, (p.y / -p.z / half) * (16 / 9)];
}

describe('the scene from its sides', () => {
    const feet: [number, number, number][] = [
        [-3, 0, 1],
        [2, 0, -1],
        [0, 0, 4],
    ];
    it('shows all people in each, whole', () => {
        for (const { name, view } of sideViews(feet)) {
            for (const [x, y, z] of feet) {
                const [across, up] = seen(view, [x, y + (name === 'Top' ? 0 : 0.9), z]);
                expect(Math.abs(across)).toBeLessThan(0.95);
                expect(Math.abs(up)).toBeLessThan(0.95);
            }
        }
    });
    it('has left and right as one sees them from there', () => {
        const [front, side, top] = sideViews(feet).map((v) => v.view);
        const x = (view: View | undefined, p: [number, number, number]) => seen(view!, p)[0];
        // From before (+z) somebody at +x is on the right; from +x, somebody at -z; from above +x again, and -z is up.
        expect(x(front, [2, 0, 0])).toBeGreaterThan(x(front, [-3, 0, 0]));
        expect(x(side, [0, 0, -1])).toBeGreaterThan(x(side, [0, 0, 4]));
        expect(x(top, [2, 0, 0])).toBeGreaterThan(x(top, [-3, 0, 0]));
        expect(seen(top!, [0, 0, -1])[1]).toBeGreaterThan(seen(top!, [0, 0, 4])[1]);
    });
    it('looks at the middle of the floor where nobody is', () => {
        const [x, y] = seen(sideViews([])[0]!.view, [0, 0.9, 0]);
        expect(Math.abs(x) + Math.abs(y)).toBeLessThan(1e-6);
    });
});
