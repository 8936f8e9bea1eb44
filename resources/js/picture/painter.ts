import {
    NoToneMapping,
    PCFShadowMap,
    PerspectiveCamera,
    Raycaster,
    Scene,
    Vector2,
    Vector3,
    WebGLRenderer,
    WebGLRenderTarget,
    type Intersection,
    type Material,
    type Mesh,
    type Object3D,
} from 'three';
import { CrossFader, type BlendedViews } from './blend';
import { Mirror } from './mirror';
import type { ModelShelf } from './models';
import { depthOfField } from '../lib/lens';
import { blurAtInfinity, Post, type LensBlur } from './post';
import { DEPTH_LAYER, Stage } from './stage';
import type { Stretch } from './pieces';
import type { Manifest } from './stream';
import type { View } from './view';

const dark = new Scene();

export type Quality = 'draft' | 'final';

/**
 * Draws a frame of a scene through a camera on to a canvas. Workspace, thumbnails and final render all use this and
 * nothing else. Helpers (marks, handles) are drawn by others on top; no render can contain them.
 */
export class Painter {
    readonly stage: Stage;
    readonly camera = new PerspectiveCamera(30, 16 / 9, 0.08, 420);
    readonly renderer: WebGLRenderer;
    private readonly post = new Post();
    private readonly smallPost = new Post();
    private readonly fader = new CrossFader();
    private thumb: WebGLRenderTarget | null = null;
    private shown: { stretch: Stretch; frame: number; view: View } | null = null;
    private readonly mirror = new Mirror();
    private width = 0;
    private height = 0;
    private drawn = 0;
    private last = -1;
    /** A frame never shows what was drawn before it: for renders, which may begin anywhere. */
    exact = false;
    /** What is not sharp is tinted: to set the focus by; no render has it. */
    tintsFocus = false;
    private focus = 8;
    private wallsAway: string[] | null = null;

    constructor(
        canvas: HTMLCanvasElement,
        shelf: ModelShelf,
        private readonly quality: Quality,
    ) {
        this.renderer = new WebGLRenderer({ canvas, antialias: false, preserveDrawingBuffer: true, powerPreference: 'high-performance' });
        this.renderer.setPixelRatio(1);
        this.renderer.toneMapping = NoToneMapping;
        this.renderer.shadowMap.enabled = true;
        this.renderer.shadowMap.type = PCFShadowMap;
        this.renderer.info.autoReset = false;
        // Near before far, whatever paint they wear: what is hidden is then never painted.
        this.renderer.setOpaqueSort((a, b) => a.renderOrder - b.renderOrder || a.z - b.z || a.id - b.id);
        this.stage = new Stage(shelf, quality === 'draft');
        const map = quality === 'draft' ? 1024 : 1536;
        this.stage.sun.shadow.mapSize.set(map, map);
        this.stage.sun.shadow.radius = (3 * map) / 2048;
        this.stage.fineness.tolerancePx = quality === 'draft' ? 2 : 0.8;
        this.camera.layers.enable(DEPTH_LAYER);
        this.stage.onAdded = (thing) => this.makeReady(thing);
    }

    /** Has the paints of a thing compiled beside the page; the first picture would otherwise stand still for them. */
    private makeReady(thing: Object3D): void {
        if (this.width === 0) return;
        const { renderer, camera, stage } = this;
        renderer.setRenderTarget(this.post.begin(this.width, this.height));
        renderer.compile(thing, camera, stage.scene);
        // What casts a shadow is drawn without lights.
        const casters: [Mesh, Material | Material[]][] = [];
        thing.traverse((o) => {
            const mesh = o as Mesh;
            if (!mesh.isMesh || !mesh.customDepthMaterial) return;
            casters.push([mesh, mesh.material]);
            mesh.material = mesh.customDepthMaterial;
        });
        renderer.compile(thing, camera, dark);
        for (const [mesh, paint] of casters) mesh.material = paint;
        renderer.setRenderTarget(null);
    }

    resize(width: number, height: number): void {
        if (width === this.width && height === this.height) return;
        this.width = width;
        this.height = height;
        this.renderer.setSize(width, height, false);
        this.camera.aspect = width / height;
        this.stage.uniforms.size.value.set(width, height);
        this.stage.fineness.widthPx = width;
    }

