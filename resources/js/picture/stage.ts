import {
    AdditiveBlending,
    BoxGeometry,
    CanvasTexture,
    Color,
    DirectionalLight,
    Float32BufferAttribute,
    Group,
    HemisphereLight,
    Mesh,
    MeshStandardMaterial,
    PlaneGeometry,
    Quaternion,
    Scene,
    SkinnedMesh,
    Sphere,
    SphereGeometry,
    Sprite,
    SpriteMaterial,
    Vector3,
    type Bone,
    type Object3D,
    type PerspectiveCamera,
    type ShaderMaterial,
} from 'three';
import { Cloth } from './cloth';
import { chooseLevels, isLarge, type Fineness } from './detail';
import { bonesOf, isMesh, paintAll, type ModelShelf } from './models';
import { applyMood, BLOBS, LAMPS, makeUniforms, type Mood, type StageUniforms } from './moods';
import { grainTexture, rippleTexture } from './noise';
import { depthPaint, groundPaint, mirrorPaint, repaint, skyPaint, waterPaint } from './paints';
import type { Stretch } from './pieces';
import { showLayers, WildWalls } from './walls';
import type { LampFact, Manifest, ManifestItem } from './stream';

/** What lies on this layer is seen by the picture's camera alone. */
export const DEPTH_LAYER = 1;

interface Actor {
    item: ManifestItem;
    stand: Group;
    bones: (Bone | null)[];
    faces: Mesh[];
    halos: { sprite: Sprite; lamp: LampFact }[];
    slabs: Mesh[];
    twins: Mesh[];
    skins: SkinnedMesh[];
    cloth: Cloth | null;
    walls: WildWalls | null;
    /** Metres from the floor that it stands on to its lowest joint. */
    soles: number;
}

const low = (bones: (Bone | null)[]): number => Math.min(...bones.map((b) => b?.matrixWorld.elements[13] ?? Infinity));

/** Everything that is drawn of a scene. It stands where the core says; nothing is decided here. */
export class Stage {
    readonly scene = new Scene();
    readonly uniforms: StageUniforms;
    readonly sun = new DirectionalLight(0xffffff, 1);
    readonly sky: Mesh;
    readonly water: Mesh;
    readonly ground: Mesh;
    readonly mirrorMaterial: ShaderMaterial;
    readonly fineness: Fineness = { widthPx: 1280, tolerancePx: 0.8, shadowMetres: 0.004, focusMetres: 8, blurPx: 0 };
    /** Until a manifest brings one. */
    mood: Mood = { exposure: 1, halo: 0, grade: { contrast: 1, saturation: 1, gain: [1, 1, 1], lift: [0, 0, 0] } };
    private readonly actors = new Map<string, Actor>();
    private readonly haloMap: CanvasTexture;
    private wanted = 0;
    private rate = 24;
    /** Told of each new thing, so that its paints are made ready while others are still read. */
    onAdded: (thing: Object3D) => void = () => undefined;

    constructor(
        private readonly shelf: ModelShelf,
        private readonly draft: boolean,
    ) {
        this.uniforms = makeUniforms(grainTexture(), rippleTexture());
        this.sun.castShadow = true;
        this.sun.shadow.bias = -0.0006;
        this.sun.shadow.normalBias = 0.03;
        this.sky = new Mesh(new SphereGeometry(50, 24, 12), skyPaint(this.uniforms));
        this.sky.frustumCulled = false;
        this.sky.renderOrder = 5;
        this.water = new Mesh(new PlaneGeometry(500, 400), waterPaint(this.uniforms));
        this.water.rotation.x = -Math.PI / 2;
        this.water.renderOrder = 4;
        this.water.visible = false;
        this.ground = new Mesh(new PlaneGeometry(4000, 400), groundPaint(this.uniforms));
        this.ground.rotation.x = -Math.PI / 2;
        this.ground.position.y = -0.004;
        this.ground.receiveShadow = true;
        this.mirrorMaterial = mirrorPaint(this.uniforms);
        this.haloMap = haloTexture();
        this.scene.add(this.sun, this.sun.target, this.sky, this.water, this.ground);
    }

    /** Brings the stage to what a manifest lists; resolves when every model is there. */
    async show(manifest: Manifest): Promise<void> {
        const turn = ++this.wanted;
        this.rate = manifest.rate[0] / manifest.rate[1];
        this.mood = manifest.look;
        applyMood(this.uniforms, this.mood);
        const keep = new Set(manifest.items.map((i) => i.id));
        for (const [id, actor] of this.actors) {
            const now = manifest.items.find((i) => i.id === id);
            // In other clothes it stays as it was until they are there.
            const isAlike = now?.jointNodes.length === actor.item.jointNodes.length && now.morphs.length === actor.item.morphs.length;
            if (!keep.has(id) || (now?.blob !== actor.item.blob && !isAlike)) this.remove(id);
            else if (now?.blob === actor.item.blob) {
                actor.item = now;
                showLayers(actor.stand, now.fullness);
            }
        }
        await Promise.all(manifest.items.filter((i) => this.actors.get(i.id)?.item.blob !== i.blob).map((i) => this.add(i, turn)));
        if (turn !== this.wanted) return;
        const water = manifest.items.find((i) => i.extras.water !== undefined)?.extras.water;
        this.water.visible = water !== undefined;
        this.ground.visible = water === undefined;
        this.water.position.set(0, water ?? -100, -150);
        this.uniforms.waterLevel.value = water ?? -100;
    }

