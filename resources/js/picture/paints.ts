import {
    BackSide,
    Color,
    DoubleSide,
    FrontSide,
    ShaderMaterial,
    UniformsLib,
    UniformsUtils,
    Vector3,
    Vector4,
    type Material,
    type MeshStandardMaterial,
    type Texture,
} from 'three';
import type { StageUniforms } from './moods';
import * as glsl from './shaders';

/** Gloss, grain rate, spread of value, bump: how each painted surface takes the brush. */
const FINISH: Record<string, [number, number, number, number]> = {
    skin: [0.06, 46, 0.05, 0.1],
    cloth: [0, 95, 0.2, 0.36],
    knit: [0, 120, 0.3, 0.55],
    hair: [0, 60, 0.3, 0.45],
    leather: [0.12, 60, 0.28, 0.2],
    metal: [0.8, 30, 0.05, 0.05],
    eye: [0.45, 8, 0, 0],
    gloss: [0.15, 20, 0, 0],
    plain: [0.05, 40, 0.06, 0.12],
};

const PAINTED = ['set', 'backdrop'];

export interface PaintOptions {
    paint: string;
    doubleSided?: boolean;
    tint?: Color;
    map?: Texture | null;
    coloured?: boolean;
    draft?: boolean;
    /** The picture's clear parts are holes. */
    cut?: boolean;
    /** Below 1: glass, so much of it solid. */
    solid?: number;
    /** In place of the paint's own gloss, 0 matt to 1. */
    gloss?: number;
}

/** The one paint shader, in the variant that a surface needs. */
export function makePaint(u: StageUniforms, o: PaintOptions): ShaderMaterial {
    const painted = PAINTED.includes(o.paint);
    const finish = FINISH[o.paint] ?? FINISH.plain!;
    const tint = o.tint ?? new Color(1, 1, 1);
    const defines: Record<string, string> = {};
    if (painted) defines.PAINTED = '';
    if (o.paint === 'backdrop') defines.BACKDROP = '';
    if (o.map) defines.TEXTURED = '';
    if (o.draft) defines.DRAFT = '';
    if (o.cut && o.map) defines.CUT = '';
    const glass = o.solid !== undefined;
    if (glass) defines.GLASS = '';
    return new ShaderMaterial({
        uniforms: {
            ...UniformsUtils.clone(UniformsLib.lights),
            ...u,
            finish: { value: new Vector4(o.gloss ?? finish[0], finish[1], finish[2], finish[3]) },
            ...(glass ? { solid: { value: o.solid } } : {}),
            tint: { value: new Vector3(tint.r, tint.g, tint.b) },
            map: { value: o.map ?? null },
        },
        vertexShader: glsl.PAINT_VERTEX,
        fragmentShader: glsl.PAINT_FRAGMENT,
        lights: true,
        vertexColors: o.coloured ?? true,
        side: o.doubleSided ? DoubleSide : FrontSide,
        defines,
        transparent: glass,
        depthWrite: !glass,
    });
}

/** What came in with a file of someone else's is repainted in our own manner: colour and picture kept. */
export function repaint(u: StageUniforms, from: Material, coloured: boolean, draft: boolean): ShaderMaterial {
    const paint = typeof from.userData.paint === 'string' ? from.userData.paint : null;
    const standard = from as MeshStandardMaterial;
    if (paint) {
        const gloss: unknown = from.userData.gloss;
        return makePaint(u, {
            paint,
            coloured,
            draft,
            doubleSided: from.side === DoubleSide,
            map: standard.map ?? null,
            ...(typeof gloss === 'number' ? { gloss } : {}),
        });
    }
    return makePaint(u, {
        paint: 'plain',
        coloured,
        draft,
        doubleSided: from.side === DoubleSide,
        tint: standard.color ?? new Color(0.7, 0.7, 0.7),
        map: standard.map ?? null,
        cut: standard.alphaTest > 0,
        ...(standard.transparent ? { solid: standard.opacity } : {}),
        gloss: glossOf(standard),
    });
}

/** From roughness: what is rougher than .6 is matt paint to us. */
function glossOf(m: MeshStandardMaterial): number {
    if (typeof m.roughness !== 'number') return 0.05;
    return Math.min(0.9, 0.05 + Math.max(0, 0.6 - m.roughness) * 1.3 + Math.max(0, m.metalness) * 0.15 * (1 - m.roughness));
}

/** Lays depth before paint, so that no pixel is painted twice. Far flats hide nothing, and a surface with holes cut by its picture cannot be laid. */
export function depthPaint(u: StageUniforms, painted: ShaderMaterial): ShaderMaterial | null {
    if ('CUT' in painted.defines || 'GLASS' in painted.defines || 'BACKDROP' in painted.defines) return null;
    return new ShaderMaterial({
        uniforms: { time: u.time },
        vertexShader: glsl.PAINT_VERTEX,
        fragmentShader: 'void main() {}',
        side: painted.side,
        colorWrite: false,
        defines: { DEPTH_ONLY: '' },
    });
}

export function skyPaint(u: StageUniforms): ShaderMaterial {
    return new ShaderMaterial({
        uniforms: u,
        vertexShader: glsl.SKY_VERTEX,
        fragmentShader: glsl.SKY_FRAGMENT,
        side: BackSide,
        depthWrite: false,
    });
}

export function waterPaint(u: StageUniforms): ShaderMaterial {
    return new ShaderMaterial({ uniforms: u, vertexShader: glsl.WATER_VERTEX, fragmentShader: glsl.WATER_FRAGMENT });
}

export function mirrorPaint(u: StageUniforms): ShaderMaterial {
    return new ShaderMaterial({
        uniforms: u,
        vertexShader: glsl.MIRROR_VERTEX,
        fragmentShader: glsl.MIRROR_FRAGMENT,
        vertexColors: true,
        side: DoubleSide,
    });
}

export function groundPaint(u: StageUniforms): ShaderMaterial {
    return new ShaderMaterial({
        uniforms: {
            ...UniformsUtils.clone(UniformsLib.lights),
            ...u,
            tint: { value: new Vector3(1, 1, 1) },
            finish: { value: new Vector4() },
        },
        vertexShader: glsl.PAINT_VERTEX,
        fragmentShader: glsl.GROUND_FRAGMENT,
        lights: true,
    });
}
