import type { Mood } from './moods';

/** The scene as the core settled it, and reading of pose blocks. docs/pose-stream.md has the layout. */

export interface LampFact {
    at: [number, number, number];
    power: number;
    halo: number;
    channel: 'A' | 'B';
}

export interface ManifestItem {
    id: string;
    kind: 'performer' | 'set' | 'prop';
    name: string;
    tape: number;
    blob: string;
    joints: string[];
    jointNodes: number[];
    hips: number;
    morphs: string[];
    mounts: string[];
    extras: {
        lamps?: LampFact[];
        water?: number;
        backdrop?: boolean;
        home?: number[];
        mirrorSlabs?: [number, number, number][];
        vehicle?: { rider?: object };
        cloth?: { worn?: string };
    };
    bounds: [[number, number, number], [number, number, number]];
    /** What a cloth is made of, where that was chosen. */
    cloth: { kind: string; grams: number; bend: number; catch: number; damping: number } | null;
}

export interface ManifestShot {
    id: string;
    camera: string;
    in: number;
    out: number;
    label: string;
}

export interface Manifest {
    /** Of a preview: where each item stands. */
    stands?: [number, number, number][];
    frames: number;
    rate: [number, number];
    width: number;
    height: number;
    mood: string;
    /** The mood's light in numbers. */
    look: Mood;
    blockFrames: number;
    blocks: string[];
    beats: Record<string, { start: number; end: number; seconds: number; loops: boolean }>;
    items: ManifestItem[];
    cameras: { id: string; letter: string; name: string; sensorWidthMm: number }[];
    shots: ManifestShot[];
    notes: ManifestNote[];
}

export interface ManifestNote {
    code: string;
    item: string;
    frame: number;
    text: string;
    remedy: string;
    beat: string | null;
}

interface Track {
    item?: string;
    camera?: string;
    kind: 'place' | 'figure' | 'cloth' | 'camera';
    stride: number;
    rows: number;
    offset: number;
    joints?: number;
    morphs?: number;
}

export interface CameraRow {
    position: [number, number, number];
    rotation: [number, number, number, number];
    focalMm: number;
    focusMetres: number;
    fStop: number;
}

/** One block of 48 frames: rows are views into one Float32Array, nothing is copied. */
export class PoseBlock {
    readonly from: number;
    readonly count: number;
    private readonly floats: Float32Array;
    private readonly items = new Map<string, Track>();
    private readonly cameras = new Map<string, Track>();

    constructor(buffer: ArrayBuffer) {
        const view = new DataView(buffer);
        const magic = String.fromCharCode(...new Uint8Array(buffer, 0, 4));
        if (magic !== 'CRPS' || view.getUint32(4, true) !== 1) throw new Error('This is not a pose block of version 1.');
        const length = view.getUint32(8, true);
        const head = JSON.parse(new TextDecoder().decode(new Uint8Array(buffer, 12, length))) as {
            from: number;
            count: number;
            tracks: Track[];
        };
        this.from = head.from;
        this.count = head.count;
        this.floats = new Float32Array(buffer, 12 + length);
        for (const t of head.tracks) {
            if (t.item) this.items.set(t.item, t);
            if (t.camera) this.cameras.set(t.camera, t);
        }
    }

    /** Position 3, rotation 4, scale 3; for figures then hips 3, joints 4 each, shapes; for cloths then 3 a particle. */
    item(id: string, frame: number): Float32Array | null {
        const t = this.items.get(id);
        return t ? this.row(t, frame) : null;
    }

    camera(id: string, frame: number): CameraRow | null {
        const t = this.cameras.get(id);
        if (!t) return null;
        const r = this.row(t, frame);
        const n = (i: number) => r[i] ?? 0;
        return {
            position: [n(0), n(1), n(2)],
            rotation: [n(3), n(4), n(5), n(6)],
            focalMm: n(7),
            focusMetres: n(8),
            fStop: n(9),
        };
    }

    private row(t: Track, frame: number): Float32Array {
        const i = t.rows === 1 ? 0 : Math.max(0, Math.min(t.rows - 1, Math.floor(frame) - this.from));
        return this.floats.subarray(t.offset + i * t.stride, t.offset + (i + 1) * t.stride);
    }
}

/** Fetches blocks by hash and keeps the recent ones. */
export class BlockStore {
    private readonly kept = new Map<string, PoseBlock>();
    private readonly waiting = new Map<string, Promise<PoseBlock | null>>();

    constructor(
        private readonly load: (n: number, hash: string) => Promise<ArrayBuffer | null>,
        private readonly limit = 400,
    ) {}

    has(hash: string): boolean {
        return this.kept.has(hash);
    }

    peek(hash: string): PoseBlock | null {
        return this.kept.get(hash) ?? null;
    }

    /** Null when the scene has moved on and the block with that name is gone. */
    async get(n: number, hash: string): Promise<PoseBlock | null> {
        const kept = this.kept.get(hash);
        if (kept) return kept;
        const waiting = this.waiting.get(hash);
        if (waiting) return waiting;
        const work = this.load(n, hash)
            .then((buffer) => {
                if (!buffer) return null;
                const block = new PoseBlock(buffer);
                this.kept.set(hash, block);
                if (this.kept.size > this.limit) {
                    const oldest = this.kept.keys().next().value;
                    if (oldest !== undefined) this.kept.delete(oldest);
                }
                return block;
            })
            .finally(() => this.waiting.delete(hash));
        this.waiting.set(hash, work);
        return work;
    }
}

/** The shot on air at a scene frame, by the reel's order. */
export function shotAt(manifest: Manifest, frame: number): ManifestShot | null {
    return manifest.shots.find((s) => s.in <= frame && frame < s.out) ?? null;
}
