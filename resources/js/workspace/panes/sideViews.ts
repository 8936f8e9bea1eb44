import { Matrix4, Quaternion, Vector3 } from 'three';
import type { View } from '../../picture';

/** A long lens flattens a picture: the same metre is nearly as long near as far. */
const FOCAL_MM = 200;
const SENSOR_MM = 36;
/** Metres around people that are seen, at least from their middle, and at most. */
const AROUND = 1.3;
const REACH = [2, 40] as const;

const SIDES: [string, Vector3, Vector3][] = [
    ['Front', new Vector3(0, 0.06, 1), new Vector3(0, 1, 0)],
    ['Side', new Vector3(1, 0.06, 0), new Vector3(0, 1, 0)],
    ['Top', new Vector3(0, 1, 0), new Vector3(0, 0, -1)],
];

/** Views from before, from the side and from above on to where people are (their feet, metres), so that all are in each. */
export function sideViews(feet: [number, number, number][]): { name: string; view: View }[] {
    const all = feet.length > 0 ? feet : ([[0, 0, 0]] as [number, number, number][]);
    const middle = (k: 0 | 1 | 2) => (Math.min(...all.map((p) => p[k])) + Math.max(...all.map((p) => p[k]))) / 2;
    const centre = new Vector3(middle(0), middle(1) + 0.9, middle(2));
    const far = (k: 0 | 2) => Math.max(...all.map((p) => Math.abs(p[k] - (k === 0 ? centre.x : centre.z)))) + AROUND;
    return SIDES.map(([name, from, up]) => {
        // From above what goes up the picture is depth, and the picture is less high than wide.
        const half = name === 'Front' ? far(0) : name === 'Side' ? far(2) : Math.max(far(0), (far(2) * 16) / 9);
        // Half of the picture's width is its half of the sensor by the lens.
        const away = (Math.min(REACH[1], Math.max(REACH[0], half)) * FOCAL_MM) / (SENSOR_MM / 2);
        const at = centre.clone().addScaledVector(from.clone().normalize(), away);
        const turn = new Quaternion().setFromRotationMatrix(new Matrix4().lookAt(at, centre, up));
        return {
            name,
            view: {
                position: [at.x, at.y, at.z],
                rotation: [turn.x, turn.y, turn.z, turn.w],
                focalMm: FOCAL_MM,
                focusMetres: away,
                fStop: 16,
                sensorWidthMm: SENSOR_MM,
            },
        };
    });
}
