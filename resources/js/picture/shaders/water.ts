import { HAZE, SKY } from './parts';

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
