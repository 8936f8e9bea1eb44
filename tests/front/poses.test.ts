import { describe, expect, it } from 'vitest';
import { ApiError } from '../../resources/js/lib/api';
import type { Manifest } from '../../resources/js/picture';
import { ScenePoses } from '../../resources/js/workspace/poses';

const manifest = (state: string, ...names: string[][]): Manifest =>
    ({
        state,
        pieceFrames: 48,
        pieces: names[0]?.length ?? 0,
        items: names.map((pieces, n) => ({ id: `i${n}`, track: { stride: 1, pieces } })),
        cameras: [],
    }) as unknown as Manifest;

/** A server that has some pieces, each one float, its number in the list of names. */
function scene(present: Manifest, have: string[]) {
    const seen = { asked: [] as string[], arrived: 0, movedOn: 0, present };
    const poses = new ScenePoses({
        present: () => seen.present,
        arrived: () => seen.arrived++,
        movedOn: () => (seen.movedOn++, Promise.resolve()),
        fetch: (path) => {
            seen.asked.push(path.replace('pieces?of=', ''));
            const out: number[] = [];
            for (const name of path
                .replace(/^.*of=/, '')
                .replaceAll(/\d+:/g, '')
                .split(/[,;]/)) {
                if (have.includes(name)) out.push(4, 0, 0, 0, ...new Uint8Array(new Float32Array([have.indexOf(name)]).buffer));
                else out.push(255, 255, 255, 255);
            }
            return Promise.resolve(new Uint8Array(out).buffer);
        },
    });
    return { poses, seen };
}

const settled = () => new Promise((r) => setTimeout(r, 30));

describe('poses of a scene', () => {
    it('are fetched when they are asked for, told when they have come, and not asked for again', async () => {
        const { poses, seen } = scene(manifest('a', ['p0', 'p1'], ['q0', 'q1']), ['p0', 'q0', 'p1', 'q1']);
        expect(poses.at(10)).toBeNull();
        await settled();
        expect(seen).toMatchObject({ asked: ['0:p0,q0'], arrived: 1 });
        expect([...(poses.at(10)?.item('i1', 10) ?? [])]).toEqual([1]);
        expect(poses.at(20)).toBe(poses.at(10));
        expect(seen.asked).toHaveLength(1);
    });

    it('of a new state cost only what is new', async () => {
        const { poses, seen } = scene(manifest('a', ['p0'], ['q0']), ['p0', 'q0', 'p9']);
        poses.at(0);
        await settled();
        const before = poses.at(0);
        seen.present = manifest('b', ['p9'], ['q0']);
        expect(poses.at(0)).toBeNull();
        await settled();
        expect(seen.asked).toEqual(['0:p0,q0', '0:p9']);
        expect([...(poses.at(0)?.item('i0', 0) ?? [])]).toEqual([2]);
        expect(poses.at(0)).not.toBe(before);
    });

    it('frames beyond the ends are those of the last and the first stretch', async () => {
        const { poses } = scene(manifest('a', ['p0', 'p1']), ['p0', 'p1']);
        await poses.fetchAll(0);
        expect(poses.at(-5)?.from).toBe(0);
        expect(poses.at(5000)?.from).toBe(48);
    });

    it('are all fetched, those that are looked at first', async () => {
        const names = Array.from({ length: 7 }, (_, n) => `p${n}`);
        const { poses, seen } = scene(manifest('a', names), names);
        await poses.fetchAll(3 * 48 + 5);
        expect(seen.asked[0]).toBe('3:p3');
        expect(seen.asked.join(';').match(/p\d/g)?.sort()).toEqual(names);
        expect(names.every((_, n) => poses.at(n * 48) !== null)).toBe(true);
    });

    it('that are gone are told once; the scene is looked at anew', async () => {
        const { poses, seen } = scene(manifest('a', ['gone']), []);
        poses.at(0);
        await settled();
        expect(seen).toMatchObject({ movedOn: 1, arrived: 0 });
    });

    it('that cannot be fetched while the server is away are asked for again later', async () => {
        let away = true;
        const present = manifest('a', ['p0']);
        const poses = new ScenePoses({
            present: () => present,
            arrived: () => undefined,
            movedOn: () => Promise.resolve(),
            fetch: () =>
                away
                    ? Promise.reject(new ApiError(0, 'offline', 'The server cannot be reached.', ''))
                    : Promise.resolve(new Uint8Array([4, 0, 0, 0, 0, 0, 0, 0]).buffer),
        });
        expect(poses.at(0)).toBeNull();
        await settled();
        away = false;
        expect(poses.at(0)).toBeNull();
        await settled();
        expect(poses.at(0)).not.toBeNull();
    });
});
