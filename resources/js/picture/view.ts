import type { CameraRow } from './pieces';
import type { ManifestCamera } from './stream';

/** A place to look from, with its lens. */
export interface View extends CameraRow {
    sensorWidthMm: number;
    /** Wild walls taken away for it by hand; null or nothing: those that it stands behind. */
    wallsAway?: string[] | null;
}

export function viewOf(row: CameraRow, camera: Pick<ManifestCamera, 'sensorWidthMm' | 'wallsAway'> | undefined): View {
    return { ...row, sensorWidthMm: camera?.sensorWidthMm ?? 36, wallsAway: camera?.wallsAway ?? null };
}