    async show(manifest: Manifest): Promise<void> {
        await this.stage.show(manifest);
    }

    look(view: View): void {
        const c = this.camera;
        c.position.set(...view.position);
        c.quaternion.set(...view.rotation);
        // Gate fit by width: the picture's width fills the sensor.
        c.fov = (2 * Math.atan(view.sensorWidthMm / c.aspect / (2 * view.focalMm)) * 180) / Math.PI;
        c.updateProjectionMatrix();
        c.updateMatrixWorld();
        this.focus = view.focusMetres;
        this.wallsAway = view.wallsAway ?? null;
    }

    /** @param mixed  what the frame is blended of, with the views of what is left and of what comes */
    draw(stretch: Stretch, frame: number, view: View, mixed: BlendedViews | null = null): void {
        this.shown = { stretch, frame, view };
        this.stage.pose(stretch, frame);
        // While it plays in draft every second frame keeps the shadows of the one before; after a jump or an edit none does.
        if (frame !== this.last + 1) this.drawn = 0;
        this.last = frame;
        const on = mixed ? this.fader.begin(this.width, this.height) : null;
        for (const [k, one] of [mixed?.a, mixed?.b].entries()) {
            if (!one || !on) continue;
            this.look(one);
            this.drawn = 0;
            this.redraw(one, on[k]);
        }
        this.look(view);
        if (mixed) this.fader.finish(this.renderer, mixed);
        else this.redraw(view);
    }

    /** Draws again what already stands, as after a turn of the free view. */
    redraw(view: View, on: WebGLRenderTarget | null = null): void {
        const { renderer, stage, camera } = this;
        renderer.info.reset();
        renderer.shadowMap.autoUpdate = this.quality === 'final' || this.exact || this.drawn % 2 === 0;
        this.drawn++;
        const final = this.quality === 'final';
        const near = final && view.focusMetres < 7 ? lensOf(view) : null;
        stage.fineness.focusMetres = view.focusMetres;
        stage.fineness.blurPx = near ? Math.min(10 / 1280, blurAtInfinity(near)) * this.width : 0;
        const mirrored = final && stage.water.visible && this.seesWater();
        this.paint(this.post.begin(this.width, this.height), mirrored);
        const limits = this.tintsFocus ? depthOfField(view.focalMm, view.fStop, view.focusMetres, view.sensorWidthMm) : null;
        this.post.finish(renderer, stage.mood, camera, near, final, on, limits);
        renderer.setRenderTarget(null);
    }

    /** @param shades whether shadows are cast anew; else those of the picture before stay */
    private paint(on: WebGLRenderTarget, mirrored: boolean, shades = true): void {
        const { renderer, stage, camera } = this;
        const forward = new Vector3(0, 0, -1).applyQuaternion(camera.quaternion);
        const halfWidth = Math.tan((camera.fov * Math.PI) / 360) * camera.aspect;
        if (shades) stage.fitShadow(camera.position, forward, this.focus, halfWidth);
        stage.lamps(camera.position);
        stage.takeWalls(camera.position, forward, this.wallsAway);
        if (renderer.shadowMap.autoUpdate) renderer.shadowMap.needsUpdate = true;
        if (mirrored) this.mirror.draw(renderer, stage, camera, this.width, this.height);
        else stage.uniforms.mirrorOn.value = 0;
        stage.layDepthFor(camera);
        renderer.setRenderTarget(on);
        renderer.clear();
        renderer.render(stage.scene, camera);
    }

