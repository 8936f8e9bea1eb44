import { vi } from 'vitest';

/** A scene on a server made up for tests: one row of each kind that is edited, and a journal by the names of calls. */

interface Call {
    method: string;
    path: string;
    body: Record<string, unknown>;
}

const ASSET = {
    id: 4,
    kind: 'motion',
    name: 'Wave',
    slug: 'wave',
    tags: [],
    credit: '',
    licence: '',
    house: true,
    colour: null,
    folder: null,
    archived: false,
    source: null,
    version: 1,
    blob: 'b',
    picture: null,
    facts: {},
};

export class FakeServer {
    revision = 3;
    role = 'owner';
    x = 0;
    /** Places by row, as the server has them. */
    place = [0, 0, 0];
    heading = 0;
    readonly calls: Call[] = [];
    /** Names of calls that were counted, with the revision they made. */
    readonly journal = new Map<string, number>();
    /** Answers to come in place of the usual: a status with a body, or null for a connection that breaks before it arrives. */
    readonly next: ({ status: number; body: object } | null | 'lost answer')[] = [];
    /** Milliseconds until the next answers arrive, one after the other; then at once. */
    readonly delays: number[] = [];

    constructor() {
        vi.stubGlobal('fetch', (url: string, init?: RequestInit) => this.answer(url, init));
    }

    edits(): Call[] {
        return this.calls.filter((c) => /\/(edits|undo|redo)$/.test(c.path));
    }

    row(): Record<string, unknown> {
        return {
            id: 7,
            name: 'Oda',
            kind: 'performer',
            assetId: 3,
            position: [...this.place],
            headingDeg: this.heading,
            scale: 1,
            tape: 0,
            moves: [],
            route: null,
            surfaces: {},
            cloth: null,
            locked: false,
            fullness: 1,
            life: 'calm',
            meets: true,
            voice: '',
            resting: 'none',
            restingAmount: 0.5,
            underfoot: 'auto',
            pinned: null,
        };
    }

    private async answer(url: string, init?: RequestInit): Promise<Response> {
        const path = url.replace('/api/scenes/1', '');
        const body = typeof init?.body === 'string' ? (JSON.parse(init.body) as Record<string, unknown>) : {};
        const method = init?.method ?? 'GET';
        this.calls.push({ method, path, body });
        const wait = method === 'POST' ? this.delays.shift() : undefined;
        const special = method === 'POST' ? this.next.shift() : undefined;
        if (special === null) throw new TypeError('connection refused');
        const usual = special && special !== 'lost answer' ? special : { status: 200, body: this.usual(path, body) };
        if (wait !== undefined) await new Promise((r) => setTimeout(r, wait));
        // It was done, and the answer never came.
        if (special === 'lost answer') throw new TypeError('connection reset');
        return new Response(JSON.stringify(usual.body), { status: usual.status });
    }

    private usual(path: string, body: Record<string, unknown>): object {
        if (path === '') return this.opened();
        if (path === '/assets') return { assets: [ASSET] };
        if (path === '/edits') return this.taken(body);
        if (path.startsWith('/changes'))
            return { revision: this.revision, changes: [{ table: 'items', id: 7, row: this.row() }], manifest: null };
        if (path === '/renders') return { render: { id: 'r', call: body.call } };
        return { revision: ++this.revision, changes: [], manifest: null, history: { undo: null, redo: 'Move Oda' } };
    }

    private taken(body: Record<string, unknown>): object {
        const call = String(body.call);
        if (!this.journal.has(call)) {
            this.journal.set(call, ++this.revision);
            for (const c of body.commands as Record<string, unknown>[]) {
                (['x', 'y', 'z'] as const).forEach((k, n) => {
                    if (typeof c[k] === 'number') this.place[n] = c[k];
                });
                if (typeof c.headingDeg === 'number') this.heading = c.headingDeg;
            }
        }
        return {
            revision: this.journal.get(call),
            changes: [{ table: 'items', id: 7, row: this.row() }],
            manifest: null,
            history: { undo: 'Move Oda', redo: null },
        };
    }

    private opened(): object {
        const rows = {
            items: [this.row()],
            beats: [],
            links: [],
            touch_ups: [],
            contacts: [],
            framings: [],
            cameras: [],
            shots: [],
            lines: [],
            expressions: [],
            sounds: [],
            takes: [],
        };
        return {
            scene: { id: 1, name: 'Pier', mood: 'dusk', story: null, wind: null, mix: null, revision: this.revision },
            production: { id: 1, name: 'Tide', role: this.role, scenes: [] },
            rows,
            manifest: {
                frames: 96,
                rate: [24, 1],
                state: 'first',
                pieceFrames: 48,
                pieces: 2,
                shots: [],
                items: [],
                cameras: [],
                beats: {},
                notes: [],
            },
            history: { undo: null, redo: null },
        };
    }
}
