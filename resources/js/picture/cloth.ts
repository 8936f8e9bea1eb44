import { BufferAttribute, type BufferGeometry, type Mesh, type Object3D } from 'three';
import { isMesh } from './models';

/** A surface that follows particles: the vertices that lay at one place are one particle, in the file's order. */
export class Cloth {
    private constructor(
        private readonly geometry: BufferGeometry,
        private readonly particle: Uint32Array,
        private readonly normals: Float32Array,
    ) {}

    /** The first surface of a copy; it gets a geometry of its own. */
    static of(model: Object3D): Cloth | null {
        let mesh: Mesh | null = null;
        model.traverse((o) => {
            if (!mesh && isMesh(o)) mesh = o;
        });
        const found = mesh as Mesh | null;
        if (!found) return null;
        found.geometry = found.geometry.clone();
        const place = found.geometry.getAttribute('position');
        const known = new Map<string, number>();
        const particle = new Uint32Array(place.count);
        for (let i = 0; i < place.count; i++) {
            const key = `${place.getX(i)} ${place.getY(i)} ${place.getZ(i)}`;
            const p = known.get(key) ?? known.size;
            known.set(key, p);
            particle[i] = p;
        }
        found.geometry.setAttribute('position', new BufferAttribute(new Float32Array(3 * place.count), 3));
        found.geometry.setAttribute('normal', new BufferAttribute(new Float32Array(3 * place.count), 3));
        return new Cloth(found.geometry, particle, new Float32Array(3 * known.size));
    }

    /** Puts the vertices where the particles are; `row` holds 3 numbers a particle from `from` on. */
    drape(row: Float32Array, from: number): void {
        const index = this.geometry.index;
        if (!index || row.length < from + this.normals.length) return;
        const n = this.normals.fill(0);
        for (let t = 0; t < index.count; t += 3) {
            const [a, b, c] = [this.at(index.getX(t)), this.at(index.getX(t + 1)), this.at(index.getX(t + 2))];
            const x = (p: number, k: number) => row[from + p + k] ?? 0;
            const [ex, ey, ez] = [x(b, 0) - x(a, 0), x(b, 1) - x(a, 1), x(b, 2) - x(a, 2)];
            const [fx, fy, fz] = [x(c, 0) - x(a, 0), x(c, 1) - x(a, 1), x(c, 2) - x(a, 2)];
            const [nx, ny, nz] = [ey * fz - ez * fy, ez * fx - ex * fz, ex * fy - ey * fx];
            for (const p of [a, b, c]) {
                n[p] = (n[p] ?? 0) + nx;
                n[p + 1] = (n[p + 1] ?? 0) + ny;
                n[p + 2] = (n[p + 2] ?? 0) + nz;
            }
        }
        const place = this.geometry.getAttribute('position');
        const normal = this.geometry.getAttribute('normal');
        for (let i = 0; i < place.count; i++) {
            const p = this.at(i);
            place.setXYZ(i, row[from + p] ?? 0, row[from + p + 1] ?? 0, row[from + p + 2] ?? 0);
            const [x, y, z] = [n[p] ?? 0, n[p + 1] ?? 0, n[p + 2] ?? 0];
            const length = Math.hypot(x, y, z) || 1;
            normal.setXYZ(i, x / length, y / length, z / length);
        }
        place.needsUpdate = normal.needsUpdate = true;
        this.geometry.computeBoundingSphere();
    }

    private at(vertex: number): number {
        return 3 * (this.particle[vertex] ?? 0);
    }
}
