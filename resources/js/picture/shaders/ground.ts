import { BLOBS } from '../moods';
import { HAZE, GRAIN } from './parts';

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
