import { Color, HalfFloatType, Matrix4, PerspectiveCamera, Vector3, WebGLRenderTarget, type WebGLRenderer } from 'three';
import type { Stage } from './stage';

const TOLERANCE_PX = 2;

/** What water mirrors: the scene from below its level, at a third of the picture's size. */
export class Mirror {
    private readonly camera = new PerspectiveCamera();
    private target: WebGLRenderTarget | null = null;

    private sized(width: number, height: number): WebGLRenderTarget {
        const [w, h] = [Math.round(width / 3), Math.round(height / 3)];
        if (this.target?.width === w && this.target.height === h) return this.target;
        this.target?.dispose();
        return (this.target = new WebGLRenderTarget(w, h, { type: HalfFloatType, depthBuffer: true }));
    }

    dispose(): void {
        this.target?.dispose();
        this.target = null;
    }

    /** The eye of a camera, mirrored. */
    private aim(camera: PerspectiveCamera, level: number): void {
        const eye = camera.position.clone();
        eye.y = 2 * level - eye.y;
        const ahead = new Vector3(0, 0, -1).applyQuaternion(camera.quaternion);
        ahead.y = -ahead.y;
        this.camera.position.copy(eye);
        this.camera.up.set(0, 1, 0);
        this.camera.lookAt(eye.add(ahead));
        this.camera.updateMatrixWorld();
        this.camera.projectionMatrix.copy(camera.projectionMatrix);
        this.camera.projectionMatrixInverse.copy(new Matrix4().copy(camera.projectionMatrix).invert());
    }

    draw(renderer: WebGLRenderer, stage: Stage, camera: PerspectiveCamera, width: number, height: number): void {
        const target = this.sized(width, height);
        this.aim(camera, stage.uniforms.waterLevel.value);
        const hidden = stage.hiddenFromMirror();
        const before = hidden.map((o) => o.visible);
        hidden.forEach((o) => (o.visible = false));
        const extra = stage.onlyInMirror();
        extra.forEach((o) => (o.visible = true));
        const shadows = renderer.shadowMap.autoUpdate;
        renderer.shadowMap.autoUpdate = renderer.shadowMap.needsUpdate = false;
        const colour = renderer.getClearColor(new Color());
        const alpha = renderer.getClearAlpha();
        renderer.setClearColor(0, 0);
        stage.uniforms.mirrorOn.value = 0;
        stage.uniforms.mirror.value = null;
        stage.scene.overrideMaterial = stage.mirrorMaterial;
        const { tolerancePx, widthPx } = stage.fineness;
        stage.fineness.widthPx = target.width;
        // Ripples break the mirrored picture up: nothing finer than this is seen in it.
        stage.fineness.tolerancePx = TOLERANCE_PX;
        renderer.setRenderTarget(target);
        renderer.clear();
        renderer.render(stage.scene, this.camera);
        stage.scene.overrideMaterial = null;
        stage.fineness.widthPx = widthPx;
        stage.fineness.tolerancePx = tolerancePx;
        renderer.setRenderTarget(null);
        renderer.setClearColor(colour, alpha);
        renderer.shadowMap.autoUpdate = shadows;
        if (shadows) renderer.shadowMap.needsUpdate = true;
        hidden.forEach((o, i) => (o.visible = before[i] ?? true));
        extra.forEach((o) => (o.visible = false));
        stage.uniforms.mirror.value = target.texture;
        stage.uniforms.mirrorOn.value = 1;
    }
}
