import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Painter, Stretch, View } from '../../resources/js/picture';
import { SmallPictures, type Asked } from '../../resources/js/workspace/cover/smallPictures.svelte';

const view = { position: [0, 0, 0] } as unknown as View;
const block = {} as Stretch;
const asked = (key: string, frame = 0): Asked => ({ key, view, frame });

describe('small pictures', () => {
    let drawn: [number, number, number][] = [];
    let painter: Painter | null = null;
    let poses: (frame: number) => Stretch | null = () => block;
    const make = () =>
        new SmallPictures(
            () => painter,
            (f) => poses(f),
            192,
            108,
        );

    beforeEach(() => {
        vi.useFakeTimers();
        drawn = [];
        poses = () => block;
        painter = {
            small: (_: Stretch, frame: number, __: View, width: number, height: number) => {
                drawn.push([frame, width, height]);
                return `picture ${drawn.length}`;
            },
        } as unknown as Painter;
    });
    afterEach(() => void vi.useRealTimers());

    it('are drawn one after the other, and none twice', async () => {
        const p = make();
        p.ask([asked('a', 3), asked('b', 4)]);
        await vi.advanceTimersByTimeAsync(17);
        expect(p.made).toEqual({ a: 'picture 1' });
        await vi.advanceTimersByTimeAsync(100);
        expect(p.made).toEqual({ a: 'picture 1', b: 'picture 2' });
        expect(drawn).toEqual([
            [3, 192, 108],
            [4, 192, 108],
        ]);
        p.ask([asked('b', 4), asked('c', 5)]);
        await vi.advanceTimersByTimeAsync(100);
        expect(p.made).toEqual({ b: 'picture 2', c: 'picture 3' });
    });

    it('that nobody asks for any more are not drawn', async () => {
        const p = make();
        p.ask(['a', 'b', 'c', 'd'].map((k) => asked(k)));
        await vi.advanceTimersByTimeAsync(17);
        p.ask([asked('d')]);
        await vi.advanceTimersByTimeAsync(200);
        expect(Object.keys(p.made)).toEqual(['d']);
        expect(drawn).toHaveLength(2);
    });

    it('are told to be soon rather than fine where that is asked for, and whether any are left', async () => {
        const soon: boolean[] = [];
        painter = { small: (...all: unknown[]) => `${soon.push(all[5] as boolean)}` } as unknown as Painter;
        let playing = true;
        const p = new SmallPictures(
            () => painter,
            () => block,
            240,
            135,
            () => playing,
        );
        p.ask([asked('a'), asked('b')]);
        expect(p.busy).toBe(true);
        await vi.advanceTimersByTimeAsync(17);
        playing = false;
        await vi.advanceTimersByTimeAsync(100);
        expect(soon).toEqual([true, false]);
        expect(p.busy).toBe(false);
    });

    it('wait for poses and for a painter, and end with the pane', async () => {
        const p = make();
        const later = painter;
        painter = null;
        poses = () => null;
        p.ask([asked('a')]);
        await vi.advanceTimersByTimeAsync(1000);
        expect(drawn).toHaveLength(0);
        painter = later;
        await vi.advanceTimersByTimeAsync(1000);
        expect(drawn).toHaveLength(0);
        poses = () => block;
        await vi.advanceTimersByTimeAsync(1000);
        expect(p.made).toEqual({ a: 'picture 1' });
        p.ask([asked('a'), asked('b')]);
        p.close();
        await vi.advanceTimersByTimeAsync(1000);
        expect(drawn).toHaveLength(1);
    });
});
