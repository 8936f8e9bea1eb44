import type * as v from 'valibot';
import { ApiError, bytes, call, isAway, tell } from '../lib/api';
import type { Rate } from '../lib/time';
import { uuid } from '../lib/uuid';
import { ModelShelf, wholeManifest, type Manifest, type ManifestPart, type Stretch } from '../picture';
import { Assets, EditAnswer, Opened, WithManifest, type AssetRow, type Change, type SceneRow } from './answers';
import { cutsIn, expectedRow, inWords } from './expected';
import { ScenePoses } from './poses';
import type { Command, MixRow, Rows, Selection, Table } from './rows';
import { EVEN } from './speech/heard';

type Open = v.InferOutput<typeof Opened>;

export interface Notice {
    kind: 'error' | 'info';
    message: string;
    remedy: string;
    /** Does what was refused once more, after the other's change. */
    again?: () => unknown;
}

/** What is on its way, each with a name of its own: sent twice, it counts once. */
type Work = { call: string } & ({ commands: Command[] } | { turn: 'undo' | 'redo' } | { render: Record<string, unknown> });

interface Waiting {
    work: Work;
    done: (ok: boolean) => void;
}

export interface Wind {
    towardsDeg: number;
    speed: number;
    gusts: number;
}

/** Milliseconds after an edit at which it is asked whether a voice has read what is new in it. */
const SOON = 60;

/** The wind of a scene in which nobody has set one. */
const STILL_DAY: Wind = { towardsDeg: 270, speed: 3, gusts: 0.4 };

/** A scene in the browser: rows, the settled manifest, and the queue of edits on their way. */
export class SceneStore {
    ready = $state(false);
    lost = $state<ApiError | null>(null);
    name = $state('');
    mood = $state('dusk');
    story = $state('');
    wind = $state.raw<Wind>(STILL_DAY);
    mix = $state.raw<MixRow>(EVEN);
    revision = $state(0);
    production = $state.raw<Open['production']>({ id: 0, name: '', role: 'viewer', scenes: [] });
    rows = $state<Rows>({
        items: [],
        beats: [],
        links: [],
        touch_ups: [],
        contacts: [],
        cameras: [],
        shots: [],
        framings: [],
        lines: [],
        expressions: [],
        sounds: [],
        takes: [],
    });
    assets = $state.raw<AssetRow[]>([]);
    manifest = $state.raw<Manifest | null>(null);
    history = $state.raw<Open['history']>({ undo: null, redo: null });
    here = $state.raw<string[]>([]);
    selection = $state.raw<Selection | null>(null);
    notice = $state.raw<Notice | null>(null);
    /** Lines that wait for a voice, and why some get none; by line. */
    voices = $state.raw<{ waiting: number; problems: Record<string, string> }>({ waiting: 0, problems: {} });
    saving = $state<'saved' | 'saving' | 'waiting'>('saved');
    /** Raised when poses have arrived, so that what reads them looks again. */
    posesVersion = $state(0);
    /** The frame that is looked at: what an edit changes there comes with its answer. */
    inView = 0;

    readonly shelf = new ModelShelf(async (hash) => {
        const b = await bytes(`blobs/${hash}`);
        if (!b) throw new Error(`The file ${hash.slice(0, 8)} is gone.`);
        return b;
    });
    readonly poses: ScenePoses;
    private readonly window = Math.random().toString(36).slice(2, 10);
    /** In words, what waits for the server; empty while it answers. */
    pending = $state.raw<string[]>([]);
    /** Raised when a render that was kept has been asked for. */
    rendersVersion = $state(0);
    /** Cuts that were asked for and are not taken yet: marked on the reel at once, at the frame that was seen. */
    cutting = $state.raw<{ frame: number; camera: number }[]>([]);
    private queue: Waiting[] = [];
    /** Rows as the server last told them, of those that are shown as they are expected to become. */
    private told: Record<string, Record<string, unknown>> = {};
    private sending = false;
    private poll: ReturnType<typeof setTimeout> | null = null;
    private closed = false;

    constructor(readonly id: number) {
        this.poses = new ScenePoses({
            present: () => (this.closed ? null : this.manifest),
            arrived: () => this.posesVersion++,
            movedOn: () => this.catchUp(),
            fetch: (path) => bytes(`scenes/${id}/${path}`, 'high'),
        });
    }

    get rate(): Rate {
        return this.manifest?.rate ?? [24, 1];
    }

    get frames(): number {
        return this.manifest?.frames ?? 1;
    }

    get canEdit(): boolean {
        return this.production.role !== 'viewer';
    }

    async open(): Promise<void> {
        try {
            const kit = this.refreshAssets();
            const o = await call(Opened, 'GET', `scenes/${this.id}`);
            // What the first picture needs is on its way before the page around it is built.
            void this.poses.fetch(o.manifest, 0);
            for (const item of o.manifest.items) this.shelf.ask(item.blob);
            await kit;
            this.takeScene(o.scene);
            this.revision = o.scene.revision;
            this.production = o.production;
            this.rows = o.rows;
            this.manifest = o.manifest;
            this.history = o.history;
            this.ready = true;
            this.watch();
            this.takeUp();
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            this.lost = e;
        }
    }

