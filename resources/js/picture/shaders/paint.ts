import { BLOBS } from '../moods';
import { HAZE, GRAIN, LAMPS_AT, SKY } from './parts';

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
    #ifndef BACKDROP
    vec3 q = vRest * mix(vec3(11.), vec3(1.7, 26., 26.), wood);
    vec4 n = grainAt(q);
    vec4 broad = vec4(.5 + .17 * wave(vRest.x * .366 + .32 * wave(vRest.y * .493)), .5 + .15 * wave(vRest.y * .796 + vRest.z * .477), .5, .5 + .16 * wave(vRest.z * .637 + .27 * wave(vRest.x * .302)));
    float near = clamp(1.25 - length(cameraPosition - vW) * .075, 0., 1.);
    albedo *= 1. + (n.a - .5) * mix(.30, .62, wood) * (.35 + .65 * near) + (broad.a - .5) * .55;
    albedo = mix(albedo, albedo * vec3(1.13, .98, .82), smoothstep(.45, .7, broad.r) * .55);
    float worn = smoothstep(.50, .66, vBake.w * .62 + n.a * .30 + broad.g * .22 - .12);
    albedo = mix(albedo, mix(albedo * 1.45 + .03, vec3(.62, .47, .32) * (.7 + .6 * n.a), .32 * (1. - gloss)), worn * .78);
    N = normalize(N + ((n.rgb - .5) * .62 + (broad.gbr - .5) * .42) * mix(.55, .8, wood) * (.25 + .75 * near) * (1. - .6 * gloss));
    #endif
    // Far flats are card: no grain to be seen, and none to shimmer.
    ao = vBake.x;
    #ifndef BACKDROP
    if (vN.y > .5)
        for (int i = 0; i < ${BLOBS}; i++) {
            vec2 e = (vW.xz - blobs[i].xy) / blobs[i].z;
            float b = max(0., 1. - dot(e, e) * .55) * max(0., 1. - abs(vW.y - blobs[i].w) * 6.);
            ao *= 1. - .62 * b * b;
        }
    #endif
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
