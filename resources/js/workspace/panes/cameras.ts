import { depthOfField } from '../../lib/lens';
import { shotAt, type Manifest, type Stretch } from '../../picture';

/** A camera over the ground: where it is, the heading (radians from +z to +x) of its axis, and half of what it sees in width. */
export interface CameraOn {
    id: number;
    letter: string;
    x: number;
    z: number;
    a: number;
    half: number;
    onAir: boolean;
    /** Metres from it between which all is sharp. */
    sharp: [number, number];
}

export function camerasOn(manifest: Manifest, poses: Stretch, frame: number): CameraOn[] {
    const onAir = shotAt(manifest, frame)?.camera;
    return manifest.cameras.flatMap((c) => {
        const row = poses.camera(c.id, frame);
        if (!row) return [];
        const [x, y, z, w] = row.rotation;
        const ahead = [-2 * (x * z + y * w), -(1 - 2 * (x * x + y * y))] as const;
        return [
            {
                id: Number(c.id.slice(1)),
                letter: c.letter,
                x: row.position[0],
                z: row.position[2],
                a: Math.atan2(...ahead),
                half: Math.atan(c.sensorWidthMm / (2 * row.focalMm)),
                onAir: c.id === onAir,
                sharp: depthOfField(row.focalMm, row.fStop, row.focusMetres, c.sensorWidthMm),
            },
        ];
    });
}
