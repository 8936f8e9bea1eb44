import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { AT_ONCE, parted, PieceCalls, PieceStore, Stretch, trackRow } from '../../resources/js/picture/pieces';
import { shotAt, wholeManifest, type Manifest, type ManifestPart } from '../../resources/js/picture/stream';

/** Bytes of an answer with several pieces: length, bytes; null is one that is gone. */
function answer(parts: (number[] | null)[]): ArrayBuffer {
    const out: number[] = [];
    for (const p of parts) {
        const n = p === null ? 0xffffffff : p.length;
        out.push(n & 255, (n >>> 8) & 255, (n >>> 16) & 255, n >>> 24, ...(p ?? []));
    }
    return new Uint8Array(out).buffer;
}

const listed = (b: ArrayBuffer | null) => (b === null ? null : [...new Uint8Array(b)]);

const floats = (...f: number[]) => new Float32Array(f).buffer;

function manifest(items: object[], cameras: object[] = [], more: object = {}): Manifest {
    return { state: 'now', pieceFrames: 48, pieces: 2, items, cameras, ...more } as unknown as Manifest;
}

describe('several pieces in one answer', () => {
    it('are parted by their lengths; one that is gone stands in its place', () => {
        expect(parted(answer([[1, 2, 3], null, [], [9]])).map(listed)).toEqual([[1, 2, 3], null, [], [9]]);
    });

    it('an answer that breaks off gives what is whole', () => {
        expect(parted(new Uint8Array([1, 0]).buffer)).toEqual([]);
    });
});

describe('calls for pieces', () => {
    beforeEach(() => void vi.useFakeTimers());
    afterEach(() => void vi.useRealTimers());

    it('what is asked for at about the same time goes together, and each gets its own', async () => {
        const asked: string[] = [];
        const calls = new PieceCalls((path) => (asked.push(path), Promise.resolve(answer([[1], null, [3]]))));
        const got = [calls.load(4, 'c'), calls.load(0, 'a'), calls.load(0, 'b')];
        await vi.advanceTimersByTimeAsync(10);
        expect(asked).toEqual(['pieces?of=0:a,b;4:c']);
        expect((await Promise.all(got)).map(listed)).toEqual([[3], [1], null]);
    });

    it('no call carries more than the server takes', async () => {
        const sizes: number[] = [];
        const calls = new PieceCalls((path) => {
            sizes.push(path.split(/[,;]/).length);
            return Promise.resolve(answer(Array.from({ length: AT_ONCE }, () => [0])));
        });
        void Promise.all(Array.from({ length: 2 * AT_ONCE + 1 }, (_, n) => calls.load(n % 7, `h${n}`)));
        await vi.advanceTimersByTimeAsync(10);
        expect(sizes).toEqual([AT_ONCE, AT_ONCE, 1]);
    });

    it('a call that fails fails for all of it', async () => {
        const calls = new PieceCalls(() => Promise.reject(new Error('away')));
        const got = Promise.allSettled([calls.load(0, 'a'), calls.load(1, 'b')]);
        await vi.advanceTimersByTimeAsync(10);
        expect((await got).map((g) => g.status)).toEqual(['rejected', 'rejected']);
    });
});

describe('a stretch of frames', () => {
    const scene = manifest(
        [
            { id: 'i1', track: { stride: 2, pieces: ['p0', 'p1'] } },
            { id: 'i2', track: { stride: 2, still: [7, 8] } },
            { id: 'i4', track: { stride: 2, pieces: ['q0', 'q1'] } },
        ],
        [{ id: 'c1', track: { stride: 10, still: [0, 1.6, 4, 0, 0, 0, 1, 35, 3, 2.8] } }],
    );
    const here = new PieceStore(() => Promise.resolve(null));
    here.put('p1', floats(1, 2, 3, 4));
    here.put('q1', floats(5, 6));
    const read = Stretch.of(scene, 1, here);

    it('is there when all of its pieces are', () => {
        expect(read).not.toBeNull();
        expect(Stretch.of(scene, 0, here)).toBeNull();
        expect(Stretch.names(scene, 1)).toEqual(['p1', 'q1']);
    });

    it('gives the row of a frame, and the only one of what stands still', () => {
        expect([...(read?.item('i1', 48) ?? [])]).toEqual([1, 2]);
        expect([...(read?.item('i1', 49.7) ?? [])]).toEqual([3, 4]);
        expect([...(read?.item('i2', 49) ?? [])]).toEqual([7, 8]);
        expect([...(read?.item('i4', 80) ?? [])]).toEqual([5, 6]);
        expect(read?.item('i3', 48)).toBeNull();
    });

    it('frames before and after it are those at its ends', () => {
        expect([...(read?.item('i1', 0) ?? [])]).toEqual([1, 2]);
        expect([...(read?.item('i1', 500) ?? [])]).toEqual([3, 4]);
    });

    it('gives a camera with its lens', () => {
        const camera = read?.camera('c1', 48);
        expect(camera?.rotation).toEqual([0, 0, 0, 1]);
        expect(camera?.focalMm).toBe(35);
        expect(camera?.fStop).toBeCloseTo(2.8, 6);
    });

    it('one track alone is read without the others', () => {
        const [moving, still] = scene.items.map((i) => i.track);
        expect([...(trackRow(moving as never, scene, 49, here) ?? [])]).toEqual([3, 4]);
        expect(trackRow(moving as never, scene, 3, here)).toBeNull();
        expect([...(trackRow(still as never, scene, 3, here) ?? [])]).toEqual([7, 8]);
    });
});

