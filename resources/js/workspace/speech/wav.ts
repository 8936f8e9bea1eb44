/** Samples of one channel, -1 to 1, as a RIFF WAVE file of 16 bits. */
export function wav(blocks: Float32Array[], rate: number): Blob {
    const count = blocks.reduce((n, b) => n + b.length, 0);
    const view = new DataView(new ArrayBuffer(44 + 2 * count));
    const text = (at: number, s: string) => [...s].forEach((c, i) => view.setUint8(at + i, c.charCodeAt(0)));
    text(0, 'RIFF');
    view.setUint32(4, 36 + 2 * count, true);
    text(8, 'WAVEfmt ');
    view.setUint32(16, 16, true);
    view.setUint16(20, 1, true);
    view.setUint16(22, 1, true);
    view.setUint32(24, rate, true);
    view.setUint32(28, 2 * rate, true);
    view.setUint16(32, 2, true);
    view.setUint16(34, 16, true);
    text(36, 'data');
    view.setUint32(40, 2 * count, true);
    let at = 44;
    for (const block of blocks)
        for (const s of block) {
            view.setInt16(at, Math.round(32767 * Math.max(-1, Math.min(1, s))), true);
            at += 2;
        }
    return new Blob([view], { type: 'audio/wav' });
}

/** The middle one of some numbers. */
export function median(of: number[]): number {
    const sorted = [...of].sort((a, b) => a - b);
    return sorted[Math.floor(sorted.length / 2)] ?? 0;
}