    private async add(item: ManifestItem, turn: number): Promise<void> {
        const model = await this.shelf.take(item.blob);
        if (turn !== this.wanted && this.actors.has(item.id)) return;
        this.remove(item.id);
        const group = new Group();
        group.name = item.id;
        group.add(model);
        const cloth = item.extras.cloth && item.kind !== 'performer' ? Cloth.of(model) : null;
        const meshes = paintAll(model, (from, coloured) => repaint(this.uniforms, from, coloured, this.draft));
        meshes.forEach((m) => chooseLevels(m, this.fineness));
        const twins = meshes.map((m) => this.depthTwin(m)).filter((m) => m !== null);
        const bones = bonesOf(model, item.jointNodes);
        const own = new Set<Object3D>(bones.filter((b) => b !== null));
        for (const b of bones) if (b && !(b.parent && own.has(b.parent))) group.add(b);
        const faces = meshes.filter((m) => (m.morphTargetInfluences?.length ?? 0) > 0);
        const skins = [...meshes, ...twins].filter((m) => m instanceof SkinnedMesh);
        this.boundSkins(group, skins, bones, bones[item.hips] ?? null);
        const soles = bones.length > 0 ? low(bones) : 0;
        const halos = (item.extras.lamps ?? []).map((lamp) => {
            const sprite = new Sprite(
                new SpriteMaterial({
                    map: this.haloMap,
                    blending: AdditiveBlending,
                    depthWrite: false,
                    transparent: true,
                    toneMapped: false,
                }),
            );
            sprite.position.set(...lamp.at);
            sprite.scale.setScalar(lamp.halo);
            sprite.renderOrder = 8;
            group.add(sprite);
            return { sprite, lamp };
        });
        const slabs = (item.extras.mirrorSlabs ?? []).map(([x0, x1, y]) => {
            const slab = new Mesh(new BoxGeometry(x1 - x0, 0.06, 4.5), this.mirrorMaterial);
            const n = slab.geometry.getAttribute('position').count;
            slab.geometry.setAttribute('color', new Float32BufferAttribute(new Float32Array(n * 3).fill(0.1), 3));
            slab.position.set((x0 + x1) / 2, y, -0.05);
            slab.visible = false;
            group.add(slab);
            return slab;
        });
        this.actors.set(item.id, {
            item,
            stand: group,
            bones,
            faces,
            halos,
            slabs,
            twins,
            skins,
            cloth,
            walls: WildWalls.of(model),
            soles,
        });
        showLayers(group, item.fullness);
        this.scene.add(group);
        this.onAdded(group);
    }

    /** Gives skins a sphere around the hips that limbs and clothes stay within, so that a figure out of the picture costs nothing. */
    private boundSkins(stand: Group, skins: SkinnedMesh[], bones: (Bone | null)[], hips: Bone | null): void {
        stand.updateMatrixWorld(true);
        const middle = hips?.getWorldPosition(new Vector3());
        if (!middle) return;
        const reach = Math.max(...bones.map((b) => b?.getWorldPosition(new Vector3()).distanceTo(middle) ?? 0));
        for (const skin of skins) {
            skin.boundingSphere = new Sphere(new Vector3(), (1.25 * reach) / skin.matrixWorld.getMaxScaleOnAxis());
            skin.frustumCulled = true;
        }
    }

    /** A twin that lays the mesh's depth before anything is painted. Only the camera sees it: no ray, shadow or mirror. */
    private depthTwin(mesh: Mesh): Mesh | null {
        const paint = depthPaint(this.uniforms, mesh.material as ShaderMaterial);
        if (!paint) return null;
        // Writes no colour, unlike the usual caster's paint: a third of the shadow pass.
        mesh.customDepthMaterial = depthPaint(this.uniforms, mesh.material as ShaderMaterial) ?? undefined;
        const twin = mesh instanceof SkinnedMesh ? new SkinnedMesh(mesh.geometry, paint) : new Mesh(mesh.geometry, paint);
        if (twin instanceof SkinnedMesh && mesh instanceof SkinnedMesh) twin.bind(mesh.skeleton, mesh.bindMatrix);
        if (mesh.morphTargetInfluences) twin.morphTargetInfluences = mesh.morphTargetInfluences;
        twin.frustumCulled = mesh.frustumCulled;
        twin.renderOrder = -1;
        twin.layers.set(DEPTH_LAYER);
        chooseLevels(twin, this.fineness);
        mesh.add(twin);
        return twin;
    }

