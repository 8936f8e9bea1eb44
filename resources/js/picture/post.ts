import {
    DepthTexture,
    HalfFloatType,
    Mesh,
    OrthographicCamera,
    PlaneGeometry,
    Scene,
    ShaderMaterial,
    UnsignedIntType,
    Vector2,
    Vector3,
    Vector4,
    WebGLRenderTarget,
    type PerspectiveCamera,
    type WebGLRenderer,
} from 'three';
import type { Mood } from './moods';

const VERTEX = 'varying vec2 vUv_; void main() { vUv_ = uv; gl_Position = vec4(position.xy, 0., 1.); }';

const DEPTH = /* glsl */ `
uniform vec2 nearFar;
float metres(float z) { return nearFar.x * nearFar.y / (nearFar.y - z * (nearFar.y - nearFar.x)); }
uniform vec4 lens; // focus distance m, aperture diameter * focal / (sensor width) scale, largest blur in px, picture width px
float blurPx(float d) { return min(lens.z, lens.y * abs(d - lens.x) / max(d, .05) * lens.w); }`;

/**
 * AgX base curve (polynomial fit by Benjamin Wrensch, 2023) with the Rec. 2020 matrices three.js uses, then sRGB. Logarithm
 * and powers are short fits, because in software the exact ones were a tenth of the frame: log2 from the exponent's bits and
 * a cubic of the mantissa (at most .0013 stops off), x^2.2 a quartic (.0004 off), sRGB from square roots (.001 off).
 */
const TONE = /* glsl */ `
uniform float exposure;
vec3 stops(vec3 x) {
    ivec3 bits = floatBitsToInt(x);
    vec3 m = intBitsToFloat((bits & 0x7fffff) | 0x3f800000) - 1.;
    return vec3((bits >> 23) - 127) + m * (1.4234755 + m * (-.5876945 + m * .1655245)) - .0013 * m;
}
vec3 agx(vec3 c) {
    c *= exposure;
    const mat3 inset = mat3(.856627153315983, .137318972929847, .11189821299995, .0951212405381588, .761241990602591, .0767994186031903, .0482516061458583, .101439036467562, .811302368396859);
    const mat3 outset = mat3(1.1271005818144368, -.1413297634984383, -.14132976349843826, -.11060664309660323, 1.157823702216272, -.11060664309660294, -.016493938717834573, -.016493938717834257, 1.2519364065950405);
    const mat3 toWide = mat3(.6274, .0691, .0164, .3293, .9195, .0880, .0433, .0113, .8956);
    const mat3 fromWide = mat3(1.6605, -.1246, -.0182, -.5876, 1.1329, -.1006, -.0728, -.0083, 1.1187);
    c = inset * (toWide * c);
    c = clamp((stops(max(c, 1e-10)) + 12.47393) / 16.5, 0., 1.);
    vec3 x2 = c * c, x4 = x2 * x2;
    c = 15.5 * x4 * x2 - 40.14 * x4 * c + 31.96 * x4 - 6.868 * x2 * c + .4298 * x2 + .1191 * c - .00232;
    c = max(vec3(0.), outset * c);
    c *= -.0177295 + c * (.744454 + c * (.3721342 - c * .099211));
    return clamp(fromWide * c, 0., 1.);
}
vec3 srgb(vec3 c) {
    vec3 a = sqrt(c), b = sqrt(a), d = sqrt(b);
    return mix(.662002687 * a + .68412206 * b - .323583601 * d - .022541147 * c, c * 12.92, vec3(lessThanEqual(c, vec3(.0031308))));
}`;

const GATHER = /* glsl */ `
varying vec2 vUv_;
uniform sampler2D colour, depth;
uniform vec2 px;
${DEPTH}
void main() {
    vec2 e = 1.2 * px;
    vec3 c = .25 * (min(texture2D(colour, vUv_ + e).rgb, vec3(6.)) + min(texture2D(colour, vUv_ - e).rgb, vec3(6.))
        + min(texture2D(colour, vUv_ + vec2(e.x, -e.y)).rgb, vec3(6.)) + min(texture2D(colour, vUv_ + vec2(-e.x, e.y)).rgb, vec3(6.)));
    gl_FragColor = vec4(c, blurPx(metres(texture2D(depth, vUv_).r)) / lens.z);
}`;

const BLUR = /* glsl */ `
varying vec2 vUv_;
uniform sampler2D colour;
uniform vec2 reach;
void main() {
    vec4 c = texture2D(colour, vUv_);
    vec3 sum = c.rgb * (c.a + .05);
    float w = c.a + .05, most = c.a;
    for (int i = 0; i < 12; i++) {
        float f = (float(i) + .6) / 12., a = float(i) * 2.399963;
        vec4 q = texture2D(colour, vUv_ + vec2(cos(a), sin(a)) * sqrt(f) * reach * (.35 + .65 * c.a));
        float k = q.a + .03;
        sum += q.rgb * k;
        w += k;
        most += q.a;
    }
    gl_FragColor = vec4(sum / w, max(c.a, most / 13. * .8));
}`;

