import { describe, expect, it } from 'vitest';
import { guidesKept, keepGuides, MASKS, masked, NO_GUIDES, within } from '../../resources/js/workspace/panes/guides';

describe('masks', () => {
    it('leave a part of the shape that is asked for, in the middle', () => {
        for (const [mask] of MASKS) {
            if (mask === null) continue;
            const b = masked(640, 360, mask);
            expect(b.width / b.height).toBeCloseTo(mask, 6);
            expect(b.x + b.width / 2).toBeCloseTo(320, 6);
            expect(b.y + b.height / 2).toBeCloseTo(180, 6);
            // One side is as long as it can be.
            expect(Math.max(b.width / 640, b.height / 360)).toBeCloseTo(1, 6);
        }
        expect(masked(640, 360, null)).toEqual({ x: 0, y: 0, width: 640, height: 360 });
        expect(masked(640, 360, 2.39).height).toBeCloseTo(640 / 2.39, 6);
        expect(masked(640, 360, 9 / 16).width).toBeCloseTo(202.5, 6);
    });

    it('hold boxes of a share of each side', () => {
        expect(within({ x: 0, y: 30, width: 200, height: 100 }, 0.5)).toEqual({ x: 50, y: 55, width: 100, height: 50 });
    });
});

it('what was chosen is there again, and what cannot be read is none', () => {
    expect(guidesKept()).toEqual(NO_GUIDES);
    keepGuides({ ...NO_GUIDES, mask: 2.39, thirds: true });
    expect(guidesKept()).toEqual({ ...NO_GUIDES, mask: 2.39, thirds: true });
    localStorage.setItem('guides', '{');
    expect(guidesKept()).toEqual(NO_GUIDES);
});
