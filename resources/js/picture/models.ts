import { CELLS, makeLevels, partSurface } from './detail';
import { thinningReady } from './thinning';
import { Group, SkinnedMesh, type Bone, type Material, type Mesh, type Object3D } from 'three';
import { GLTFLoader, type GLTF } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { clone } from 'three/examples/jsm/utils/SkeletonUtils.js';

/** Reads GLB files once each and hands out copies. Node numbers are kept, so that joints are found by number, not name. */
export class ModelShelf {
    private readonly loader = new GLTFLoader();
    private readonly shelf = new Map<string, Promise<Group>>();

    private readonly thinning = new Set<Promise<void>>();

    constructor(private readonly fetchBlob: (hash: string) => Promise<ArrayBuffer>) {}

    async take(hash: string): Promise<Group> {
        return clone(await this.stored(hash)) as Group;
    }

    /** Has a file on its way before it is needed. */
    ask(hash: string): void {
        // A failure is told to whoever takes it.
        void this.stored(hash).catch(() => undefined);
    }

    private stored(hash: string): Promise<Group> {
        let stored = this.shelf.get(hash);
        if (!stored) {
            stored = this.fetchBlob(hash)
                .then((bytes) => this.loader.parseAsync(bytes, ''))
                .then(numbered)
                .then((model) => this.thinned(model));
            this.shelf.set(hash, stored);
            stored.catch(() => this.shelf.delete(hash));
        }
        return stored;
    }

    /** Resolves when every surface has its levels of detail: what is rendered must not depend on when they came. */
    async settled(): Promise<void> {
        await Promise.all(this.thinning);
    }

    /** Large surfaces in parts, each with its levels of detail, which are made while the whole surface is drawn. */
    private async thinned(model: Group): Promise<Group> {
        await thinningReady;
        if (model.userData.whole === true) return model;
        const meshes: Mesh[] = [];
        model.traverse((o) => {
            if (isMesh(o)) meshes.push(o);
        });
        for (const mesh of meshes) {
            const isFar = !Array.isArray(mesh.material) && mesh.material.userData.paint === 'backdrop';
            const parts = partSurface(mesh, isFar ? CELLS.far : CELLS.near);
            for (const part of parts) this.thin(part);
            if (parts[0] === mesh) continue;
            mesh.parent?.add(...parts);
            mesh.removeFromParent();
        }
        return model;
    }

    private thin(part: Mesh): void {
        const made = makeLevels(part.geometry);
        this.thinning.add(made);
        void made.finally(() => this.thinning.delete(made));
    }
}

function numbered(gltf: GLTF): Group {
    gltf.scene.traverse((o) => {
        const found = gltf.parser.associations.get(o) as { nodes?: number } | undefined;
        if (found?.nodes !== undefined) o.userData.node = found.nodes;
    });
    // A cloth follows its particles in one piece.
    gltf.scene.userData.whole = (gltf.asset as { extras?: { cloth?: unknown } }).extras?.cloth !== undefined;
    return gltf.scene;
}

export function isMesh(o: Object3D): o is Mesh {
    return (o as Mesh).isMesh === true;
}

/** The bones of a copy in the core's joint order. */
export function bonesOf(root: Object3D, nodes: number[]): (Bone | null)[] {
    const byNode = new Map<number, Bone>();
    root.traverse((o) => {
        if (typeof o.userData.node === 'number') byNode.set(o.userData.node, o as Bone);
    });
    return nodes.map((n) => byNode.get(n) ?? null);
}

/** Paints every surface of a copy anew. */
export function paintAll(root: Object3D, paint: (from: Material, coloured: boolean) => Material): Mesh[] {
    const meshes: Mesh[] = [];
    root.traverse((o) => {
        if (!isMesh(o)) return;
        const from = Array.isArray(o.material) ? o.material[0] : o.material;
        if (!from) return;
        const coloured = o.geometry.getAttribute('color') !== undefined;
        o.userData.surface = from.name;
        o.material = paint(from, coloured);
        o.castShadow = from.userData.paint !== 'eye' && from.userData.paint !== 'backdrop' && !from.transparent;
        o.receiveShadow = from.userData.paint !== 'backdrop';
        o.frustumCulled = !(o instanceof SkinnedMesh);
        meshes.push(o);
    });
    return meshes;
}