const COMPOSITE = /* glsl */ `
varying vec2 vUv_;
uniform sampler2D colour, blurred, depth;
uniform vec3 lift, gain;
uniform float saturation, contrast, vignette;
uniform vec2 limits; // metres between which all is sharp
${DEPTH}
${TONE}
void main() {
    vec3 c = texelFetch(colour, ivec2(gl_FragCoord.xy), 0).rgb;
    #ifdef FOCUS
    vec4 b = texture2D(blurred, vUv_);
    float d = metres(texelFetch(depth, ivec2(gl_FragCoord.xy), 0).r);
    float k = blurPx(d) / lens.z;
    k = max(k, d > lens.x ? 0. : b.a * .6);
    c = mix(c, b.rgb, smoothstep(.03, .45, k));
    #endif
    vec2 p = vUv_ - .5;
    c *= 1. - vignette * smoothstep(.25, .95, dot(p, p) * 2.2);
    c = mix(vec3(dot(c, vec3(.3, .6, .1))), c, saturation) * gain + lift;
    c = srgb(agx(max(c, 0.)));
    c = mix(c, c * c * (3. - 2. * c), contrast);
    #ifdef TINT
    float away = metres(texelFetch(depth, ivec2(gl_FragCoord.xy), 0).r);
    vec3 hue = away < limits.x ? vec3(.95, .45, .1) : vec3(.1, .35, .85);
    c = mix(c, hue, away < limits.x || away > limits.y ? .42 : 0.);
    #endif
    #ifdef SMOOTHED
    gl_FragColor = vec4(c, dot(c, vec3(.3, .6, .1)));
    #else
    gl_FragColor = vec4(c, 1.);
    #endif
}`;

/** Edge smoothing along the local contrast direction (after Lottes 2009). */
const SMOOTH = /* glsl */ `
varying vec2 vUv_;
uniform sampler2D colour;
uniform vec2 px;
// Whole neighbours are fetched, not filtered: in software a filtered read costs four. Their brightness is their alpha.
float luma(ivec2 at) { return texelFetch(colour, at, 0).a; }
void main() {
    ivec2 at = ivec2(gl_FragCoord.xy), from = max(at - 1, 0), to = min(at + 1, ivec2(1. / px + .5) - 1);
    vec4 here = texelFetch(colour, at, 0);
    vec3 m = here.rgb;
    float a = luma(from), b = luma(ivec2(to.x, from.y)), c = luma(ivec2(from.x, to.y)), d = luma(to), e = here.a;
    float low = min(e, min(min(a, b), min(c, d))), high = max(e, max(max(a, b), max(c, d)));
    if (high - low < .03) { gl_FragColor = vec4(m, 1.); return; }
    vec2 g = vec2(-((a + b) - (c + d)), (a + c) - (b + d));
    g = clamp(g / (min(abs(g.x), abs(g.y)) + max((a + b + c + d) * .03, .008)), -8., 8.) * px;
    vec3 near = .5 * (texture2D(colour, vUv_ - g * .1667).rgb + texture2D(colour, vUv_ + g * .1667).rgb);
    vec3 far = near * .5 + .25 * (texture2D(colour, vUv_ - g * .5).rgb + texture2D(colour, vUv_ + g * .5).rgb);
    float l = dot(far, vec3(.3, .6, .1));
    gl_FragColor = vec4(l < low || l > high ? near : far, 1.);
}`;

export interface LensBlur {
    focusMetres: number;
    focalMm: number;
    fStop: number;
    sensorWidthMm: number;
}

/**
 * Radius of the blur of a thing at infinity, as a share of the picture's width. Thin lens: the blur on the sensor is
 * A f |d - s| / (d (s - f)) across, with A = f / N.
 */
export function blurAtInfinity(lens: LensBlur): number {
    const f = lens.focalMm / 1000;
    return (0.5 * f * f) / lens.fStop / Math.max(0.02, lens.focusMetres - f) / (lens.sensorWidthMm / 1000);
}

/**
 * Scene to half-float, then focus blur at a third of the size, one composite (vignette, grade, tone) and edge smoothing.
 * Draft leaves out blur and smoothing; the tones stay the same.
 */
