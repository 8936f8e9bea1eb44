import { BufferGeometry, Group, Mesh, MeshBasicMaterial, Vector3 } from 'three';
import { describe, expect, it } from 'vitest';
import { showLayers, WildWalls } from '../../resources/js/picture/walls';

/** A room of 4 by 4 m with a front (looking to -z) and a left wall (looking to +x), and what it goes on with. */
function room() {
    const model = new Group();
    const node = (userData: Record<string, unknown>) => {
        const group = new Group();
        group.userData = userData;
        const mesh = new Mesh(new BufferGeometry(), new MeshBasicMaterial());
        group.add(mesh);
        model.add(group);
        return { group, paint: mesh.material, mesh };
    };
    const front = node({ wild: 'front', inward: [0, 0, -1], offset: -2 });
    const left = node({ wild: 'left', inward: [1, 0, 0], offset: -2 });
    const floor = node({ away: ['front'], standing: [] });
    const side = node({ away: ['front'], standing: ['left'] });
    model.updateMatrixWorld(true);
    return { model, front, left, floor, side, walls: WildWalls.of(model)! };
}
const look = (r: ReturnType<typeof room>, eye: number[], axis: number[], chosen: string[] | null = null) =>
    r.walls.lookFrom(r.model, new Vector3(...eye), new Vector3(...axis), chosen);

describe('wild walls', () => {
    it('leaves all walls standing for a lens inside', () => {
        const r = room();
        look(r, [0, 1.6, 1], [0, 0, -1]);
        expect([r.front.paint.colorWrite, r.left.paint.colorWrite, r.floor.group.visible]).toEqual([true, true, false]);
    });

    it('takes away the one that the lens stands behind, which still casts its shadow', () => {
        const r = room();
        look(r, [0, 1.6, 5], [0, 0, -1]);
        expect([r.front.paint.colorWrite, r.front.paint.depthWrite, r.front.group.visible]).toEqual([false, false, true]);
        expect(r.left.paint.colorWrite).toBe(true);
        expect([r.floor.group.visible, r.side.group.visible]).toEqual([true, true]);
        expect(r.front.mesh.userData.away).toBe(true);
    });

    it('takes away both from a corner, and nothing goes on beside a wall that is away', () => {
        const r = room();
        look(r, [-5, 1.6, 5], [1, 0, -1]);
        expect([r.front.paint.colorWrite, r.left.paint.colorWrite]).toEqual([false, false]);
        expect([r.floor.group.visible, r.side.group.visible]).toEqual([true, false]);
    });

    it('leaves a wall to a lens that looks along or away from it', () => {
        const r = room();
        look(r, [0, 1.6, 5], [1, 0, 0]);
        expect(r.front.paint.colorWrite).toBe(true);
        look(r, [0, 1.6, 5], [0, 0, 1]);
        expect(r.front.paint.colorWrite).toBe(true);
    });

    it('obeys the hand: none, or those that are chosen', () => {
        const r = room();
        look(r, [0, 1.6, 5], [0, 0, -1], []);
        expect(r.front.paint.colorWrite).toBe(true);
        look(r, [0, 1.6, 0], [0, 0, -1], ['left']);
        expect([r.front.paint.colorWrite, r.left.paint.colorWrite]).toEqual([true, false]);
        look(r, [0, 1.6, 0], [0, 0, -1]);
        expect(r.left.paint.colorWrite).toBe(true);
    });

    it('goes with a set that was turned and moved', () => {
        const r = room();
        r.model.position.set(10, 0, 0);
        r.model.rotation.y = Math.PI / 2;
        r.model.updateMatrixWorld(true);
        // Its front looks to -x now.
        look(r, [15, 1.6, 0], [-1, 0, 0]);
        expect([r.front.paint.colorWrite, r.left.paint.colorWrite]).toEqual([false, true]);
    });

    it('is nothing where a file has no such walls', () => {
        expect(WildWalls.of(new Group())).toBeNull();
    });
});

it('shows of what lies around as much as is asked for', () => {
    const model = new Group();
    const layers = [0.01, 0.5, 1].map((layer) => {
        const group = new Group();
        group.userData = { layer };
        model.add(group);
        return group;
    });
    const shown = (fullness: number) => (showLayers(model, fullness), layers.map((l) => l.visible));
    expect(shown(0)).toEqual([false, false, false]);
    expect(shown(0.5)).toEqual([true, true, false]);
    expect(shown(1)).toEqual([true, true, true]);
});

it('tells whether a place is in the room, and the ball around it, wherever the set stands', () => {
    const r = room();
    for (const wall of [r.front, r.left]) {
        wall.mesh.geometry.setFromPoints([new Vector3(-2, 0, -2), new Vector3(2, 2, 2)]);
        wall.mesh.geometry.computeBoundingBox();
    }
    const walls = WildWalls.of(r.model)!;
    r.model.position.set(10, 0, 0);
    r.model.updateMatrixWorld(true);
    expect(walls.around(r.model, new Vector3(0, 1, 0))).toBeNull();
    const ball = walls.around(r.model, new Vector3(11, 1, 1))!;
    expect(ball.center.toArray()).toEqual([10, 1, 0]);
    expect(ball.radius).toBeCloseTo(3);
});