    close(): void {
        this.closed = true;
        if (this.poll) clearTimeout(this.poll);
    }

    /** Kit assets again, after something was brought in or pictures were drawn. */
    async refreshAssets(): Promise<void> {
        this.assets = (await call(Assets, 'GET', `scenes/${this.id}/assets`)).assets;
    }

    /** Sends edit commands; true when they were taken. */
    edit(...commands: Command[]): Promise<boolean> {
        return this.enqueue({ call: uuid(), commands });
    }

    undo(): Promise<boolean> {
        return this.enqueue({ call: uuid(), turn: 'undo' });
    }

    redo(): Promise<boolean> {
        return this.enqueue({ call: uuid(), turn: 'redo' });
    }

    /** Asks for a render; kept, like an edit, while the server is away. */
    render(wish: Record<string, unknown>): Promise<boolean> {
        return this.enqueue({ call: uuid(), render: wish });
    }

    private enqueue(work: Work): Promise<boolean> {
        if (!this.canEdit) {
            this.notice = {
                kind: 'error',
                message: 'You can watch this production, not change it.',
                remedy: 'Ask its owner to make you an editor.',
            };
            return Promise.resolve(false);
        }
        return new Promise((done) => {
            this.queue.push({ work, done });
            this.kept();
            this.expect();
            void this.flush();
        });
    }

    private async flush(): Promise<void> {
        if (this.sending) return;
        this.sending = true;
        for (let next = this.queue[0]; next; next = this.queue[0]) {
            this.saving = 'saving';
            try {
                await this.post(next.work);
                this.queue.shift();
                this.kept();
                next.done(true);
            } catch (e) {
                if (!(e instanceof ApiError)) throw e;
                if (isAway(e) || e.status === 429) {
                    // Kept, and sent when the server is back.
                    this.saving = 'waiting';
                    this.pending = this.queue.map((w) => this.said(w.work));
                    await new Promise((r) => setTimeout(r, 1200));
                    if (this.closed) break;
                    continue;
                }
                await this.refused(next, e);
            }
        }
        this.pending = [];
        this.saving = this.queue.length > 0 ? 'waiting' : 'saved';
        this.sending = false;
    }

    private async post(work: Work): Promise<void> {
        if ('render' in work) {
            await tell('POST', `scenes/${this.id}/renders`, { ...work.render, call: work.call });
            this.rendersVersion++;
            return;
        }
        const body = {
            base: this.revision,
            call: work.call,
            has: this.manifest?.state,
            frame: this.inView,
            ...('commands' in work ? { commands: work.commands } : {}),
        };
        this.take(await call(EditAnswer, 'POST', `scenes/${this.id}/${'commands' in work ? 'edits' : work.turn}`, body), work);
    }

    private async refused(next: Waiting, e: ApiError): Promise<void> {
        this.queue.shift();
        this.kept();
        this.restore();
        if (e.status === 409) await this.catchUp();
        this.notice = { kind: 'error', message: e.message, remedy: e.remedy };
        const mine = next.work;
        if (e.reason === 'edit.conflict' && 'commands' in mine) {
            this.notice = {
                ...this.notice,
                remedy: `Theirs is shown now; yours was: ${this.said(mine)}.`,
                again: () => this.edit(...mine.commands),
            };
        }
        if (e.status === 401) this.lost = e;
        next.done(false);
    }

    private said(work: Work): string {
        if ('turn' in work) return work.turn;
        if ('render' in work) return 'render';
        return work.commands
            .map((c) => inWords(c, (t, id) => (this.find(t, id) as { name?: string; letter?: string } | null)?.name || null))
            .join(', ');
    }

    /** What waits outlives the page: loaded again, it is sent under the same names. */
    private kept(): void {
        this.cutting = cutsIn(this.queue.flatMap((w) => ('commands' in w.work ? w.work.commands : [])));
        const name = `waiting.${this.id}`;
        try {
            if (this.queue.length === 0) sessionStorage.removeItem(name);
            else sessionStorage.setItem(name, JSON.stringify(this.queue.map((w) => w.work)));
        } catch {
            // No room, or not allowed: then it lives as long as the page.
        }
    }

    private takeUp(): void {
        let left: Work[] = [];
        try {
            left = JSON.parse(sessionStorage.getItem(`waiting.${this.id}`) ?? '[]') as Work[];
        } catch {
            // Not ours.
        }
        if (!Array.isArray(left) || left.length === 0) return;
        this.queue.push(...left.map((work) => ({ work, done: () => undefined })));
        void this.flush();
    }

    /** Shows rows as the edits on their way will make them. */
    private expect(): void {
        for (const { work } of this.queue) {
            for (const c of 'commands' in work ? work.commands : []) {
                const e = expectedRow(this.rows, c);
                if (!e) continue;
                const key = `${e.table} ${e.row.id}`;
                this.told[key] ??= { ...(this.find(e.table, e.row.id) as unknown as Record<string, unknown>) };
                this.mergeRow(e.table, e.row.id, e.row);
            }
        }
    }

