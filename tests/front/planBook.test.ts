import { afterEach, describe, expect, it, vi } from 'vitest';
import type { Storey } from '../../resources/js/workspace/answers';
import { heightsOf, PlanBook, pathOf, storeyAt, trianglesOf } from '../../resources/js/workspace/panes/planBook.svelte';

const storey = (y: number): Storey => ({ y, walls: [], things: [], floor: [] });

describe('the storey that is seen', () => {
    const house = [storey(0), storey(2.8), storey(5.6)];
    it.each([
        [0, 0],
        [2, 2.8],
        [1.5, 0],
        [2.8, 2.8],
        [99, 5.6],
        [-4, 0],
    ])('from %d m up is the one at %d m', (height, y) => {
        expect(storeyAt(house, height)?.y).toBe(y);
    });
    it('is none of a thing without a plan', () => expect(storeyAt([], 1)).toBeNull());
});

it('lines become paths, closed ones closed', () => {
    expect(pathOf([[0, 0, 1, 0, 1, 2]])).toBe('M0 0L1 0L1 2');
    expect(pathOf([[0, 0, 1, 0, 1, 2, 0, 0]])).toBe('M0 0L1 0L1 2L0 0Z');
    expect(pathOf([[0, 0, 1, 0], []])).toBe('M0 0L1 0M');
    expect(trianglesOf([0, 0, 1, 0, 1, 1, 5])).toBe('M0 0L1 0L1 1Z');
});

describe('plans of files', () => {
    afterEach(() => vi.unstubAllGlobals());
    const asked: string[] = [];
    const server = (ok: () => boolean) =>
        vi.stubGlobal('fetch', (url: string) => {
            asked.push(url);
            const of = new URL(url, 'http://here').searchParams.get('of')?.split(',') ?? [];
            return Promise.resolve(
                ok()
                    ? new Response(JSON.stringify({ plans: Object.fromEntries(of.map((b) => [b, [storey(1)]])) }))
                    : new Response('{}', { status: 503 }),
            );
        });

    it('are asked for once each, so many in a call', async () => {
        asked.length = 0;
        server(() => true);
        const book = new PlanBook(4);
        const blobs = Array.from({ length: 30 }, (_, k) => `b${k}`);
        await book.ask([...blobs, 'b0', 'b1']);
        expect(asked).toHaveLength(2);
        expect(asked[0]).toContain('/api/scenes/4/plans?of=b0,b1');
        expect(book.of('b29')).toEqual([storey(1)]);
        await book.ask(blobs);
        expect(asked).toHaveLength(2);
        expect(book.of('other')).toEqual([]);
    });

    it('that did not come are asked for again another time', async () => {
        let up = false;
        asked.length = 0;
        server(() => up);
        const book = new PlanBook(4);
        await book.ask(['a']);
        expect(book.of('a')).toEqual([]);
        up = true;
        await book.ask(['a']);
        expect(asked).toHaveLength(2);
        expect(book.of('a')).toHaveLength(1);
    });
});

it('storeys of several sets are told once', () => {
    expect(heightsOf([3, 0.02, 0, 2.9, 5.8])).toEqual([0, 2.9, 5.8]);
    expect(heightsOf([])).toEqual([]);
});
