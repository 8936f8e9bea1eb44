/** What is asked for at about the same time goes in one call: most of a call's cost is the call. */

interface Asked {
    n: number;
    hash: string;
    done: (b: ArrayBuffer | null) => void;
    failed: (e: unknown) => void;
}

/** Blocks of one call; as many as the server answers at once. */
export const AT_ONCE = 8;

const GATHER_MS = 4;
const GONE = 0xffffffff;

/** Parts of an answer: for each block its length, little endian, then its bytes; 2^32 - 1 for one that is gone. */
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

export class BlockCalls {
    private asked: Asked[] = [];
    private timer: ReturnType<typeof setTimeout> | null = null;

    /** @param fetch a path under scenes/, to bytes */
    constructor(private readonly fetch: (path: string) => Promise<ArrayBuffer | null>) {}

    load(n: number, hash: string): Promise<ArrayBuffer | null> {
        return new Promise((done, failed) => {
            this.asked.push({ n, hash, done, failed });
            if (this.asked.length >= AT_ONCE) this.send();
            else this.timer ??= setTimeout(() => this.send(), GATHER_MS);
        });
    }

    private send(): void {
        if (this.timer) clearTimeout(this.timer);
        this.timer = null;
        const all = this.asked;
        this.asked = [];
        const one = all[0];
        if (all.length === 1 && one) {
            // Alone under its own address, which browsers keep.
            this.fetch(`blocks/${one.n}/${one.hash}`).then(one.done, one.failed);
            return;
        }
        this.fetch(`blocks?of=${all.map((a) => `${a.n}:${a.hash}`).join(',')}`).then(
            (answer) => {
                const parts = answer ? parted(answer) : [];
                all.forEach((a, i) => a.done(parts[i] ?? null));
            },
            (e: unknown) => all.forEach((a) => a.failed(e)),
        );
    }
}
