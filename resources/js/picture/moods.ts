import { Color, Vector2, Vector3, Vector4, type Texture } from 'three';

/** A mood of light in numbers, as the manifest brings them; most of them are uniforms by name. */
export interface Mood {
    exposure: number;
    halo: number;
    grade: { contrast: number; saturation: number; gain: number[]; lift: number[] };
    [uniform: string]: unknown;
}

export const LAMPS = 4;
export const BLOBS = 8;

const v = (x = 0, y = 0, z = 0) => new Vector3(x, y, z);

/** Uniforms shared by every paint of one stage: a mood is nothing but numbers put in here. */
export function makeUniforms(noise: Texture, ripples: Texture) {
    return {
        noise: { value: noise },
        ripples: { value: ripples },
        time: { value: 0 },
        sunDir: { value: v(0, 1, 0) },
        keyDir: { value: v(0, 1, 0) },
        keyColour: { value: v() },
        rimDir: { value: v(0, 1, 0) },
        rimColour: { value: v() },
        skyAmbient: { value: v() },
        groundAmbient: { value: v() },
        warmAmbient: { value: v() },
        wash: { value: v() },
        wrap: { value: 0.2 },
        lampA: { value: v() },
        lampB: { value: v() },
        glow: { value: 1 },
        lampPlace: { value: Array.from({ length: LAMPS }, () => v(0, -100, 0)) },
        lampColour: { value: Array.from({ length: LAMPS }, () => v()) },
        hazeCool: { value: v() },
        hazeWarm: { value: v() },
        hazeDensity: { value: 0 },
        hazeLow: { value: 0 },
        zenith: { value: v() },
        middle: { value: v() },
        horizon: { value: v() },
        sunGlow: { value: v() },
        disc: { value: v() },
        discRadius: { value: 0.02 },
        cloud: { value: v() },
        cloudLit: { value: v() },
        cloudAmount: { value: 0 },
        waterDeep: { value: v() },
        waterShallow: { value: v() },
        glitter: { value: 1 },
        ground: { value: v() },
        mirror: { value: null as Texture | null },
        mirrorOn: { value: 0 },
        waterLevel: { value: -100 },
        size: { value: new Vector2(1280, 720) },
        blobs: { value: Array.from({ length: BLOBS }, () => new Vector4(0, 0, 1, -100)) },
    };
}

export type StageUniforms = ReturnType<typeof makeUniforms>;

/** Writes a mood's numbers into the uniforms; colours are sRGB hex times a factor. */
export function applyMood(u: StageUniforms, mood: Mood): void {
    const target = u as unknown as Record<string, { value: unknown } | undefined>;
    for (const [key, value] of Object.entries(mood)) {
        const slot = target[key];
        if (!slot) continue;
        if (typeof value === 'number') {
            slot.value = value;
        } else if (Array.isArray(value) && slot.value instanceof Vector3) {
            if (typeof value[0] === 'string') {
                const c = new Color(value[0]);
                const k = Number(value[1]);
                slot.value.set(c.r * k, c.g * k, c.b * k);
            } else {
                slot.value.set(Number(value[0]), Number(value[1]), Number(value[2]));
            }
        }
    }
    for (const key of ['sunDir', 'keyDir', 'rimDir'] as const) u[key].value.normalize();
}
