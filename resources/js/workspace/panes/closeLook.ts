import { Matrix4, Quaternion, Vector3 } from 'three';
import type { View } from '../../picture';

const FOCAL_MM = 65;
const METRES = 1.15;
/** Radians off the way a face looks from which it is seen, and share of the way to it that a look goes in a picture. */
const ASIDE = 0.35;
const FOLLOWS = 0.25;
/** Radians of a turn that is not followed but taken at once, as after a jump in time. */
const JUMP = 1.2;

/** A look at a face from near that goes along with it, and turns with it less hastily than it turns. */
export class CloseLook {
    private yaw: number | null = null;

    at(eyes: Vector3, ahead: Vector3): View {
        const to = Math.atan2(ahead.x, ahead.z);
        const off = this.yaw === null ? Infinity : Math.atan2(Math.sin(to - this.yaw), Math.cos(to - this.yaw));
        this.yaw = this.yaw === null || Math.abs(off) > JUMP ? to : this.yaw + FOLLOWS * off;
        const a = this.yaw + ASIDE;
        const from = new Vector3(eyes.x + METRES * Math.sin(a), eyes.y + 0.03, eyes.z + METRES * Math.cos(a));
        const turn = new Quaternion().setFromRotationMatrix(new Matrix4().lookAt(from, eyes, new Vector3(0, 1, 0)));
        return {
            position: [from.x, from.y, from.z],
            rotation: [turn.x, turn.y, turn.z, turn.w],
            focalMm: FOCAL_MM,
            focusMetres: METRES,
            fStop: 5.6,
            sensorWidthMm: 36,
        };
    }
}