    /**
     * A small picture of any frame through any camera, as the address of a JPEG; the picture on the canvas stays. It is
     * drawn plainly (no blur, no mirrored water), in the same context, so that nothing is loaded or compiled twice.
     * @param quick with the shadows of the picture on the canvas: half the time, while that one plays
     */
    small(stretch: Stretch, frame: number, view: View, width: number, height: number, quick = false): string {
        const { renderer, stage } = this;
        const { widthPx, blurPx } = stage.fineness;
        const size = stage.uniforms.size.value.clone();
        const aspect = this.camera.aspect;
        const target = this.thumb?.width === width && this.thumb.height === height ? this.thumb : this.thumbOf(width, height);
        stage.fineness.widthPx = width;
        stage.fineness.blurPx = 0;
        stage.uniforms.size.value.set(width, height);
        this.camera.aspect = width / height;
        stage.pose(stretch, frame);
        this.look(view);
        renderer.shadowMap.autoUpdate = !quick;
        this.paint(this.smallPost.begin(width, height), false, !quick);
        this.smallPost.finish(renderer, stage.mood, this.camera, null, false, target);
        const read = new Uint8Array(4 * width * height);
        renderer.readRenderTargetPixels(target, 0, 0, width, height, read);
        renderer.setRenderTarget(null);
        stage.fineness.widthPx = widthPx;
        stage.fineness.blurPx = blurPx;
        stage.uniforms.size.value.copy(size);
        this.camera.aspect = aspect;
        this.drawn = 0;
        // Who asks what lies under a place of the picture asks the one on the canvas.
        if (this.shown) {
            stage.pose(this.shown.stretch, this.shown.frame);
            this.look(this.shown.view);
        }
        return addressOf(read, width, height);
    }

    private thumbOf(width: number, height: number): WebGLRenderTarget {
        this.thumb?.dispose();
        return (this.thumb = new WebGLRenderTarget(width, height, { depthBuffer: false }));
    }

    /** Water matters when the lower edge of the picture looks down on it or the camera is level and far. */
    private seesWater(): boolean {
        return new Vector3(0, 0, -1).applyQuaternion(this.camera.quaternion).y > -0.85;
    }

    /** What a place of the picture (-1 to 1) shows: the item, the point, the surface by its material and colour there (linear). */
    pick(x: number, y: number): { item: string | null; point: Vector3; surface: SurfaceHit } | null {
        const ray = new Raycaster();
        ray.setFromCamera(new Vector2(x, y), this.camera);
        const hits = ray.intersectObjects<Object3D>(this.stage.pickable(), true);
        const hit = hits.find((h) => this.stage.itemOf(h.object) !== null && h.object.userData.away !== true);
        return hit ? { item: this.stage.itemOf(hit.object), point: hit.point, surface: surfaceAt(hit) } : null;
    }

    /** Where a point of the world falls in the picture, from -1 to 1. */
    project(world: Vector3): Vector3 {
        return world.clone().project(this.camera);
    }

    facts(): { calls: number; triangles: number; gpu: string } {
        const gl = this.renderer.getContext();
        const named = gl.getExtension('WEBGL_debug_renderer_info');
        return {
            calls: this.renderer.info.render.calls,
            triangles: this.renderer.info.render.triangles,
            gpu: String(gl.getParameter(named ? named.UNMASKED_RENDERER_WEBGL : gl.RENDERER)),
        };
    }

    dispose(): void {
        this.post.dispose();
        this.smallPost.dispose();
        this.fader.dispose();
        this.thumb?.dispose();
        this.mirror.dispose();
        this.renderer.dispose();
    }
}

function lensOf(view: View): LensBlur {
    return { focusMetres: view.focusMetres, focalMm: view.focalMm, fStop: view.fStop, sensorWidthMm: view.sensorWidthMm };
}

export interface SurfaceHit {
    material: string;
    colour: [number, number, number] | null;
}

function surfaceAt(hit: Intersection): SurfaceHit {
    const mesh = hit.object as Mesh;
    const colours = mesh.geometry.getAttribute('color');
    const v = hit.face?.a;
    const name: unknown = mesh.userData.surface;
    return {
        material: typeof name === 'string' ? name : '',
        colour: colours && v !== undefined ? [colours.getX(v), colours.getY(v), colours.getZ(v)] : null,
    };
}

const sheet = document.createElement('canvas');

/** Pixels as WebGL reads them, from the lowest line up, as the address of a JPEG. */
function addressOf(pixels: Uint8Array, width: number, height: number): string {
    sheet.width = width;
    sheet.height = height;
    const context = sheet.getContext('2d');
    if (!context) return '';
    const image = context.createImageData(width, height);
    for (let y = 0; y < height; y++) image.data.set(pixels.subarray(4 * width * (height - 1 - y), 4 * width * (height - y)), 4 * width * y);
    context.putImageData(image, 0, 0);
    return sheet.toDataURL('image/jpeg', 0.8);
}
