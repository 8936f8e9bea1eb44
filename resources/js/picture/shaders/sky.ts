import { SKY } from './parts';

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
    // One whole tile all round, so that it meets itself; where the count of the turn jumps, the other one.
    float turn = atan(d.x, -d.z) * .1591549431, whole = fract(turn);
    turn = fwidth(turn) > .5 ? whole : turn;
    vec2 p = vec2(turn + time * .0006, d.y * .95);
    vec4 n = texture2D(ripples, p + vec2(.1, 0.));
    float m = texture2D(ripples, p * vec2(1., .45) + vec2(.37, .21)).r;
    float band = smoothstep(.015, .10, d.y) * (1. - smoothstep(.30, .62, d.y));
    float density = smoothstep(.58 - .16 * cloudAmount, .70 - .10 * cloudAmount, m * .62 + n.r * .42 + band * .06) * band * cloudAmount;
    float lit = clamp(.45 + (n.b - .5) * 2.6 + (n.g - .5) * 1.4, 0., 1.);
    float side = clamp(dot(d, sunDir) * .5 + .5, 0., 1.);
    vec3 cl = mix(cloud, cloudLit, lit * (.35 + .65 * side * side * side));
    c += disc * k * (1. - density * .8);
    gl_FragColor = vec4(mix(c, cl, density * .85), 1.);
}`;
