// Poses of a GLB's skeleton at given times by three.js: AnimationMixer (one clip, or two blended by halves) and world
// matrices. Prints milliseconds a pose and the joint places of the last one.
import fs from 'node:fs';
import * as THREE from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';

globalThis.self = globalThis;
const [file, count, seconds] = process.argv.slice(2);
const bytes = fs.readFileSync(file);
const gltf = await new GLTFLoader().parseAsync(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength), '');
const mixer = new THREE.AnimationMixer(gltf.scene);
for (const clip of gltf.animations) {
    const action = mixer.clipAction(clip);
    action.setEffectiveWeight(1 / gltf.animations.length);
    action.play();
}
const bones = [];
gltf.scene.traverse((o) => o.isBone && bones.push(o));

const n = Number(count);
// The same walk through the clip on both sides: a step that never divides it evenly.
const at = (i) => ((i * 0.7548776662) % 1) * Number(seconds);
const pose = (i) => {
    mixer.setTime(at(i));
    gltf.scene.updateMatrixWorld(true);
};
for (let i = 0; i < n; i++) pose(i);
const begin = performance.now();
for (let i = 0; i < n; i++) pose(i);
const ms = (performance.now() - begin) / n;
const places = Object.fromEntries(bones.map((b) => [b.name, new THREE.Vector3().setFromMatrixPosition(b.matrixWorld).toArray()]));
console.log(JSON.stringify({ ms, places }));
