import type { Manifest, ManifestTrack } from './stream';

/** What is asked for at about the same time goes in one call: most of a call's cost is the call. */

interface Asked {
    n: number;
    name: string;
    done: (b: ArrayBuffer | null) => void;
    failed: (e: unknown) => void;
}

/** Pieces of one call; as many as the server answers at once. */
export const AT_ONCE = 200;

const GATHER_MS = 4;
const GONE = 0xffffffff;

/** Parts of an answer: for each piece its length, little endian, then its bytes; 2^32 - 1 for one that is gone. */
export function parted(answer: ArrayBuffer): (ArrayBuffer | null)[] {
    const view = new DataView(answer);
    const out: (ArrayBuffer | null)[] = [];
    for (let at = 0; at + 4 <= answer.byteLength;) {
        const length = view.getUint32(at, true);
        at += 4;
        if (length === GONE) {
            out.push(null);
        } else {
            out.push(answer.slice(at, at + length));
            at += length;
        }
    }
    return out;
}

/** The address of some pieces: "n:name,name;n:name". */
function addressed(asked: Asked[]): string {
    const by = new Map<number, string[]>();
    for (const a of asked) by.set(a.n, [...(by.get(a.n) ?? []), a.name]);
    return `pieces?of=${[...by].map(([n, names]) => `${n}:${names.join(',')}`).join(';')}`;
}

export class PieceCalls {
    private asked: Asked[] = [];
    private timer: ReturnType<typeof setTimeout> | null = null;

    /** @param fetch "pieces?of=..." to bytes */
    constructor(private readonly fetch: (path: string) => Promise<ArrayBuffer | null>) {}

    load(n: number, name: string): Promise<ArrayBuffer | null> {
        return new Promise((done, failed) => {
            this.asked.push({ n, name, done, failed });
            if (this.asked.length >= AT_ONCE) this.send();
            else this.timer ??= setTimeout(() => this.send(), GATHER_MS);
        });
    }

    private send(): void {
        if (this.timer) clearTimeout(this.timer);
        this.timer = null;
        // The server answers in the order of the pieces' numbers, as the address gives them.
        const all = this.asked.sort((a, b) => a.n - b.n);
        this.asked = [];
        this.fetch(addressed(all)).then(
            (answer) => {
                const parts = answer ? parted(answer) : [];
                all.forEach((a, i) => a.done(parts[i] ?? null));
            },
            (e: unknown) => all.forEach((a) => a.failed(e)),
        );
    }
}

/** Pieces of tracks by their names; a name never stands for other numbers. */
export class PieceStore {
    private readonly kept = new Map<string, Float32Array>();
    private readonly waiting = new Map<string, Promise<boolean>>();
    private readonly calls: PieceCalls;
    private bytes = 0;

    constructor(
        fetch: (path: string) => Promise<ArrayBuffer | null>,
        private readonly mostBytes = 160e6,
    ) {
        this.calls = new PieceCalls(fetch);
    }

    peek(name: string): Float32Array | null {
        return this.kept.get(name) ?? null;
    }

    put(name: string, piece: ArrayBuffer): void {
        if (this.kept.has(name)) return;
        this.kept.set(name, new Float32Array(piece));
        this.bytes += piece.byteLength;
        for (const [oldest, its] of this.kept) {
            if (this.bytes <= this.mostBytes || oldest === name) break;
            this.kept.delete(oldest);
            this.bytes -= its.byteLength;
        }
    }

    /** False when the scene has moved on and a piece of that name is gone. */
    async get(n: number, names: string[]): Promise<boolean> {
        return (await Promise.all(names.map((name) => this.one(n, name)))).every(Boolean);
    }

    private one(n: number, name: string): Promise<boolean> {
        if (this.kept.has(name)) return Promise.resolve(true);
        let work = this.waiting.get(name);
        if (!work) {
            work = this.calls
                .load(n, name)
                .then((piece) => {
                    if (piece) this.put(name, piece);
                    return piece !== null;
                })
                .finally(() => this.waiting.delete(name));
            this.waiting.set(name, work);
        }
        return work;
    }
}

export interface CameraRow {
    position: [number, number, number];
    rotation: [number, number, number, number];
    focalMm: number;
    focusMetres: number;
    fStop: number;
}

/** Every track of a scene over one stretch of frames: rows are views into pieces, nothing is copied. */
export class Stretch {
    private readonly tracks = new Map<string, { stride: number; rows: Float32Array }>();

    private constructor(
        readonly manifest: Manifest,
        readonly from: number,
    ) {}

    /** Number $n of a scene, or null while pieces of it are not here. */
    static of(manifest: Manifest, n: number, pieces: PieceStore): Stretch | null {
        const made = new Stretch(manifest, n * manifest.pieceFrames);
        for (const { id, track } of [...manifest.items, ...manifest.cameras]) {
            const rows = track.still ? Float32Array.from(track.still) : pieces.peek(track.pieces?.[n] ?? '');
            if (!rows) return null;
            made.tracks.set(id, { stride: track.stride, rows });
        }
        return made;
    }

    /** Names of the pieces that stretch $n is made of. */
    static names(manifest: Manifest, n: number): string[] {
        return [...manifest.items, ...manifest.cameras].flatMap(({ track }) => track.pieces?.[n] ?? []);
    }

    /** Position 3, rotation 4, scale 3; for figures then hips 3, joints 4 each, shapes; for cloths then 3 a particle. */
    item(id: string, frame: number): Float32Array | null {
        return this.row(id, frame);
    }

    camera(id: string, frame: number): CameraRow | null {
        const r = this.row(id, frame);
        if (!r) return null;
        const n = (i: number) => r[i] ?? 0;
        return {
            position: [n(0), n(1), n(2)],
            rotation: [n(3), n(4), n(5), n(6)],
            focalMm: n(7),
            focusMetres: n(8),
            fStop: n(9),
        };
    }

    private row(id: string, frame: number): Float32Array | null {
        const t = this.tracks.get(id);
        return t ? rowOf(t.rows, t.stride, frame - this.from) : null;
    }
}

/** The row of a piece at a frame of it; before its first and after its last it stands. */
export function rowOf(rows: Float32Array, stride: number, frame: number): Float32Array {
    const i = Math.max(0, Math.min(Math.floor(rows.length / stride) - 1, Math.floor(frame)));
    return rows.subarray(i * stride, (i + 1) * stride);
}

/** The row of one track at a frame of the scene, or null while it is not here. */
export function trackRow(track: ManifestTrack, manifest: Manifest, frame: number, pieces: PieceStore): Float32Array | null {
    if (track.still) return Float32Array.from(track.still);
    const n = Math.floor(frame / manifest.pieceFrames);
    const rows = pieces.peek(track.pieces?.[n] ?? '');
    return rows ? rowOf(rows, track.stride, frame - n * manifest.pieceFrames) : null;
}
