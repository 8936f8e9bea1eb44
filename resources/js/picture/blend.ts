import {
    Mesh,
    NoColorSpace,
    OrthographicCamera,
    PlaneGeometry,
    RawShaderMaterial,
    Scene,
    Vector3,
    WebGLRenderTarget,
    type Texture,
    type WebGLRenderer,
} from 'three';
import type { Stretch } from './pieces';
import type { Manifest, ManifestBlend } from './stream';
import { viewOf, type View } from './view';

/** What a frame is blended of: how much of what comes, and the plain colour that takes the place of a camera. */
export interface Mixed {
    blend: ManifestBlend;
    /** Of what comes, 0 to 1. */
    share: number;
}

/** The dissolve or fade in which the reel is at a frame. */
export function blendAt(manifest: Manifest, frame: number): Mixed | null {
    const blend = manifest.blends.find((b) => b.from <= frame && frame < b.to);
    return blend ? { blend, share: Math.min(1, Math.max(0, (frame + 0.5 - blend.from) / (blend.to - blend.from))) } : null;
}

/** Lays two finished pictures, or one and a colour, over each other as they are seen, not as light. */
export class CrossFader {
    private readonly scene = new Scene();
    private readonly camera = new OrthographicCamera(-1, 1, 1, -1, 0, 1);
    private readonly paint = new RawShaderMaterial({
        uniforms: {
            a: { value: null as Texture | null },
            b: { value: null as Texture | null },
            colour: { value: new Vector3() },
            /** Of a, of b and of the colour. */
            parts: { value: new Vector3() },
        },
        vertexShader: /* glsl */ `
attribute vec3 position;
varying vec2 at;
void main() {
    at = position.xy * .5 + .5;
    gl_Position = vec4(position.xy, 0., 1.);
}`,
        fragmentShader: /* glsl */ `
precision highp float;
uniform sampler2D a, b;
uniform vec3 colour, parts;
varying vec2 at;
void main() {
    gl_FragColor = vec4(texture2D(a, at).rgb * parts.x + texture2D(b, at).rgb * parts.y + colour * parts.z, 1.);
}`,
        depthTest: false,
        depthWrite: false,
    });
    private targets: [WebGLRenderTarget, WebGLRenderTarget] | null = null;

    constructor() {
        const quad = new Mesh(new PlaneGeometry(2, 2), this.paint);
        quad.frustumCulled = false;
        this.scene.add(quad);
    }

    /** What the pictures that are left and that come are drawn on. */
    begin(width: number, height: number): [WebGLRenderTarget, WebGLRenderTarget] {
        const now = this.targets?.[0];
        if (!this.targets || now?.width !== width || now.height !== height) {
            this.dispose();
            const made = () => {
                const target = new WebGLRenderTarget(width, height, { depthBuffer: false });
                target.texture.colorSpace = NoColorSpace;
                return target;
            };
            this.targets = [made(), made()];
        }
        return this.targets!;
    }

    finish(renderer: WebGLRenderer, { blend, share }: Mixed): void {
        if (!this.targets) return;
        const u = this.paint.uniforms;
        u.a!.value = this.targets[0].texture;
        u.b!.value = this.targets[1].texture;
        (u.colour!.value as Vector3).setScalar(blend.colour === 'white' ? 1 : 0);
        const parts = u.parts!.value as Vector3;
        if (blend.a === null) parts.set(0, share, 1 - share);
        else if (blend.b === null) parts.set(1 - share, 0, share);
        else parts.set(1 - share, share, 0);
        renderer.setRenderTarget(null);
        renderer.render(this.scene, this.camera);
    }

    dispose(): void {
        for (const t of this.targets ?? []) t.dispose();
        this.targets = null;
    }
}

export type BlendedViews = Mixed & { a: View | null; b: View | null };

/** What the reel is blended of at a frame, with the views of what is left and of what comes. */
export function blendedAt(manifest: Manifest, poses: Stretch, frame: number): BlendedViews | null {
    const mixed = blendAt(manifest, frame);
    if (!mixed) return null;
    const seen = (id: string | null): View | null => {
        const camera = manifest.cameras.find((c) => c.id === id);
        const row = camera ? poses.camera(camera.id, frame) : null;
        return camera && row ? viewOf(row, camera) : null;
    };
    return { ...mixed, a: seen(mixed.blend.a), b: seen(mixed.blend.b) };
}
