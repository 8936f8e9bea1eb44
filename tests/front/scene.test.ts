import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { SceneStore } from '../../resources/js/workspace/scene.svelte';
import { FakeServer } from './server';

let server: FakeServer;
let scene: SceneStore;

async function opened(): Promise<SceneStore> {
    const s = new SceneStore(1);
    await s.open();
    return s;
}

const place = (more: object) => ({ do: 'item.place', item: 7, ...more });
const shown = () => scene.rows.items[0]?.position;

beforeEach(async () => {
    vi.useFakeTimers();
    sessionStorage.clear();
    server = new FakeServer();
    scene = await opened();
});

afterEach(() => {
    scene.close();
    vi.useRealTimers();
    vi.unstubAllGlobals();
});

it('opens with its rows and what it may use of the kit', () => {
    expect(scene.ready).toBe(true);
    expect(scene.find('items', 7)?.name).toBe('Oda');
    expect(scene.asset(4)?.name).toBe('Wave');
    expect(scene.asset(5)).toBeNull();
});

describe('edits on their way', () => {
    it('go one after the other, each on the revision that the one before made', async () => {
        const all = [1, 2, 3].map((x) => scene.edit(place({ x })));
        await vi.advanceTimersByTimeAsync(10);
        expect(await Promise.all(all)).toEqual([true, true, true]);
        expect(server.edits().map((c) => c.body.base)).toEqual([3, 4, 5]);
        expect(scene.revision).toBe(6);
        expect(scene.saving).toBe('saved');
    });

    it('show at once, before any answer', async () => {
        server.delays.push(500);
        void scene.edit(place({ x: 4 }));
        expect(shown()).toEqual([4, 0, 0]);
        expect(scene.saving).toBe('saving');
        await vi.advanceTimersByTimeAsync(600);
        expect(shown()).toEqual([4, 0, 0]);
    });

    it('an answer to an earlier one does not take a later one back, whatever the delays', async () => {
        // A generator with a known period, so that a failure can be run again.
        let n = 20_261_130;
        const chance = () => (n = (n * 48_271) % 2_147_483_647) / 2_147_483_647;
        for (let round = 0; round < 40; round++) {
            const typed = [0, 0, 0].map(() => Math.round(chance() * 100) / 10);
            server.delays.push(...typed.map(() => Math.floor(chance() * 900)));
            const done = (['x', 'y', 'z'] as const).map((k, i) => scene.edit(place({ [k]: typed[i] })));
            for (let t = 0; t < 3000; t += 50) {
                expect(shown(), `round ${round}, after ${t} ms`).toEqual(typed);
                await vi.advanceTimersByTimeAsync(50);
            }
            expect(await Promise.all(done)).toEqual([true, true, true]);
            expect(server.place).toEqual(typed);
        }
    });

    it('a viewer changes nothing and is told whom to ask', async () => {
        server.role = 'viewer';
        scene.close();
        scene = await opened();
        expect(await scene.edit(place({ x: 1 }))).toBe(false);
        expect(server.edits()).toEqual([]);
        expect(scene.notice?.remedy).toContain('owner');
    });

    it('undo stands in the same line as what it undoes', async () => {
        void scene.edit(place({ x: 1 }));
        void scene.undo();
        await vi.advanceTimersByTimeAsync(10);
        expect(server.edits().map((c) => c.path)).toEqual(['/edits', '/undo']);
        expect(scene.history.redo).toBe('Move Oda');
    });
});

