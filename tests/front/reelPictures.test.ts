import { expect, it } from 'vitest';
import type { Manifest, ManifestShot } from '../../resources/js/picture';
import { keyOf } from '../../resources/js/workspace/reelPictures';

const manifest = (oda: string, camera = 'x', mood = 'dusk') =>
    ({
        mood,
        pieceFrames: 48,
        items: [
            { id: 'i1', track: { pieces: ['a', oda, 'c'] } },
            { id: 'i2', track: { still: [1, 2] } },
        ],
        cameras: [
            { id: 'c1', track: { pieces: ['p', camera, 'r'] } },
            { id: 'c2', track: { pieces: ['p', 'other', 'r'] } },
        ],
    }) as unknown as Manifest;
const shot = { id: 's1', camera: 'c1', in: 50, out: 90 } as ManifestShot;

it('a picture of a shot is drawn anew when anything that it shows changes, and only then', () => {
    const key = keyOf(manifest('b'), shot);
    expect(keyOf(manifest('b'), shot)).toBe(key);
    expect(keyOf(manifest('moved'), shot)).not.toBe(key);
    expect(keyOf(manifest('b', 'turned'), shot)).not.toBe(key);
    expect(keyOf(manifest('b', 'x', 'fog'), shot)).not.toBe(key);
    // Eight frames in, in the second piece; a short one in its middle.
    expect(key.split('|')[1]).toBe('58');
    expect(keyOf(manifest('b'), { ...shot, out: 54 }).split('|')[1]).toBe('52');
    // What another camera does, or another piece, is not seen.
    const elsewhere = { ...shot, in: 100, out: 140 };
    expect(keyOf(manifest('moved'), elsewhere)).toBe(keyOf(manifest('b'), elsewhere));
});
