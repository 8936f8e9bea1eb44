import { BLOBS, LAMPS } from './moods';
import { GRAIN_CELLS } from './noise';

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
const GRAIN = /* glsl */ `
uniform sampler2D noise;
vec4 grainAt(vec3 q) {
    return texture2D(noise, vec2(.94 * q.x + .57 * q.z, .94 * q.y - .66 * q.z) * (1. / ${GRAIN_CELLS}.));
}`;

/** Light of the lamps at a point with a normal: at each pixel in final, at each vertex in draft. */
const LAMPS_AT = /* glsl */ `
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

export const PAINT_VERTEX = /* glsl */ `
#include <common>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <shadowmap_pars_vertex>
${HAZE}
#if defined(DRAFT) && !defined(PAINTED)
varying vec3 vLamps;
${LAMPS_AT}
#endif
#ifdef PAINTED
attribute vec4 _bake, _surf;
attribute vec3 _rest;
varying vec4 vBake;
varying vec3 vSurf;
#endif
#ifdef TEXTURED
varying vec2 vUv2;
#endif
uniform float time;
uniform vec3 tint;
varying vec3 vRest, vN, vW, vC;
varying vec4 vHaze;
// The depth that was laid first and the paint over it must fall on the same numbers.
invariant gl_Position;
void main() {
    #include <beginnormal_vertex>
    #include <morphinstance_vertex>
    #include <morphnormal_vertex>
    #include <skinbase_vertex>
    #include <skinnormal_vertex>
    #include <defaultnormal_vertex>
    #include <begin_vertex>
    #ifndef DEPTH_ONLY
    vRest = position;
    #endif
    #include <morphtarget_vertex>
    #include <skinning_vertex>
    vec4 worldPosition = modelMatrix * vec4(transformed, 1.);
    vec4 mvPosition = viewMatrix * worldPosition;
    gl_Position = projectionMatrix * mvPosition;
    #ifndef DEPTH_ONLY
    #include <shadowmap_vertex>
    vW = worldPosition.xyz;
    vN = mat3(modelMatrix) * objectNormal;
    vHaze = hazeAt(vW);
    #if defined(DRAFT) && !defined(PAINTED)
    vLamps = lampsAt(vW, normalize(vN));
    #endif
    vC = tint;
    #ifdef USE_COLOR_ALPHA
    vC *= color.rgb;
    #elif defined(USE_COLOR)
    vC *= color;
    #endif
    #ifdef PAINTED
    vBake = _bake;
    vSurf = _surf.xyz;
    vRest = _rest;
    #endif
    #ifdef TEXTURED
    vUv2 = uv;
    #endif
    #endif
}`;

export const PAINT_FRAGMENT = /* glsl */ `
#include <common>
#include <packing>
#include <lights_pars_begin>
#include <shadowmap_pars_fragment>
${GRAIN}
uniform vec3 keyDir, keyColour, rimDir, rimColour, skyAmbient, groundAmbient, warmAmbient, lampA, lampB, wash;
uniform vec4 blobs[${BLOBS}];
uniform float glow, wrap;
uniform vec4 finish; // gloss, grain rate, value spread, bump
#ifdef GLASS
uniform float solid;
#endif
uniform vec3 sunDir;
varying vec3 vRest, vN, vW, vC;
varying vec4 vHaze;
#ifdef PAINTED
varying vec4 vBake;
varying vec3 vSurf;
#endif
#ifdef TEXTURED
uniform sampler2D map;
varying vec2 vUv2;
#endif
#if defined(DRAFT) && !defined(PAINTED)
varying vec3 vLamps;
#elif !defined(PAINTED)
${LAMPS_AT}
#endif
${SKY}
// A sine of turns by two parabolas, at most .056 off: five sines were a tenth of a painted pixel in software.
float wave(float turns) {
    float u = fract(turns) * 2. - 1.;
    return 4. * u * (abs(u) - 1.);
}
float shadowAt(float facing) {
    float sh = 1.;
    #if defined(USE_SHADOWMAP) && NUM_DIR_LIGHT_SHADOWS > 0
    if (facing > .001 && receiveShadow) {
        vec3 s = vDirectionalShadowCoord[0].xyz / vDirectionalShadowCoord[0].w;
        s.z += directionalLightShadows[0].shadowBias;
        if (all(lessThan(abs(s.xy - .5), vec2(.495))) && s.z < 1.) {
            #ifdef DRAFT
            sh = texture(directionalShadowMap[0], s);
            #else
            vec2 o = directionalLightShadows[0].shadowRadius / directionalLightShadows[0].shadowMapSize;
            sh = .25 * (texture(directionalShadowMap[0], s + vec3(o * vec2(.38, .92), 0.)) + texture(directionalShadowMap[0], s + vec3(o * vec2(-.92, .38), 0.))
                + texture(directionalShadowMap[0], s + vec3(o * vec2(-.38, -.92), 0.)) + texture(directionalShadowMap[0], s + vec3(o * vec2(.92, -.38), 0.)));
            #endif
        }
    }
    #endif
    return sh;
}
void main() {
    vec3 N = normalize(vN);
    vec3 view = normalize(cameraPosition - vW);
    if (!gl_FrontFacing) N = -N;
    vec3 albedo = vC;
    float ao = 1., gloss = finish.x;
    vec3 lamps = vec3(0.);
    #ifdef TEXTURED
    vec4 texel = texture2D(map, vUv2);
    #ifdef CUT
    if (texel.a < .5) discard;
    #endif
    albedo *= texel.rgb;
    #endif
    #ifdef PAINTED
    gloss = vSurf.x;
    float wood = vSurf.z;
    if (vSurf.y > .3) {
        gl_FragColor = vec4(albedo * glow * vSurf.y * 2. * vHaze.a + vHaze.rgb, 1.);
        return;
    }
    vec3 q = vRest * mix(vec3(11.), vec3(1.7, 26., 26.), wood);
    vec4 n = grainAt(q);
    vec4 broad = vec4(.5 + .17 * wave(vRest.x * .366 + .32 * wave(vRest.y * .493)), .5 + .15 * wave(vRest.y * .796 + vRest.z * .477), .5, .5 + .16 * wave(vRest.z * .637 + .27 * wave(vRest.x * .302)));
    float near = clamp(1.25 - length(cameraPosition - vW) * .075, 0., 1.);
    albedo *= 1. + (n.a - .5) * mix(.30, .62, wood) * (.35 + .65 * near) + (broad.a - .5) * .55;
    albedo = mix(albedo, albedo * vec3(1.13, .98, .82), smoothstep(.45, .7, broad.r) * .55);
    float worn = smoothstep(.50, .66, vBake.w * .62 + n.a * .30 + broad.g * .22 - .12);
    #ifdef BACKDROP
    // Far flats are card: no grain to be seen, and none to shimmer.
    albedo = vC;
    worn = 0.;
    #endif
    albedo = mix(albedo, mix(albedo * 1.45 + .03, vec3(.62, .47, .32) * (.7 + .6 * n.a), .32 * (1. - gloss)), worn * .78);
    N = normalize(N + ((n.rgb - .5) * .62 + (broad.gbr - .5) * .42) * mix(.55, .8, wood) * (.25 + .75 * near) * (1. - .6 * gloss));
    ao = vBake.x;
    if (vN.y > .5)
        for (int i = 0; i < ${BLOBS}; i++) {
            vec2 e = (vW.xz - blobs[i].xy) / blobs[i].z;
            float b = max(0., 1. - dot(e, e) * .55) * max(0., 1. - abs(vW.y - blobs[i].w) * 6.);
            ao *= 1. - .62 * b * b;
        }
    lamps = (lampA * vBake.y + lampB * vBake.z) * 4.;
    #else
    vec4 n = grainAt(vRest * finish.y);
    #ifdef DRAFT
    vec4 broad = vec4(.5);
    #else
    vec4 broad = grainAt(vRest * 9. + 3.2);
    #endif
    float near = 1. - smoothstep(2.5, 9., length(cameraPosition - vW));
    albedo *= 1. + finish.z * ((broad.a - .5) * 1.6 + (n.a - .5) * .8 * near);
    N = normalize(N + (n.rgb - .5) * finish.w * near);
    #endif
    float soft = wrap;
    #ifndef PAINTED
    soft = .32;
    #endif
    float facing = dot(N, keyDir);
    float key = clamp((facing + soft) / (1. + soft), 0., 1.);
    key *= mix(1., key, .25);
    // Flat faces at a grazing key smear the shadow map: fade the shadow in over the first degrees.
    float sh = mix(1., shadowAt(key), smoothstep(.0, .12, dot(normalize(vN), keyDir) + soft * .4));
    vec3 tinted = mix(wash, vec3(1.), ao) * mix(.30, 1., ao);
    vec3 light = keyColour * key * sh * mix(1., ao, .35);
    vec3 ambient = mix(groundAmbient, skyAmbient, N.y * .5 + .5) + warmAmbient * clamp(dot(N, vec3(sunDir.x, .15, sunDir.z)) * .5 + .4, 0., 1.) + rimColour * max(dot(N, rimDir), 0.);
    light += ambient * tinted + lamps * mix(1., ao, .4);
    #ifndef PAINTED
    #ifdef DRAFT
    light += vLamps;
    #else
    light += lampsAt(vW, N);
    #endif
    #endif
    vec3 c = albedo * light;
    #ifdef DRAFT
    if (gloss > .14) {
    #else
    if (gloss > .05) {
    #endif
        vec3 R = reflect(-view, N);
        vec3 around = mix(groundAmbient * .35, skyAt(normalize(vec3(R.x, abs(R.y) + .05, R.z))), smoothstep(-.15, .25, R.y));
        float sp = pow(max(dot(R, keyDir), 0.), mix(8., 42., gloss)) * gloss;
        vec3 tone = mix(vec3(1.), albedo * 1.6, gloss);
        float fr = 1. - max(dot(N, view), 0.);
        fr *= fr;
        fr = .12 + .88 * fr * fr;
        c = mix(c, c * .55, gloss * .5) + tone * (around * mix(fr, .75, gloss) * gloss * tinted * .8 + keyColour * sp * sh * .9 + lamps * gloss * .25);
    }
    #ifndef PAINTED
    float rim = 1. - max(dot(N, view), 0.);
    rim *= rim * rim;
    c += albedo * rim * (skyAmbient * .5 + warmAmbient * .6 + keyColour * .10 * smoothstep(-.5, .6, facing));
    #endif
    #ifdef GLASS
    // Edges of glass are seen, its face hardly.
    float a = mix(solid, min(1., solid + .35), gloss);
    #ifdef TEXTURED
    a *= texel.a;
    #endif
    gl_FragColor = vec4(c * vHaze.a + vHaze.rgb, a);
    #else
    gl_FragColor = vec4(c * vHaze.a + vHaze.rgb, 1.);
    #endif
}`;

export const SKY_VERTEX = /* glsl */ `
varying vec3 vDir;
void main() {
    vDir = position;
    gl_Position = (projectionMatrix * mat4(mat3(viewMatrix)) * vec4(position, 1.)).xyww;
}`;

export const SKY_FRAGMENT = /* glsl */ `
varying vec3 vDir;
uniform vec3 disc, cloud, cloudLit, sunDir;
uniform float discRadius, cloudAmount, time;
${SKY}
void main() {
    vec3 d = normalize(vDir);
    vec3 c = skyAt(d);
    float k = smoothstep(discRadius * 1.12, discRadius * .94, acos(clamp(dot(d, sunDir), -1., 1.)));
    vec2 p = vec2(atan(d.x, -d.z) * .20 + time * .0006, d.y * .95);
    vec4 n = texture2D(ripples, p + vec2(.1, 0.));
    float m = texture2D(ripples, p * .45 + vec2(.37, .21)).r;
    float band = smoothstep(.015, .10, d.y) * (1. - smoothstep(.30, .62, d.y));
    float density = smoothstep(.58 - .16 * cloudAmount, .70 - .10 * cloudAmount, m * .62 + n.r * .42 + band * .06) * band * cloudAmount;
    float lit = clamp(.45 + (n.b - .5) * 2.6 + (n.g - .5) * 1.4, 0., 1.);
    float side = clamp(dot(d, sunDir) * .5 + .5, 0., 1.);
    vec3 cl = mix(cloud, cloudLit, lit * (.35 + .65 * side * side * side));
    c += disc * k * (1. - density * .8);
    gl_FragColor = vec4(mix(c, cl, density * .85), 1.);
}`;

export const WATER_VERTEX = /* glsl */ `
varying vec3 vW;
void main() {
    vec4 w = modelMatrix * vec4(position, 1.);
    vW = w.xyz;
    gl_Position = projectionMatrix * viewMatrix * w;
}`;

export const WATER_FRAGMENT = /* glsl */ `
varying vec3 vW;
uniform vec3 waterDeep, waterShallow, disc;
uniform float glitter, time, mirrorOn;
uniform sampler2D mirror;
uniform vec2 size;
${HAZE}
${SKY}
void main() {
    vec3 e = vW - cameraPosition;
    float d = length(e);
    vec3 v = e / d;
    vec2 p = vW.xz;
    vec3 a = texture2D(ripples, p * vec2(.010, .030) + vec2(time * .004, time * .008), 1.).rgb;
    vec3 b = texture2D(ripples, p * vec2(.030, .085) + vec2(-time * .008, time * .012), 1.2).rgb;
    vec2 g = (a.gb - .5) * .42 + (b.gb - .5) * .42;
    float flatten = 1. / (1. + d * .035);
    vec3 N = normalize(vec3(g.x * .55 * flatten, 1., g.y * .75 * flatten));
    vec3 R = reflect(v, N);
    R.y = abs(R.y) + .01;
    R = normalize(R);
    float q = 1. - max(dot(-v, N), 0.);
    q *= q;
    float fresnel = .04 + .96 * q * q;
    vec3 sky = skyAt(R);
    if (mirrorOn > .5) {
        vec2 s = gl_FragCoord.xy / size;
        s.y = 1. - s.y;
        s += vec2((a.g - .5) * .05, (a.b - .5) * .085 + (b.b - .5) * .02 + .003) * (.25 + flatten);
        vec4 r = texture2D(mirror, s);
        sky = mix(sky, r.rgb, r.a * .92);
    }
    float stroke = a.r * .6 + b.r * .5;
    vec3 c = mix(mix(waterDeep, waterShallow, smoothstep(.42, .72, stroke)), sky, fresnel * .92);
    c += sky * smoothstep(.60, .66, stroke) * (1. - smoothstep(10., 60., d)) * .10;
    float s = max(dot(R, sunDir), 0.);
    s *= s; s *= s; s *= s; s *= s; s *= s; s *= s; s *= s; s *= s;
    c += disc * glitter * s * .55;
    float wide = max(dot(normalize(R * vec3(1., .35, 1.)), normalize(sunDir * vec3(1., .35, 1.))), 0.);
    wide *= wide; wide *= wide; wide *= wide; wide *= wide; wide *= wide; wide *= wide; wide *= wide;
    c += sunGlow * glitter * wide * smoothstep(.50, .62, stroke) * .8;
    vec4 h = hazeAt(vW);
    gl_FragColor = vec4(c * h.a + h.rgb, 1.);
}`;

/** One flat paint for the mirrored picture in the water. */
export const MIRROR_VERTEX = /* glsl */ `
#include <common>
#include <skinning_pars_vertex>
attribute vec4 _surf;
varying vec3 vC, vN, vW;
varying float vGlow;
void main() {
    #include <beginnormal_vertex>
    #include <skinbase_vertex>
    #include <skinnormal_vertex>
    #include <begin_vertex>
    #include <skinning_vertex>
    vec4 w = modelMatrix * vec4(transformed, 1.);
    vW = w.xyz;
    vN = mat3(modelMatrix) * objectNormal;
    vC = vec3(.5);
    #ifdef USE_COLOR_ALPHA
    vC = color.rgb;
    #elif defined(USE_COLOR)
    vC = color;
    #endif
    vGlow = _surf.y;
    gl_Position = projectionMatrix * viewMatrix * w;
}`;

export const MIRROR_FRAGMENT = /* glsl */ `
uniform vec3 keyDir, keyColour, skyAmbient, groundAmbient;
uniform float glow, waterLevel;
varying vec3 vC, vN, vW;
varying float vGlow;
${HAZE}
void main() {
    if (vW.y < waterLevel) discard;
    vec4 h = hazeAt(vW);
    vec3 N = normalize(vN);
    vec3 c = !gl_FrontFacing ? vC * groundAmbient * .25
        : vGlow > .3 ? vC * glow * vGlow * 2.
        : vC * (keyColour * max(0., dot(N, keyDir)) * .7 + mix(groundAmbient, skyAmbient, N.y * .5 + .5) * .8);
    gl_FragColor = vec4(c * h.a + h.rgb, 1.);
}`;

export const GROUND_FRAGMENT = /* glsl */ `
#include <common>
#include <packing>
#include <lights_pars_begin>
#include <shadowmap_pars_fragment>
${GRAIN}
uniform vec3 ground, keyDir, keyColour, skyAmbient, wash;
uniform vec4 blobs[${BLOBS}];
varying vec3 vW;
${HAZE}
void main() {
    vec4 n = grainAt(vW * .9);
    vec4 f = grainAt(vW * 9.);
    float near = 1. - smoothstep(4., 16., length(cameraPosition - vW));
    vec3 albedo = ground * (1. + (n.a - .5) * .16 + (f.a - .5) * .18 * near);
    float ao = 1.;
    for (int i = 0; i < ${BLOBS}; i++) {
        vec2 e = (vW.xz - blobs[i].xy) / blobs[i].z;
        float b = max(0., 1. - dot(e, e) * .55) * max(0., 1. - abs(vW.y - blobs[i].w) * 6.);
        ao *= 1. - .62 * b * b;
    }
    float sh = 1.;
    #if defined(USE_SHADOWMAP) && NUM_DIR_LIGHT_SHADOWS > 0
    vec3 s = vDirectionalShadowCoord[0].xyz / vDirectionalShadowCoord[0].w;
    s.z += directionalLightShadows[0].shadowBias;
    if (all(lessThan(abs(s.xy - .5), vec2(.495))) && s.z < 1.) {
        vec2 o = directionalLightShadows[0].shadowRadius / directionalLightShadows[0].shadowMapSize;
        sh = .25 * (texture(directionalShadowMap[0], s + vec3(o * vec2(.38, .92), 0.)) + texture(directionalShadowMap[0], s + vec3(o * vec2(-.92, .38), 0.))
            + texture(directionalShadowMap[0], s + vec3(o * vec2(-.38, -.92), 0.)) + texture(directionalShadowMap[0], s + vec3(o * vec2(.92, -.38), 0.)));
    }
    #endif
    vec3 c = albedo * (keyColour * max(0., keyDir.y) * sh + skyAmbient * mix(wash, vec3(1.), ao) * ao);
    // Per pixel: the ground's corners lie in full haze.
    vec4 h = hazeAt(vW);
    gl_FragColor = vec4(c * h.a + h.rgb, 1.);
}`;