    /** Depth is laid first where surfaces are large in the picture. In draft moving a figure's skin twice costs more than its paint. */
    layDepthFor(camera: PerspectiveCamera): void {
        for (const actor of this.actors.values())
            for (const twin of actor.twins)
                twin.visible = !(this.draft && twin instanceof SkinnedMesh) && isLarge(twin, camera) && twin.parent?.userData.away !== true;
    }

    private remove(id: string): void {
        const actor = this.actors.get(id);
        if (!actor) return;
        this.scene.remove(actor.stand);
        actor.stand.traverse((o) => {
            if (isMesh(o)) {
                const m = Array.isArray(o.material) ? o.material : [o.material];
                for (const one of m) one.dispose();
            }
        });
        this.actors.delete(id);
    }

    /** Puts everything where the core says it is at a frame. */
    pose(stretch: Stretch, frame: number): void {
        this.uniforms.time.value = frame / this.rate;
        let blob = 0;
        for (const [id, actor] of this.actors) {
            const row = stretch.item(id, frame);
            actor.stand.visible = row !== null;
            if (!row) continue;
            place(actor.stand, row);
            actor.cloth?.drape(row, 10);
            if (actor.bones.length > 0) {
                this.poseFigure(actor, row);
                if (blob < BLOBS && actor.item.kind === 'performer') this.blob(blob++, actor, row);
            }
        }
        for (; blob < BLOBS; blob++) this.uniforms.blobs.value[blob]?.set(0, 0, 1, -100);
    }

    private poseFigure(actor: Actor, row: Float32Array): void {
        const n = actor.bones.length;
        for (const mesh of actor.skins) {
            if (mesh.boundingSphere) mesh.worldToLocal(mesh.boundingSphere.center.fromArray(row, 10).applyMatrix4(actor.stand.matrixWorld));
        }
        for (let j = 0; j < n; j++) {
            const bone = actor.bones[j];
            if (bone) bone.quaternion.fromArray(row, 13 + 4 * j);
        }
        actor.bones[actor.item.hips]?.position.fromArray(row, 10);
        for (const face of actor.faces) {
            const influences = face.morphTargetInfluences;
            if (influences) for (let k = 0; k < influences.length; k++) influences[k] = row[13 + 4 * n + k] ?? 0;
        }
    }

    /** A soft shadow on what the lower foot stands on, below the hips. */
    private blob(k: number, actor: Actor, row: Float32Array): void {
        actor.stand.updateMatrixWorld(true);
        const p = new Vector3(row[10], 0, row[12]).applyMatrix4(actor.stand.matrixWorld);
        this.uniforms.blobs.value[k]?.set(p.x, p.z, 0.3, low(actor.bones) - actor.soles * actor.stand.scale.y);
    }

    /** The lamps nearest to the eye give light; all that are lit have a halo. */
    lamps(eye: Vector3): void {
        const u = this.uniforms;
        const halo = new Color(0xffb45e).multiplyScalar(this.mood.halo);
        const found: { lamp: LampFact; at: Vector3; far: number }[] = [];
        for (const actor of this.actors.values()) {
            for (const { sprite, lamp } of actor.halos) {
                sprite.material.color.copy(halo);
                sprite.visible = this.mood.halo > 0.01;
                const at = new Vector3(...lamp.at).applyMatrix4(actor.stand.matrixWorld);
                found.push({ lamp, at, far: at.distanceToSquared(eye) });
            }
        }
        if (found.length > LAMPS) found.sort((a, b) => a.far - b.far);
        for (let k = 0; k < LAMPS; k++) {
            const one = found[k];
            const colour = u.lampColour.value[k];
            if (one) {
                u.lampPlace.value[k]?.copy(one.at);
                colour?.copy(one.lamp.channel === 'A' ? u.lampA.value : u.lampB.value).multiplyScalar(one.lamp.power);
            } else colour?.set(0, 0, 0);
        }
    }

    /** Takes away the walls that a lens stands behind, or those chosen by hand. */
    takeWalls(eye: Vector3, axis: Vector3, chosen: string[] | null): void {
        for (const actor of this.actors.values()) actor.walls?.lookFrom(actor.stand, eye, axis, chosen);
    }

