/**
 * Near and far limit of what is sharp, in metres (thin lens, hyperfocal distance f * f / (N c) + f); the far one may be Infinity. The
 * circle of confusion is the diagonal of a sensor of 3 to 2 by 1500, as the core has it.
 */
export function depthOfField(focalMm: number, fStop: number, focusMetres: number, sensorWidthMm: number): [number, number] {
    const c = Math.hypot(sensorWidthMm, sensorWidthMm / 1.5) / 1500;
    const s = focusMetres * 1000;
    const h = (focalMm * focalMm) / (fStop * c) + focalMm;
    const near = (s * (h - focalMm)) / (h + s - 2 * focalMm);
    return [near / 1000, s < h ? (s * (h - focalMm)) / (h - s) / 1000 : Infinity];
}
