import { ApiError } from '../lib/api';
import { PieceStore, Stretch, type Manifest } from '../picture';

interface Scene {
    /** The manifest at present. */
    present: () => Manifest | null;
    /** Poses have arrived. */
    arrived: () => void;
    /** Pieces of the present manifest are gone: the scene has moved on. */
    movedOn: () => Promise<void>;
    fetch: (path: string) => Promise<ArrayBuffer | null>;
}

/** The poses of a scene in the browser: stretches of the present manifest, put together from pieces as they come. */
export class ScenePoses {
    readonly pieces: PieceStore;
    private made: { of: Manifest | null; stretches: (Stretch | undefined)[] } = { of: null, stretches: [] };

    constructor(private readonly scene: Scene) {
        this.pieces = new PieceStore(scene.fetch);
    }

    /** The poses around a frame, if they are here; otherwise they are fetched. */
    at(frame: number): Stretch | null {
        const m = this.scene.present();
        if (!m) return null;
        const n = Math.min(m.pieces - 1, Math.max(0, Math.floor(frame / m.pieceFrames)));
        if (this.made.of !== m) this.made = { of: m, stretches: [] };
        const made = this.made.stretches[n] ?? Stretch.of(m, n, this.pieces);
        if (made) this.made.stretches[n] = made;
        else void this.fetch(m, n);
        return made;
    }

    async fetch(m: Manifest, n: number): Promise<void> {
        const missing = Stretch.names(m, n).filter((name) => !this.pieces.peek(name));
        if (missing.length === 0) return;
        try {
            if (await this.pieces.get(n, missing)) this.scene.arrived();
            else if (this.scene.present() === m) {
                await this.scene.movedOn();
                // Told again under the same names: not asked for at once.
                if (this.scene.present() === m) await new Promise((r) => setTimeout(r, 1000));
            }
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
        }
    }

    /** All poses, the ones from a frame on first, so that playing never waits. */
    async fetchAll(from: number): Promise<void> {
        const m = this.scene.present();
        if (!m) return;
        const first = Math.floor(from / m.pieceFrames);
        for (let k = 0, together = 1; k < m.pieces; k += together, together = 4) {
            if (this.scene.present() !== m) return;
            // The first alone, since it is what is looked at; then several at once.
            const some = Array.from({ length: Math.min(together, m.pieces - k) }, (_, i) => (first + k + i) % m.pieces);
            await Promise.all(some.map((n) => this.fetch(m, n)));
        }
    }
}
