// World places of every bone of a GLB at given times, by three.js: GLTFLoader, AnimationMixer and its own matrices.
import fs from 'node:fs';
import * as THREE from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';

globalThis.self = globalThis;
const [file, times] = process.argv.slice(2);
const bytes = fs.readFileSync(file);
const gltf = await new GLTFLoader().parseAsync(bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength), '');
const mixer = new THREE.AnimationMixer(gltf.scene);
const action = mixer.clipAction(gltf.animations[0]);
action.setLoop(THREE.LoopOnce, 1);
action.clampWhenFinished = true;
action.play();
const out = times.split(',').map((t) => {
    action.reset();
    action.play();
    mixer.setTime(Number(t));
    gltf.scene.updateMatrixWorld(true);
    const pose = {};
    gltf.scene.traverse((o) => {
        if (!o.isBone) return;
        const p = new THREE.Vector3();
        const q = new THREE.Quaternion();
        o.matrixWorld.decompose(p, q, new THREE.Vector3());
        pose[o.name] = { position: p.toArray(), rotation: q.toArray() };
    });
    return pose;
});
console.log(JSON.stringify(out));
