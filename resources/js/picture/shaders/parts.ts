import { LAMPS } from '../moods';
import { GRAIN_CELLS } from '../noise';

/** Aerial haze: cool away from the sun, warm towards it, thicker near the water. rgb is added, a multiplies. */
export const HAZE = /* glsl */ `
uniform vec3 sunDir, hazeCool, hazeWarm;
uniform float hazeDensity, hazeLow;
vec4 hazeAt(vec3 world) {
    vec3 v = world - cameraPosition;
    float d = length(v);
    v /= max(d, 1e-4);
    float f = 1. - exp(-max(0., d - 9.) * hazeDensity);
    float low = exp(-max(0., .5 * (world.y + cameraPosition.y) + .6) * .55);
    f = clamp(f + hazeLow * low * (1. - exp(-d * .09)), 0., 1.);
    float s = clamp(dot(v, sunDir) * .5 + .5, 0., 1.);
    s = s * s * s;
    s *= s;
    return vec4(mix(hazeCool, hazeWarm, s) * f, 1. - f);
}`;

/** Grain at a place counted in its cells. The tile lies askew to all three axes, so that no flat side is streaked. */
export const GRAIN = /* glsl */ `
uniform sampler2D noise;
vec4 grainAt(vec3 q) {
    return texture2D(noise, vec2(.94 * q.x + .57 * q.z, .94 * q.y - .66 * q.z) * (1. / ${GRAIN_CELLS}.));
}`;

/** Light of the lamps at a point with a normal: at each pixel in final, at each vertex in draft. */
export const LAMPS_AT = /* glsl */ `
uniform vec3 lampPlace[${LAMPS}], lampColour[${LAMPS}];
vec3 lampsAt(vec3 world, vec3 N) {
    vec3 sum = vec3(0.);
    for (int i = 0; i < ${LAMPS}; i++) {
        vec3 e = lampPlace[i] - world;
        float d2 = dot(e, e);
        float nl = clamp((dot(N, e) * inversesqrt(d2) + .25) / 1.25, 0., 1.);
        float reach = max(0., 1. - d2 * .02);
        sum += lampColour[i] * nl * reach * reach / (.12 + d2);
    }
    return sum;
}`;

/** Sky colour of a direction. Powers are products: pow() was a fifth of the frame in software. */
export const SKY = /* glsl */ `
uniform vec3 zenith, middle, horizon, sunGlow;
uniform sampler2D ripples;
vec3 skyAt(vec3 d) {
    float h = max(d.y, 0.);
    vec3 c = mix(horizon, middle, 1. - exp(-h * 7.));
    c = mix(c, zenith, smoothstep(.05, .42, h));
    float s = clamp(dot(d, sunDir), 0., 1.);
    float s2 = s * s, s4 = s2 * s2, s8 = s4 * s4, s16 = s8 * s8, s32 = s16 * s16, s64 = s32 * s32, s256 = s64 * s64 * s64 * s64;
    return c + sunGlow * (s4 * s * .22 + s16 * s8 * s4 * .35 + s256 * .6) * (1. - .6 * smoothstep(0., .5, h));
}`;
