import { Box3, Sphere, Vector3, type Material, type Mesh, type Object3D } from 'three';
import { isMesh } from './models';

interface Wall {
    node: Object3D;
    name: string;
    inward: Vector3;
    offset: number;
    isAway: boolean;
}

interface Beyond {
    node: Object3D;
    away: string[];
    standing: string[];
}

/** Sine of the angle to a wall below which a lens looks along it. */
const ALONG = 0.05;

/**
 * The walls of a set that are taken away for a lens that stands behind them, and what the room goes on with there. A wall that is away
 * is not painted and hides nothing, but still throws its shadow.
 */
export class WildWalls {
    private readonly eye = new Vector3();
    private readonly ahead = new Vector3();

    private readonly ball = new Sphere();

    private constructor(
        private readonly walls: Wall[],
        private readonly beyond: Beyond[],
        private readonly room: Box3,
    ) {}

    /** Of a model as its file says; null: all its walls stay. */
    static of(model: Object3D): WildWalls | null {
        const walls: Wall[] = [];
        const beyond: Beyond[] = [];
        model.traverse((node) => {
            const { wild, inward, offset, away, standing } = node.userData as Record<string, unknown>;
            if (typeof wild === 'string' && isTriple(inward) && typeof offset === 'number')
                walls.push({ node, name: wild, inward: new Vector3(...inward), offset, isAway: false });
            else if (isNames(away) && isNames(standing)) beyond.push({ node, away, standing });
        });
        if (walls.length === 0) return null;
        const room = new Box3();
        for (const w of walls) room.expandByObject(w.node);
        room.applyMatrix4(model.matrixWorld.clone().invert());
        const made = new WildWalls(walls, beyond, room);
        for (const b of beyond) b.node.visible = false;
        return made;
    }

    /** The ball around the room, in the scene's space, when a place of the scene is in it. */
    around(stand: Object3D, place: Vector3): Sphere | null {
        if (!this.room.containsPoint(stand.worldToLocal(this.eye.copy(place)))) return null;
        return this.room.getBoundingSphere(this.ball).applyMatrix4(stand.matrixWorld);
    }

    /** The names of those that a lens stands behind and looks through, in the set's own space. */
    before(eye: Vector3, axis: Vector3): string[] {
        return this.walls.filter((w) => eye.dot(w.inward) <= w.offset && axis.dot(w.inward) > ALONG * axis.length()).map((w) => w.name);
    }

    /** Takes away what stands before a lens, or what is chosen; its place and axis are the scene's. */
    lookFrom(stand: Object3D, eye: Vector3, axis: Vector3, chosen: string[] | null): void {
        const own = stand.worldToLocal(this.eye.copy(eye));
        const away = chosen ?? this.before(own, stand.worldToLocal(this.ahead.copy(eye).add(axis)).sub(own));
        for (const wall of this.walls) {
            const isAway = away.includes(wall.name);
            if (isAway === wall.isAway) continue;
            wall.isAway = isAway;
            eachMesh(wall.node, (mesh) => {
                mesh.userData.away = isAway;
                const paints: Material[] = Array.isArray(mesh.material) ? mesh.material : [mesh.material];
                for (const paint of paints) {
                    paint.colorWrite = !isAway;
                    paint.depthWrite = !isAway;
                }
            });
        }
        for (const b of this.beyond) {
            b.node.visible = b.away.every((n) => away.includes(n)) && !b.standing.some((n) => away.includes(n));
        }
    }
}

/** Shows of what lies around a place as much as a fullness (0 bare, 1 all) says. */
export function showLayers(model: Object3D, fullness: number): void {
    model.traverse((o) => {
        if (typeof o.userData.layer === 'number') o.visible = fullness >= o.userData.layer - 1e-6;
    });
}

/** All but the twins that lay depth, which belong to their meshes. */
function eachMesh(node: Object3D, told: (mesh: Mesh) => unknown): void {
    node.traverse((o) => {
        if (isMesh(o) && !(o.parent && isMesh(o.parent))) told(o);
    });
}

function isTriple(v: unknown): v is [number, number, number] {
    return Array.isArray(v) && v.length === 3 && v.every((n) => typeof n === 'number');
}

function isNames(v: unknown): v is string[] {
    return Array.isArray(v) && v.every((n) => typeof n === 'string');
}
