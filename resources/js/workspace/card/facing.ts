import { hipsOver } from '../panes/plan';
import type { SceneStore } from '../scene.svelte';

/** Where a person or a thing is over the ground at a frame: from the poses that are here, else its mark. */
export function placeOf(scene: SceneStore, id: number, frame: number): [number, number] {
    const item = scene.find('items', id);
    const row = scene.posesAt(frame)?.item(`i${id}`, frame);
    const person = (scene.manifest?.items.find((i) => i.id === `i${id}`)?.joints.length ?? 0) > 0;
    if (row) return person ? hipsOver(row) : [row[0] ?? 0, row[2] ?? 0];
    return item ? [item.position[0], item.position[2]] : [0, 0];
}

/** Degrees from +z towards +x in which one place lies from another, to a tenth. */
export function headingTo(from: [number, number], to: [number, number]): number {
    return Math.round((Math.atan2(to[0] - from[0], to[1] - from[1]) * 1800) / Math.PI) / 10;
}
