import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { BlockStore, PoseBlock, shotAt, type Manifest } from '../../resources/js/picture/stream';
import { AT_ONCE, BlockCalls, parted } from '../../resources/js/workspace/blocks';

/** Bytes of an answer with several blocks: length, bytes; null is one that is gone. */
function answer(parts: (number[] | null)[]): ArrayBuffer {
    const out: number[] = [];
    for (const p of parts) {
        const n = p === null ? 0xffffffff : p.length;
        out.push(n & 255, (n >>> 8) & 255, (n >>> 16) & 255, n >>> 24, ...(p ?? []));
    }
    return new Uint8Array(out).buffer;
}

const listed = (b: ArrayBuffer | null) => (b === null ? null : [...new Uint8Array(b)]);

/** A pose block by hand: header, JSON padded to four bytes, floats little endian. */
function block(head: object, floats: number[]): ArrayBuffer {
    let json = JSON.stringify(head);
    json += ' '.repeat((4 - (json.length % 4)) % 4);
    const out = new ArrayBuffer(12 + json.length + 4 * floats.length);
    const view = new DataView(out);
    [...'CRPS'].forEach((c, i) => view.setUint8(i, c.charCodeAt(0)));
    view.setUint32(4, 1, true);
    view.setUint32(8, json.length, true);
    [...json].forEach((c, i) => view.setUint8(12 + i, c.charCodeAt(0)));
    floats.forEach((f, i) => view.setFloat32(12 + json.length + 4 * i, f, true));
    return out;
}

describe('several blocks in one answer', () => {
    it('are parted by their lengths; one that is gone stands in its place', () => {
        expect(parted(answer([[1, 2, 3], null, [], [9]])).map(listed)).toEqual([[1, 2, 3], null, [], [9]]);
    });

    it('an answer that breaks off gives what is whole', () => {
        expect(parted(new Uint8Array([1, 0]).buffer)).toEqual([]);
    });
});

describe('calls for blocks', () => {
    beforeEach(() => void vi.useFakeTimers());
    afterEach(() => void vi.useRealTimers());

    it('one alone goes under its own address', async () => {
        const asked: string[] = [];
        const calls = new BlockCalls((path) => (asked.push(path), Promise.resolve(new Uint8Array([5]).buffer)));
        const got = calls.load(2, 'abc');
        await vi.advanceTimersByTimeAsync(10);
        expect(listed(await got)).toEqual([5]);
        expect(asked).toEqual(['blocks/2/abc']);
    });

    it('what is asked for at about the same time goes together, and each gets its own', async () => {
        const asked: string[] = [];
        const calls = new BlockCalls((path) => (asked.push(path), Promise.resolve(answer([[1], null, [3]]))));
        const got = ['a', 'b', 'c'].map((hash, n) => calls.load(n, hash));
        await vi.advanceTimersByTimeAsync(10);
        expect((await Promise.all(got)).map(listed)).toEqual([[1], null, [3]]);
        expect(asked).toEqual(['blocks?of=0:a,1:b,2:c']);
    });

    it('no call carries more than the server takes', async () => {
        const sizes: number[] = [];
        const calls = new BlockCalls((path) => {
            sizes.push(path.split(',').length);
            return Promise.resolve(answer(Array.from({ length: AT_ONCE }, () => [0])));
        });
        void Promise.all(Array.from({ length: 2 * AT_ONCE + 1 }, (_, n) => calls.load(n, `h${n}`)));
        await vi.advanceTimersByTimeAsync(10);
        expect(sizes).toEqual([AT_ONCE, AT_ONCE, 1]);
    });

    it('a call that fails fails for all of it', async () => {
        const calls = new BlockCalls(() => Promise.reject(new Error('away')));
        const got = Promise.allSettled([calls.load(0, 'a'), calls.load(1, 'b')]);
        await vi.advanceTimersByTimeAsync(10);
        expect((await got).map((g) => g.status)).toEqual(['rejected', 'rejected']);
    });
});

describe('a pose block', () => {
    const head = {
        from: 48,
        count: 2,
        tracks: [
            { item: 'i1', kind: 'place', stride: 2, rows: 2, offset: 0 },
            { item: 'i2', kind: 'place', stride: 2, rows: 1, offset: 4 },
            { camera: 'c1', kind: 'camera', stride: 10, rows: 1, offset: 6 },
        ],
    };
    const read = new PoseBlock(block(head, [1, 2, 3, 4, 7, 8, 0, 1.6, 4, 0, 0, 0, 1, 35, 3, 2.8]));

    it('gives the row of a frame, and the only one of what stands still', () => {
        expect([...(read.item('i1', 48) ?? [])]).toEqual([1, 2]);
        expect([...(read.item('i1', 49.7) ?? [])]).toEqual([3, 4]);
        expect([...(read.item('i2', 49) ?? [])]).toEqual([7, 8]);
        expect(read.item('i3', 48)).toBeNull();
    });

    it('frames before and after it are those at its ends', () => {
        expect([...(read.item('i1', 0) ?? [])]).toEqual([1, 2]);
        expect([...(read.item('i1', 500) ?? [])]).toEqual([3, 4]);
    });

    it('gives a camera with its lens', () => {
        const camera = read.camera('c1', 48);
        expect(camera?.rotation).toEqual([0, 0, 0, 1]);
        expect(camera?.focalMm).toBe(35);
        expect(camera?.fStop).toBeCloseTo(2.8, 6);
    });

    it('another file is refused', () => {
        expect(() => new PoseBlock(new Uint8Array(16).buffer)).toThrow('not a pose block');
    });
});

describe('the store of blocks', () => {
    const bytes = block({ from: 0, count: 1, tracks: [] }, []);

    it('asks once for what is on its way, and keeps it', async () => {
        let asked = 0;
        const store = new BlockStore(() => (asked++, Promise.resolve(bytes)));
        const [a, b] = await Promise.all([store.get(0, 'a'), store.get(0, 'a')]);
        expect(a).toBe(b);
        expect(await store.get(0, 'a')).toBe(a);
        expect(asked).toBe(1);
    });

    it('holds no more than its limit; the oldest go', async () => {
        const store = new BlockStore(() => Promise.resolve(bytes), 3);
        for (const h of ['a', 'b', 'c', 'd', 'e']) await store.get(0, h);
        expect(['a', 'b', 'c', 'd', 'e'].map((h) => store.has(h))).toEqual([false, false, true, true, true]);
    });

    it('one that is gone is not kept, and may be asked for again', async () => {
        const answers = [null, bytes];
        const store = new BlockStore(() => Promise.resolve(answers.shift() ?? null));
        expect(await store.get(0, 'a')).toBeNull();
        expect(await store.get(0, 'a')).not.toBeNull();
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