    /** Back to what the server told, then again what is still on its way. */
    private restore(): void {
        for (const [key, row] of Object.entries(this.told)) {
            const [table, id] = key.split(' ') as [Table, string];
            if (this.find(table, Number(id))) this.mergeRow(table, Number(id), row);
        }
        this.told = {};
        this.expect();
    }

    /** @param done the work that this answers: it is expected no more */
    private take(a: EditAnswer, done: Work | null = null): void {
        for (const c of a.changes) delete this.told[`${c.table} ${c.id}`];
        this.merge(a.changes);
        const all = this.queue;
        if (done) this.queue = all.filter((w) => w.work !== done);
        this.restore();
        this.queue = all;
        this.revision = Math.max(this.revision, a.revision);
        for (const [name, piece] of Object.entries(a.pieces ?? {})) this.poses.pieces.put(name, decoded(piece));
        if (a.manifest) this.takeManifest(a.manifest);
        if (a.history) this.history = a.history;
        if (this.notice?.kind === 'error') this.notice = null;
        if (this.unread > 0 && this.poll) {
            // A voice is quicker than the next look would be.
            clearTimeout(this.poll);
            this.watch(SOON);
        }
    }

    private takeManifest(part: ManifestPart): void {
        const whole = wholeManifest(part, this.manifest);
        if (whole) this.manifest = whole;
        else void this.askManifest();
    }

    /** The whole of it, when a part of it was told from a state that is not the one here. */
    private async askManifest(): Promise<void> {
        try {
            this.manifest = (await call(WithManifest, 'GET', `scenes/${this.id}/manifest`)).manifest;
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
        }
    }

    private merge(changes: Change[]): void {
        for (const c of changes) {
            if (c.table === 'scenes') {
                if (c.row) this.takeScene(c.row);
            } else if (c.table !== 'productions') {
                this.mergeRow(c.table, c.id, c.row);
            }
        }
        if (this.selection && !this.find(this.selection.table, this.selection.id)) this.selection = null;
    }

    private takeScene(row: SceneRow): void {
        this.name = row.name;
        this.mood = row.mood;
        this.story = row.story ?? '';
        this.wind = { ...STILL_DAY, ...row.wind };
        this.mix = { ...EVEN, ...row.mix };
    }

    private mergeRow(table: Table, id: number, row: Record<string, unknown> | null): void {
        const list = this.rows[table] as unknown as { id: number; sort?: number }[];
        const at = list.findIndex((r) => r.id === id);
        if (row === null) {
            if (at >= 0) list.splice(at, 1);
        } else if (at >= 0) {
            list[at] = row as unknown as { id: number };
        } else {
            list.push(row as unknown as { id: number });
        }
        if (table === 'shots') list.sort((a, b) => (a.sort ?? 0) - (b.sort ?? 0));
    }

    find<T extends Table>(table: T, id: number): Rows[T][number] | null {
        return ((this.rows[table] as { id: number }[]).find((r) => r.id === id) as Rows[T][number] | undefined) ?? null;
    }

    select(table: Table | null, id = 0): void {
        this.selection = table === null ? null : { table, id };
    }

    isSelected(table: Table, id: number): boolean {
        return this.selection?.table === table && this.selection.id === id;
    }

    asset(id: number): AssetRow | null {
        return this.assets.find((a) => a.id === id) ?? null;
    }

    /** The poses around a frame, if they are here; otherwise they are fetched and posesVersion is raised. */
    posesAt(frame: number): Stretch | null {
        return this.poses.at(frame);
    }

    /** @param after milliseconds to the next look */
    private watch(after?: number): void {
        // Who waits for a voice looks more often.
        this.poll = setTimeout(
            async () => {
                if (!this.sending) await this.catchUp();
                if (!this.closed) this.watch();
            },
            after ?? (this.unread > 0 ? 200 : 1500),
        );
    }

    /** Lines that no voice has read yet, and one may. */
    private get unread(): number {
        return (this.manifest?.lines ?? []).filter((l) => l.sound === null && !this.voices.problems[l.id.slice(1)]).length;
    }

    private async catchUp(): Promise<void> {
        const since = this.revision;
        try {
            const a = await call(
                EditAnswer,
                'GET',
                `scenes/${this.id}/changes?since=${since}&window=${this.window}&has=${this.manifest?.state ?? ''}` +
                    (this.unread > 0 || this.voices.waiting > 0 ? '&voices=1' : ''),
            );
            this.here = a.here ?? [];
            if (this.revision !== since) return;
            if (a.voices) this.voices = a.voices;
            if (a.revision > since || a.manifest) this.take(a);
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            if (e.status === 401 || e.status === 404) this.lost = e;
        }
    }
}

function decoded(piece: string): ArrayBuffer {
    const text = atob(piece);
    return Uint8Array.from(text, (c) => c.charCodeAt(0)).buffer;
}
