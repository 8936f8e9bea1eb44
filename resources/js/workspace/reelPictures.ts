import type { Manifest, ManifestShot } from '../picture';

/** Tells the small picture of a shot from another: which frame of it is shown, and the state of all that its camera sees there. */
export function keyOf(m: Manifest, s: ManifestShot): string {
    const f = Math.min(s.out - 1, s.in + Math.min(8, Math.floor((s.out - s.in) / 2)));
    return `${digest(m, s.camera, Math.floor(f / m.pieceFrames))}|${f}|${s.camera}|${m.mood}`;
}

/** Tells one state of all that a camera can see over a stretch of frames from another (FNV-1a). */
function digest(m: Manifest, camera: string, n: number): number {
    let h = 0x811c9dc5;
    for (const { id, track } of [...m.items, ...m.cameras.filter((c) => c.id === camera)]) {
        const text = `${id} ${track.still?.join() ?? track.pieces?.[n] ?? ''}`;
        for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
    }
    return h >>> 0;
}
