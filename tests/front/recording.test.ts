import { describe, expect, it } from 'vitest';
import { columns, type Peaks } from '../../resources/js/workspace/speech/peaks.svelte';
import { soundOf } from '../../resources/js/workspace/speech/recorder.svelte';
import { median, wav } from '../../resources/js/workspace/speech/wav';

/** Two seconds at ten a second: silent, then loud from the second second on, softer at its end. */
const PEAKS: Peaks = {
    perSecond: 10,
    levels: Float32Array.from([0, 0, 0, 0, 0, 0, 0, 0, 0, 0, 1, 1, 1, 1, 1, 0.5, 0.5, 0.5, 0.5, 0.5]),
};

describe('peaks of a stretch', () => {
    it('are the loudest of each column', () => {
        expect(columns(PEAKS, 0, 2, 4)).toEqual([0, 0, 1, 0.5]);
        expect(columns(PEAKS, 1, 1, 2)).toEqual([1, 0.5]);
    });
    it('begin anew where the sound does', () => expect(columns(PEAKS, 1, 2, 4, 1)).toEqual([1, 0.5, 1, 0.5]));
    it('are silent after the end of the sound', () => expect(columns(PEAKS, 2, 1, 2)).toEqual([0, 0]));
    it('leave nothing out where columns are narrow', () => expect(columns(PEAKS, 0.95, 0.1, 1)).toEqual([0]));
});

describe('a recording', () => {
    it('is a file of 16 bits with a head that says so', async () => {
        const file = wav([Float32Array.from([0, 1]), Float32Array.from([-1, 2])], 48_000);
        const view = new DataView(await file.arrayBuffer());
        const text = (at: number) => String.fromCharCode(...[0, 1, 2, 3].map((k) => view.getUint8(at + k)));
        expect([text(0), text(8), text(12), text(36)]).toEqual(['RIFF', 'WAVE', 'fmt ', 'data']);
        expect([view.getUint32(4, true), view.getUint32(24, true), view.getUint32(28, true), view.getUint32(40, true)]).toEqual([
            44, 48_000, 96_000, 8,
        ]);
        // What is too loud is held, and does not turn over.
        expect([0, 1, 2, 3].map((k) => view.getInt16(44 + 2 * k, true))).toEqual([0, 32767, -32767, 32767]);
    });
    it('begins where most of its blocks say', () => expect(median([0.3, 9, 0.1, 0.2, 0.25])).toBe(0.25));
    it('begins at nought where nothing says', () => expect(median([])).toBe(0));
});

describe('what is dropped', () => {
    const data = (...names: string[]) => ({ files: names.map((n) => new File(['x'], n)) }) as unknown as DataTransfer;
    it('is speech where it is one sound', () => expect(soundOf(data('Said.WAV'))?.name).toBe('Said.WAV'));
    it('is something for the kit where it is anything else', () => {
        expect(soundOf(data('chair.glb'))).toBeNull();
        expect(soundOf(data('a.wav', 'b.wav'))).toBeNull();
        expect(soundOf(null)).toBeNull();
    });
});
