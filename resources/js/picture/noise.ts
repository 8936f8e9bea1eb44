import { DataTexture, LinearFilter, LinearMipmapLinearFilter, LinearMipmapNearestFilter, RGBAFormat, RepeatWrapping } from 'three';

/** Seeded stream of numbers in 0..1 (linear congruential, the upper bits). */
function stream(seed: number): () => number {
    let s = seed | 0;
    return () => {
        s = (Math.imul(s, 1664525) + 1013904223) | 0;
        return ((s >>> 8) & 0xffff) / 65535;
    };
}

const fade = (t: number) => t * t * (3 - 2 * t);

function lattice(cells: number, seed: number) {
    const next = stream(seed);
    const values = Float32Array.from({ length: cells ** 2 }, next);
    return (x: number, y: number): number => {
        const axis = (v: number): [number, number, number] => {
            const i = Math.floor(v);
            return [i % cells, (i + 1) % cells, fade(v - i)];
        };
        const [x0, x1, tx] = axis(x);
        const [y0, y1, ty] = axis(y);
        const at = (i: number, j: number) => values[j * cells + i] ?? 0;
        const mix = (a: number, b: number, t: number) => a + (b - a) * t;
        return mix(mix(at(x0, y0), at(x1, y0), tx), mix(at(x0, y1), at(x1, y1), tx), ty);
    };
}

/** Cells of the grain across its tile; the paint shaders count in cells. */
export const GRAIN_CELLS = 64;

/**
 * A tile of grain: three smooth noises for bumps, a fourth for value. It is laid over solids askew (see the shaders): a
 * solid noise of three dimensions looked the same and took a tenth of the frame in software.
 */
export function grainTexture(n = 256, cells = GRAIN_CELLS): DataTexture {
    const data = new Uint8Array(n ** 2 * 4);
    const k = cells / n;
    for (let channel = 0; channel < 4; channel++) {
        const coarse = lattice(cells, channel * 77 + 5);
        const fine = lattice(cells * 2, channel * 91 + 9);
        for (let y = 0, o = channel; y < n; y++)
            for (let x = 0; x < n; x++, o += 4) data[o] = 255 * (0.68 * coarse(x * k, y * k) + 0.32 * fine(x * k * 2, y * k * 2));
    }
    const t = new DataTexture(data, n, n);
    t.format = RGBAFormat;
    t.minFilter = LinearMipmapNearestFilter;
    t.magFilter = LinearFilter;
    t.wrapS = t.wrapT = RepeatWrapping;
    t.generateMipmaps = true;
    t.needsUpdate = true;
    return t;
}

/** Tiling 2D noise with its slope in green and blue, for water and clouds. */
export function rippleTexture(n = 256, cells = 16): DataTexture {
    const height = new Float32Array(n * n);
    const next = stream(3);
    let total = 0;
    for (let c = cells, amount = 1; c <= cells * 8; c *= 2, amount *= 0.5) {
        const lattice = Float32Array.from({ length: c * c }, next);
        for (let y = 0; y < n; y++)
            for (let x = 0; x < n; x++) {
                const gx = (x / n) * c;
                const gy = (y / n) * c;
                const i = Math.floor(gx);
                const j = Math.floor(gy);
                const tx = fade(gx - i);
                const ty = fade(gy - j);
                const at = (a: number, b: number) => lattice[(b % c) * c + (a % c)] ?? 0;
                const top = at(i, j) + (at(i + 1, j) - at(i, j)) * tx;
                const low = at(i, j + 1) + (at(i + 1, j + 1) - at(i, j + 1)) * tx;
                height[y * n + x] = (height[y * n + x] ?? 0) + amount * (top + (low - top) * ty);
            }
        total += amount;
    }
    const data = new Uint8Array(n * n * 4);
    const h = (x: number, y: number) => (height[((y + n) % n) * n + ((x + n) % n)] ?? 0) / total;
    const slope = (d: number) => 127.5 + 127 * Math.max(-1, Math.min(1, d * 6));
    for (let y = 0; y < n; y++)
        for (let x = 0; x < n; x++) {
            const o = (y * n + x) * 4;
            data[o] = 255 * h(x, y);
            data[o + 1] = slope(h(x + 1, y) - h(x - 1, y));
            data[o + 2] = slope(h(x, y + 1) - h(x, y - 1));
            data[o + 3] = 255;
        }
    const t = new DataTexture(data, n, n);
    t.wrapS = t.wrapT = RepeatWrapping;
    t.minFilter = LinearMipmapLinearFilter;
    t.magFilter = LinearFilter;
    t.generateMipmaps = true;
    t.needsUpdate = true;
    return t;
}
