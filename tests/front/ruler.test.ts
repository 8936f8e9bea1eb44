import { describe, expect, it } from 'vitest';
import type { Rate } from '../../resources/js/lib/time';
import { ticks } from '../../resources/js/workspace/ruler';

const named = (from: number, to: number, px: number, rate: Rate) => ticks(from, to, px, rate).filter((t) => t.label !== '');

describe('marks of the ruler', () => {
    it('name seconds where there is room for each', () => {
        expect(named(0, 96, 4, [24, 1])).toEqual([
            { frame: 0, label: '0:00' },
            { frame: 24, label: '0:01' },
            { frame: 48, label: '0:02' },
            { frame: 72, label: '0:03' },
            { frame: 96, label: '0:04' },
        ]);
    });

    it('name frames when a second is wide', () => {
        expect(named(22, 28, 70, [24, 1]).map((t) => t.label)).toEqual([
            '0:00+22',
            '0:00+23',
            '0:01',
            '0:01+1',
            '0:01+2',
            '0:01+3',
            '0:01+4',
        ]);
        expect(named(0, 48, 7.7, [24, 1]).map((t) => t.label)).toEqual(['0:00', '0:00+12', '0:01', '0:01+12', '0:02']);
        expect(named(0, 25, 14, [25, 1]).map((t) => t.frame)).toEqual([0, 5, 10, 15, 20, 25]);
    });

    it('keep their distance at every zoom and rate, and none is named twice', () => {
        for (const rate of [
            [24, 1],
            [25, 1],
            [30, 1],
            [24000, 1001],
            [30000, 1001],
        ] as Rate[]) {
            for (const px of [0.004, 0.02, 0.11, 0.7, 2.7, 9, 31, 80]) {
                const to = Math.min(170_000, 1200 / px);
                const all = ticks(0, to, px, rate);
                const some = all.filter((t) => t.label !== '');
                for (const [a, b] of some.slice(1).map((t, k) => [some[k], t] as const)) {
                    expect((b.frame - (a?.frame ?? 0)) * px).toBeGreaterThan(60);
                }
                expect(new Set(all.map((t) => t.frame)).size).toBe(all.length);
                expect(all.length).toBeLessThan(400);
            }
        }
    });

    it('count true seconds at rates that are none of whole frames, and hours', () => {
        expect(named(0, 30, 4, [30000, 1001])[1]).toEqual({ frame: 30, label: '0:01' });
        expect(named(0, 18_000, 0.1, [30000, 1001]).at(-1)).toEqual({ frame: 17_982, label: '10:00' });
        expect(named(24 * 3600, 24 * 3605, 4, [24, 1])[0]?.label).toBe('1:00:00');
    });

    it('begin in the middle of what is shown', () => {
        expect(named(30, 100, 4, [24, 1]).map((t) => t.frame)).toEqual([48, 72, 96]);
    });
});
