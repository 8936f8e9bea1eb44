import { ApiError, call, tell } from '../../lib/api';
import { uuid } from '../../lib/uuid';
import type { AssetRow } from '../rows';
import { ArrivalRow, Arrivals, isToMend, type Work } from './answers';
import type { SceneStore } from '../scene.svelte';

export type Room = 'shelves' | 'arrivals' | 'story' | 'credits' | 'figure';

const SENT_AT_ONCE = 12;

/** The kit room: whether it is open, what is looked at, and what is on its way in. */
export class KitStore {
    room = $state<Room | null>(null);
    kind = $state<AssetRow['kind'] | ''>('');
    asset = $state<number | null>(null);
    arrival = $state<number | null>(null);
    arrivals = $state.raw<ArrivalRow[]>([]);
    work = $state.raw<Work[]>([]);
    unused = $state.raw<Record<string, string>>({});
    /** What survives of each kind of file. */
    brings = $state.raw<Record<string, string>>({});
    /** Files still on their way to the server, in words. */
    sending = $state('');
    /** The slip that is being mended with all others. */
    mending = $state('');
    /** What the pointer rests on, and where its tile stands. */
    hover = $state.raw<{ asset: AssetRow; box: DOMRect } | null>(null);
    /** Raised when shelves have changed. */
    version = $state(0);
    private timer: ReturnType<typeof setTimeout> | null = null;
    private resting: ReturnType<typeof setTimeout> | null = null;
    /** Raised with every slip that is taken by itself: a list asked for before that is older than the slip. */
    private taken = 0;
    /** Whether the slip of what comes in next is opened by itself: not once another was chosen by hand. */
    private follows = false;

    constructor(private readonly scene: SceneStore) {}

    get unseen(): number {
        return this.arrivals.filter((a) => !a.seen && (a.status === 'ready' || a.status === 'refused')).length;
    }

    open(room: Room): void {
        this.room = room;
        this.hover = null;
        void this.refresh();
    }

    close(): void {
        this.room = null;
    }

    rest(asset: AssetRow, box: DOMRect): void {
        this.leave();
        if (asset.kind === 'sound') return;
        this.resting = setTimeout(() => (this.hover = { asset, box }), 180);
    }

    leave(): void {
        if (this.resting) clearTimeout(this.resting);
        this.resting = null;
        this.hover = null;
    }

    /** Files of one drop, with the folders they lay in. */
    async bring(files: { path: string; file: File }[]): Promise<void> {
        if (files.length === 0) return;
        this.follows = true;
        const drop = uuid();
        try {
            for (let i = 0; i < files.length; i += SENT_AT_ONCE) {
                const part = files.slice(i, i + SENT_AT_ONCE);
                const megabytes = part.reduce((n, f) => n + f.file.size, 0) / 1048576;
                this.sending = `Sending ${part[0]?.file.name ?? ''}${part.length > 1 ? ` and ${part.length - 1} more` : ''}, ${megabytes.toFixed(1)} MB`;
                const form = new FormData();
                form.append('drop', drop);
                for (const f of part) {
                    form.append('files[]', f.file);
                    form.append('paths[]', f.path);
                }
                if (i + SENT_AT_ONCE >= files.length) form.append('last', '1');
                await tell('POST', `productions/${this.scene.production.id}/drops`, form);
            }
            this.open('arrivals');
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            this.scene.notice = { kind: 'error', message: e.message, remedy: e.remedy };
        } finally {
            this.sending = '';
        }
        await this.refresh(true);
    }

    async refresh(choose = false): Promise<void> {
        if (this.timer) clearTimeout(this.timer);
        const before = this.arrivals.filter((a) => a.status !== 'waiting' && a.status !== 'reading').map((a) => a.id);
        const since = this.taken;
        const got = await call(Arrivals, 'GET', `productions/${this.scene.production.id}/arrivals`);
        if (since !== this.taken) return this.refresh(choose);
        this.arrivals = got.arrivals;
        this.work = got.work;
        this.unused = got.unused;
        this.brings = got.brings;
        const fresh = got.arrivals.filter((a) => !before.includes(a.id) && a.status !== 'waiting' && a.status !== 'reading');
        if (choose && this.follows && fresh.length > 0) this.arrival = fresh[fresh.length - 1]?.id ?? null;
        const busy = got.work.length > 0;
        if (fresh.length > 0) {
            this.version++;
            await this.scene.refreshAssets();
            if (this.room === null && !busy)
                this.scene.notice = { kind: 'info', message: 'New arrivals are in the kit.', remedy: 'Their slips say what was found.' };
        }
        if (busy) this.timer = setTimeout(() => void this.refresh(choose && fresh.length === 0), 700);
        else if (fresh.length > 0) this.timer = setTimeout(() => void this.pictures(6), 4000);
    }

    /** Pictures of new things are drawn in the background; looks for them a few times. */
    private async pictures(times: number): Promise<void> {
        await this.scene.refreshAssets();
        await this.refresh();
        this.version++;
        if (times > 0 && this.arrivals.some((a) => a.assetId !== null && a.picture === null))
            this.timer = setTimeout(() => void this.pictures(times - 1), 4000);
    }

    /** Slips with something that can be mended without asking. */
    get toMend(): ArrivalRow[] {
        return this.arrivals.filter((a) => a.findings.some(isToMend));
    }

    /** Mends what can be mended without asking in all slips, one after the other. */
    async mendAll(): Promise<void> {
        for (const a of this.toMend) {
            this.mending = a.name;
            try {
                this.take(await call(ArrivalRow, 'POST', `arrivals/${a.id}/mend`, { all: true }));
            } catch (e) {
                if (!(e instanceof ApiError)) throw e;
                this.scene.notice = { kind: 'error', message: `${a.name}: ${e.message}`, remedy: e.remedy };
                break;
            }
        }
        this.mending = '';
        this.version++;
        await this.scene.refreshAssets();
    }

    /** Opens a slip by hand. */
    look(arrival: number): void {
        this.arrival = arrival;
        this.follows = false;
    }

    take(row: ArrivalRow): void {
        this.taken++;
        this.arrivals = this.arrivals.map((a) => (a.id === row.id ? row : a));
    }
}

/** All files of a drop, folders opened, each with its path. */
export async function filesOf(data: DataTransfer): Promise<{ path: string; file: File }[]> {
    const entries = [...data.items].map((i) => i.webkitGetAsEntry?.() ?? null);
    if (entries.every((e) => e === null)) return [...data.files].map((file) => ({ path: file.name, file }));
    const out: { path: string; file: File }[] = [];
    for (const e of entries) if (e) await walk(e, '', out);
    return out;
}

async function walk(entry: FileSystemEntry, under: string, out: { path: string; file: File }[]): Promise<void> {
    if (entry.isFile) {
        const file = await new Promise<File>((yes, no) => (entry as FileSystemFileEntry).file(yes, no));
        out.push({ path: under + entry.name, file });
        return;
    }
    const reader = (entry as FileSystemDirectoryEntry).createReader();
    for (;;) {
        const some = await new Promise<FileSystemEntry[]>((yes, no) => reader.readEntries(yes, no));
        if (some.length === 0) return;
        for (const e of some) await walk(e, `${under}${entry.name}/`, out);
    }
}
