import { trackRow } from '../../picture';
import { hipsOver } from '../panes/plan';
import type { SceneStore } from '../scene.svelte';

/** Where somebody stands at a frame, from above, by the poses that are here; null: they are not. */
export function standingAt(scene: SceneStore, item: number, frame: number): [number, number] | null {
    const m = scene.manifest;
    const track = m?.items.find((i) => i.id === `i${item}`)?.track;
    const row = m && track ? trackRow(track, m, frame, scene.poses.pieces) : null;
    return row ? hipsOver(row) : null;
}
