/** Parts of a performer that can be held to a place, in words. */
export const EFFECTORS = {
    handR: 'right hand',
    handL: 'left hand',
    footR: 'right foot',
    footL: 'left foot',
    hips: 'hips',
    head: 'brow',
    look: 'look',
} as const;

export const effectorName = (e: string): string => (EFFECTORS as Record<string, string>)[e] ?? e;

/** Joints that are touched up most, by role, in words. */
export const JOINTS = {
    hips: 'hips',
    spine: 'lower back',
    upperChest: 'chest',
    neck: 'neck',
    head: 'head',
    shoulderR: 'right shoulder',
    upperArmR: 'right upper arm',
    lowerArmR: 'right forearm',
    handR: 'right hand',
    shoulderL: 'left shoulder',
    upperArmL: 'left upper arm',
    lowerArmL: 'left forearm',
    handL: 'left hand',
    upperLegR: 'right thigh',
    lowerLegR: 'right shin',
    footR: 'right foot',
    upperLegL: 'left thigh',
    lowerLegL: 'left shin',
    footL: 'left foot',
} as const;

export const jointName = (j: string): string => (JOINTS as Record<string, string>)[j] ?? j;