    /** A box around what the camera sees, so that the shadow map is spent on the picture; in a room around all of it. */
    fitShadow(camera: Vector3, forward: Vector3, focus: number, halfWidth: number): void {
        const reach = Math.min(Math.max(focus, 1.2), 11);
        const centre = camera.clone().addScaledVector(forward, reach);
        let box = Math.min(9, Math.max(2.2, reach * halfWidth * 1.25 + 0.9));
        centre.y = Math.min(Math.max(centre.y, -0.4), 3);
        const sharp = camera.clone().addScaledVector(forward, focus);
        for (const { walls, stand } of this.actors.values()) {
            const room = walls?.around(stand, sharp);
            if (!room) continue;
            box = Math.min(10, Math.max(box, room.radius));
            if (room.radius <= 10) centre.copy(room.center);
        }
        this.sun.target.position.copy(centre);
        this.sun.position.copy(centre).addScaledVector(this.uniforms.keyDir.value, 16);
        const c = this.sun.shadow.camera;
        c.left = -box;
        c.right = box;
        c.top = box * 0.85;
        c.bottom = -box * 0.85;
        // A caster may be off by about the blur of a shadow's edge, and by what the bias hides anyway.
        this.fineness.shadowMetres = Math.min(0.04, Math.max(0.012, (8 * box) / this.sun.shadow.mapSize.x));
        c.near = 2;
        c.far = 34;
        c.updateProjectionMatrix();
    }

    /** Takes the paint off for the benchmark: standard materials, a plain sky colour and two lights. There is no way back. */
    strip(): void {
        if (!this.sky.visible) return;
        const plain = new MeshStandardMaterial({ vertexColors: true, roughness: 0.9 });
        const flat = new MeshStandardMaterial({ color: 0x5f7a86, roughness: 0.9 });
        this.scene.traverse((o) => {
            if (isMesh(o)) o.material = o.geometry.hasAttribute('color') ? plain : flat;
        });
        this.sky.visible = false;
        this.scene.background = new Color(0xb9a58f);
        this.sun.castShadow = false;
        this.scene.add(new HemisphereLight(0xdde6ff, 0x665544, 1.2));
    }

    /** The item whose surface a ray meets first is told from the item it belongs to. */
    itemOf(o: Object3D | null): string | null {
        for (let at = o; at; at = at.parent) if (this.actors.has(at.name)) return at.name;
        return null;
    }

    groupOf(id: string): Group | null {
        return this.actors.get(id)?.stand ?? null;
    }

    /** Where a performer's feet stand, for helpers. */
    footing(id: string): Vector3 | null {
        const actor = this.actors.get(id);
        if (!actor) return null;
        const hips = actor.bones[actor.item.hips];
        if (!hips) return actor.stand.position.clone();
        return new Vector3(hips.position.x, 0, hips.position.z).applyMatrix4(actor.stand.matrixWorld);
    }

    /** Where somebody's eyes are and the way they look, as it was posed last. */
    faceOf(id: string): { eyes: Vector3; ahead: Vector3 } | null {
        const actor = this.actors.get(id);
        const face = actor?.item.face;
        const head = face ? actor?.bones[face[0]] : null;
        if (!actor || !face || !head) return null;
        actor.stand.updateMatrixWorld(true);
        return {
            eyes: head.localToWorld(new Vector3(...face[1])),
            ahead: new Vector3(...face[2]).transformDirection(head.matrixWorld),
        };
    }

    pickable(): Object3D[] {
        return [...this.actors.values()].filter((a) => !a.item.extras.backdrop).map((a) => a.stand);
    }

    hiddenFromMirror(): Object3D[] {
        const halos = [...this.actors.values()].flatMap((a) => a.halos.map((h) => h.sprite));
        const slabbed = [...this.actors.values()]
            .filter((a) => a.slabs.length > 0)
            .flatMap((a) => a.stand.children.filter((o) => !a.slabs.includes(o as Mesh)));
        return [this.water, this.sky, this.ground, ...halos, ...slabbed];
    }

    onlyInMirror(): Object3D[] {
        return [...this.actors.values()].flatMap((a) => a.slabs);
    }
}

const turned = new Quaternion();

function place(o: Object3D, row: Float32Array): void {
    o.position.fromArray(row, 0);
    o.quaternion.copy(turned.fromArray(row, 3));
    o.scale.fromArray(row, 7);
    o.updateMatrixWorld();
}

function haloTexture(): CanvasTexture {
    const c = document.createElement('canvas');
    c.width = c.height = 128;
    const x = c.getContext('2d');
    if (x) {
        const g = x.createRadialGradient(64, 64, 0, 64, 64, 64);
        for (let i = 0; i <= 16; i++) {
            const t = i / 16;
            const a = (Math.exp(-t * t * 14) * 0.5 + Math.exp(-t * t * 3.2) * 0.16) * Math.pow(1 - t, 1.2);
            g.addColorStop(t, `rgba(255,255,255,${a})`);
        }
        x.fillStyle = g;
        x.fillRect(0, 0, 128, 128);
    }
    return new CanvasTexture(c);
}