export class Post {
    private readonly quad = new Mesh(new PlaneGeometry(2, 2));
    private readonly scene = new Scene();
    private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
    private readonly uniforms = {
        colour: { value: null as unknown },
        blurred: { value: null as unknown },
        depth: { value: null as unknown },
        px: { value: new Vector2() },
        reach: { value: new Vector2() },
        nearFar: { value: new Vector2(0.1, 400) },
        lens: { value: new Vector4(4, 0, 10, 1280) },
        limits: { value: new Vector2() },
        lift: { value: new Vector3() },
        gain: { value: new Vector3(1, 1, 1) },
        saturation: { value: 1 },
        contrast: { value: 0 },
        vignette: { value: 0.3 },
        exposure: { value: 1 },
    };
    private readonly gather = this.material(GATHER);
    private readonly blur = this.material(BLUR);
    private readonly composites = new Map<string, ShaderMaterial>();
    private readonly smooth = this.material(SMOOTH);
    private targets: { colour: WebGLRenderTarget; a: WebGLRenderTarget; b: WebGLRenderTarget; out: WebGLRenderTarget } | null = null;
    private width = 0;
    private height = 0;

    constructor() {
        this.quad.frustumCulled = false;
        this.scene.add(this.quad);
    }

    private material(fragmentShader: string, defines: Record<string, string> = {}): ShaderMaterial {
        return new ShaderMaterial({
            vertexShader: VERTEX,
            fragmentShader,
            uniforms: this.uniforms,
            defines,
            depthTest: false,
            depthWrite: false,
        });
    }

    private composite(...defines: string[]): ShaderMaterial {
        const key = defines.join();
        const made = this.composites.get(key) ?? this.material(COMPOSITE, Object.fromEntries(defines.map((d) => [d, ''])));
        this.composites.set(key, made);
        return made;
    }

    /** The half-float target that the scene is drawn into. */
    begin(width: number, height: number): WebGLRenderTarget {
        if (!this.targets || width !== this.width || height !== this.height) {
            this.dispose();
            const colour = new WebGLRenderTarget(width, height, { type: HalfFloatType, depthBuffer: true });
            colour.depthTexture = new DepthTexture(width, height);
            colour.depthTexture.type = UnsignedIntType;
            const third = () =>
                new WebGLRenderTarget(Math.ceil(width / 3), Math.ceil(height / 3), { type: HalfFloatType, depthBuffer: false });
            this.targets = { colour, a: third(), b: third(), out: new WebGLRenderTarget(width, height, { depthBuffer: false }) };
            this.width = width;
            this.height = height;
        }
        return this.targets.colour;
    }

    /**
     * From what was drawn into begin() to the picture: on the canvas, or on a target of its own.
     * @param limits metres between which all is sharp: the rest is tinted, before them warm and behind them cold
     */
    finish(
        renderer: WebGLRenderer,
        mood: Mood,
        camera: PerspectiveCamera,
        lens: LensBlur | null,
        smoothEdges: boolean,
        on: WebGLRenderTarget | null = null,
        limits: [number, number] | null = null,
    ): void {
        const t = this.targets;
        if (!t) return;
        const u = this.uniforms;
        u.exposure.value = mood.exposure;
        u.lift.value.fromArray(mood.grade.lift);
        u.gain.value.fromArray(mood.grade.gain);
        u.saturation.value = mood.grade.saturation;
        u.contrast.value = mood.grade.contrast;
        u.nearFar.value.set(camera.near, camera.far);
        u.px.value.set(1 / this.width, 1 / this.height);
        u.depth.value = t.colour.depthTexture;
        if (lens) {
            const most = (10 * this.width) / 1280;
            u.lens.value.set(lens.focusMetres, blurAtInfinity(lens), most, this.width);
            u.reach.value.set(most / this.width, most / this.height);
            u.colour.value = t.colour.texture;
            this.pass(renderer, this.gather, t.b);
            u.colour.value = t.b.texture;
            this.pass(renderer, this.blur, t.a);
        }
        u.colour.value = t.colour.texture;
        u.blurred.value = t.a.texture;
        if (limits) u.limits.value.set(limits[0], Math.min(limits[1], 1e6));
        const paint = this.composite(...(lens ? ['FOCUS'] : []), ...(smoothEdges ? ['SMOOTHED'] : []), ...(limits ? ['TINT'] : []));
        this.pass(renderer, paint, smoothEdges ? t.out : on);
        if (smoothEdges) {
            u.colour.value = t.out.texture;
            this.pass(renderer, this.smooth, on);
        }
    }

    private pass(renderer: WebGLRenderer, material: ShaderMaterial, target: WebGLRenderTarget | null): void {
        this.quad.material = material;
        renderer.setRenderTarget(target);
        renderer.render(this.scene, this.camera);
    }

    dispose(): void {
        if (!this.targets) return;
        this.targets.colour.depthTexture?.dispose();
        for (const t of Object.values(this.targets)) t.dispose();
        this.targets = null;
    }
}