describe('the store of pieces', () => {
    const store = (answers: (number[] | null)[][], limit?: number) => {
        const asked: string[] = [];
        const made = new PieceStore((path) => (asked.push(path), Promise.resolve(answer(answers.shift() ?? []))), limit);
        return { made, asked };
    };

    it('asks once for what is on its way, and keeps it', async () => {
        const { made, asked } = store([[[0, 0, 128, 63]]]);
        expect(await Promise.all([made.get(0, ['a']), made.get(0, ['a'])])).toEqual([true, true]);
        expect(await made.get(0, ['a'])).toBe(true);
        expect([...(made.peek('a') ?? [])]).toEqual([1]);
        expect(asked).toEqual(['pieces?of=0:a']);
    });

    it('asks for those alone that are missing', async () => {
        const { made, asked } = store([[[0, 0, 0, 0]]]);
        made.put('a', floats(1));
        expect(await made.get(3, ['a', 'b'])).toBe(true);
        expect(asked).toEqual(['pieces?of=3:b']);
    });

    it('holds no more than its limit; the oldest go', () => {
        const { made } = store([], 12);
        for (const name of ['a', 'b', 'c', 'd', 'e']) made.put(name, floats(1));
        expect(['a', 'b', 'c', 'd', 'e'].map((name) => made.peek(name) !== null)).toEqual([false, false, true, true, true]);
    });

    it('one that is gone is not kept, and may be asked for again', async () => {
        const { made } = store([[null], [[0, 0, 0, 0]]]);
        expect(await made.get(0, ['a'])).toBe(false);
        expect(await made.get(0, ['a'])).toBe(true);
    });
});

describe('a part of a manifest', () => {
    const before = manifest(
        [
            { id: 'i1', name: 'Oda' },
            { id: 'i2', name: 'Bram' },
        ],
        [{ id: 'c1' }],
        { frames: 96, mood: 'dusk' },
    );
    const part = (more: object) =>
        ({ since: 'now', state: 'then', items: ['i1', 'i2'], cameras: ['c1'], ...more }) as unknown as ManifestPart;

    it('brings what is another now and leaves the rest', () => {
        const now = wholeManifest(part({ frames: 120, items: ['i2', { id: 'i3', name: 'Ane' }] }), before);
        expect(now).toMatchObject({ state: 'then', frames: 120, mood: 'dusk', items: [{ name: 'Bram' }, { name: 'Ane' }] });
        expect(now?.items[0]).toBe(before.items[1]);
        expect(now).not.toHaveProperty('since');
    });

    it('of a state that is not here is refused, and so is one that counts on what is not here', () => {
        expect(wholeManifest(part({}), null)).toBeNull();
        expect(wholeManifest(part({ since: 'another' }), before)).toBeNull();
        expect(wholeManifest(part({ items: ['i9'] }), before)).toBeNull();
    });

    it('that is whole needs nothing before it', () => {
        const whole = manifest([{ id: 'i1' }]);
        expect(wholeManifest(whole, null)).toEqual(whole);
    });
});

it('the shot on air is the one that the frame lies in, its out frame not among them', () => {
    const m = {
        shots: [
            { id: 's1', in: 0, out: 24 },
            { id: 's2', in: 24, out: 48 },
        ],
    } as unknown as Manifest;
    expect([0, 23, 24, 47, 48].map((f) => shotAt(m, f)?.id ?? null)).toEqual(['s1', 's1', 's2', 's2', null]);
});