describe('a connection that breaks', () => {
    it('an answer that never came: the same call again, and it counts once', async () => {
        server.next.push('lost answer');
        const done = scene.edit(place({ x: 2 }));
        await vi.advanceTimersByTimeAsync(1500);
        expect(await done).toBe(true);
        const calls = server.edits().map((c) => c.body.call);
        expect(calls).toHaveLength(2);
        expect(new Set(calls).size).toBe(1);
        expect(server.journal.size).toBe(1);
    });

    it('what waits is said in words, kept, and sent in its order when the server is back', async () => {
        server.next.push(null, { status: 503, body: { reason: 'database.away', message: 'Away.', remedy: 'Wait.' } });
        void scene.edit(place({ x: 2 }));
        void scene.edit(place({ headingDeg: 90 }));
        void scene.render({ from: 0, to: 24 });
        await vi.advanceTimersByTimeAsync(100);
        expect(scene.saving).toBe('waiting');
        expect(scene.pending).toEqual(['move Oda', 'move Oda', 'render']);
        expect(shown()).toEqual([2, 0, 0]);
        await vi.advanceTimersByTimeAsync(4000);
        expect(scene.pending).toEqual([]);
        expect(server.journal.size).toBe(2);
        expect(server.calls.filter((c) => c.path === '/renders')).toHaveLength(1);
        expect(scene.rendersVersion).toBe(1);
        expect(sessionStorage.length).toBe(0);
    });

    it('the page loaded again sends what waited under the names it had', async () => {
        server.next.push(null);
        void scene.edit(place({ x: 5 }));
        await vi.advanceTimersByTimeAsync(10);
        const first = server.edits()[0]?.body.call;
        scene.close();
        scene = await opened();
        await vi.advanceTimersByTimeAsync(10);
        expect(server.edits().map((c) => c.body.call)).toEqual([first, first]);
        expect(server.place[0]).toBe(5);
    });

    it('what another program left in its place is no edit', async () => {
        sessionStorage.setItem('waiting.1', '{"x":');
        scene.close();
        scene = await opened();
        await vi.advanceTimersByTimeAsync(10);
        expect(server.edits()).toEqual([]);
        expect(scene.ready).toBe(true);
    });

    it('too often: it waits and goes on', async () => {
        server.next.push({ status: 429, body: { reason: 'too-often', message: 'Too often.', remedy: 'Wait.' } });
        const done = scene.edit(place({ x: 3 }));
        await vi.advanceTimersByTimeAsync(1500);
        expect(await done).toBe(true);
    });
});

describe('a refusal', () => {
    const conflict = { status: 409, body: { reason: 'edit.conflict', message: 'Someone else moved Oda.', remedy: 'Look.' } };

    it('a conflict shows theirs, keeps mine in words, and does it again by a click', async () => {
        server.next.push(conflict);
        server.place = [9, 0, 0];
        server.revision = 4;
        const done = scene.edit(place({ x: 2 }));
        await vi.advanceTimersByTimeAsync(20);
        expect(await done).toBe(false);
        expect(shown()).toEqual([9, 0, 0]);
        expect(scene.notice?.message).toContain('Someone else');
        expect(scene.notice?.remedy).toContain('yours was: move Oda');
        void scene.notice?.again?.();
        await vi.advanceTimersByTimeAsync(20);
        expect(server.place).toEqual([2, 0, 0]);
        expect(scene.notice).toBeNull();
    });

    it('bad input goes back to what the server has, and the next one in line is still sent', async () => {
        server.next.push({ status: 422, body: { reason: 'edit.input', message: 'Too large.', remedy: 'Smaller.' } });
        const all = [scene.edit(place({ x: 1e9 })), scene.edit(place({ z: 2 }))];
        expect(shown()).toEqual([1e9, 0, 2]);
        await vi.advanceTimersByTimeAsync(20);
        expect(await Promise.all(all)).toEqual([false, true]);
        expect(shown()).toEqual([0, 0, 2]);
    });

    it('signed out: the page says so and sends nothing more', async () => {
        server.next.push({ status: 401, body: { reason: 'signed-out', message: 'You are signed out.', remedy: 'Sign in.' } });
        expect(await Promise.race([scene.edit(place({ x: 1 })), vi.advanceTimersByTimeAsync(50).then(() => 'late')])).toBe(false);
        expect(scene.lost?.status).toBe(401);
    });
});

describe('what others do', () => {
    it('arrives by itself, and leaves the selection where it was', async () => {
        scene.select('items', 7);
        server.place = [1, 0, 1];
        server.revision = 8;
        await vi.advanceTimersByTimeAsync(1600);
        expect(shown()).toEqual([1, 0, 1]);
        expect(scene.revision).toBe(8);
        expect(scene.isSelected('items', 7)).toBe(true);
    });

    it("is not looked for while one of one's own is on its way", async () => {
        server.delays.push(4000);
        void scene.edit(place({ x: 1 }));
        await vi.advanceTimersByTimeAsync(3500);
        expect(server.calls.filter((c) => c.path.startsWith('/changes'))).toEqual([]);
    });
});
