import { describe, expect, it } from 'vitest';
import { angles, best, cameraOf, changes, cutsAt, filmed, sideOf } from '../../resources/js/workspace/cover/speakerCuts';
import type { FramingRow } from '../../resources/js/workspace/rows';

const framing = (cameraId: number, subjectId: number, more: Partial<FramingRow> = {}): FramingRow =>
    ({ id: 0, cameraId, subjectId, frame: 0, kind: 'single', part: 'face', ...more }) as FramingRow;

/** Camera 1 films both, 2 films Oda (10), 3 films Bram (11). */
const FRAMINGS = [framing(1, 10, { kind: 'together' }), framing(2, 10), framing(3, 11, { kind: 'overShoulder' })];
const SAID = [
    { item: 10, from: 24.2, to: 80 },
    { item: 11, from: 96.4, to: 150 },
    { item: 11, from: 160, to: 200 },
    { item: 10, from: 215, to: 260 },
];
const one = [{ camera: 1, in: 0, out: 300 }];

describe('changes of speaker', () => {
    it('are found where nobody has cut, with the camera that films who speaks then', () => {
        expect(changes(SAID, one, [1, 2, 3], FRAMINGS, 24)).toEqual([
            { frame: 95, speaker: 11, before: 10, camera: 3 },
            { frame: 214, speaker: 10, before: 11, camera: 2 },
        ]);
    });

    it('are none where a cut lies within three frames, or their camera is on air', () => {
        const cut = [
            { camera: 1, in: 0, out: 97 },
            { camera: 3, in: 97, out: 190 },
            { camera: 2, in: 190, out: 300 },
        ];
        expect(changes(SAID, cut, [1, 2, 3], FRAMINGS, 24)).toEqual([]);
        expect(changes(SAID, [], [1, 2, 3], FRAMINGS, 24)).toEqual([]);
    });

    it('a word between is none', () => {
        const word = [SAID[0]!, { item: 11, from: 85, to: 92 }, { item: 10, from: 95, to: 200 }];
        expect(changes(word, one, [1, 2, 3], FRAMINGS, 24)).toEqual([]);
    });

    it('are cut in one step; whom nobody films gets one camera for all of them', () => {
        const all = changes(SAID, one, [1, 2], FRAMINGS.slice(0, 2), 24);
        expect(
            cutsAt([...all, { frame: 280, speaker: 11, before: 10, camera: null }], {
                11: { subject: 'i11', size: 'closeUp', kind: 'single' },
            }),
        ).toEqual([
            { do: 'camera.frame', as: '$of11', subject: 'i11', frame: 95, size: 'closeUp', kind: 'single' },
            { do: 'shot.cut', camera: '$of11', frame: 95 },
            { do: 'shot.cut', camera: 2, frame: 214 },
            { do: 'shot.cut', camera: '$of11', frame: 280 },
        ]);
    });
});

describe('how somebody is filmed whom no camera films yet', () => {
    const setUp = (kind: string, size: string, crosses = false, family: 'one' | 'two' = 'one') => ({
        family,
        title: '',
        framing: { subject: 'i11', kind, size },
        view: { position: [0, 1, 2], rotation: [0, 0, 0, 1], focalMm: 50, focusMetres: 2, fStop: 4, sensorWidthMm: 25 },
        says: '',
        crosses,
    });
    it('is past a shoulder, else close, never across the line', () => {
        const all = [setUp('single', 'wide'), setUp('overShoulder', 'mediumCloseUp', true, 'two'), setUp('single', 'closeUp')];
        expect(best(all as never)?.size).toBe('closeUp');
        expect(best([...all, setUp('overShoulder', 'medium', false, 'two')] as never)?.kind).toBe('overShoulder');
        expect(best([setUp('single', 'wide', true)] as never)).toBeNull();
        // Its camera stands at z = 2: the other side of the line is not ours.
        expect(best(all as never, (place) => sideOf([0, 0], [1, 0], place) < 0)).toBeNull();
        expect(best(all as never, (place) => sideOf([0, 0], [1, 0], place) > 0)?.size).toBe('closeUp');
        expect(sideOf([0, 0], [1, 0], [5, 0])).toBe(0);
    });
});

describe('the angle of a line', () => {
    const cut = [
        { camera: 1, in: 0, out: 60 },
        { camera: 2, in: 60, out: 98 },
        { camera: 3, in: 98, out: 300 },
    ];
    it('is what is on air while it is said, without the frames around a cut', () => {
        expect(angles(cut, 24, 80)).toEqual([1, 2]);
        expect(angles(cut, 96, 150)).toEqual([3]);
        expect(angles(cut, 400, 410)).toEqual([]);
    });

    it('goes by what a camera was told last', () => {
        const turned = [...FRAMINGS, framing(2, 11, { frame: 120 })];
        expect(filmed(turned, 2, 100)?.subjectId).toBe(10);
        expect(filmed(turned, 2, 130)?.subjectId).toBe(11);
        // The one that was on air last comes first.
        expect(cameraOf(11, 130, cut.slice(0, 2), [1, 2, 3], turned)).toBe(2);
        expect(cameraOf(12, 130, cut, [1, 2, 3], turned)).toBeNull();
    });
});
