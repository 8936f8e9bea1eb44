import type { Manifest } from '../../picture';
import type { MixRow } from '../rows';
import type { Heard } from './sound.svelte';

/** The mix of a scene in which nobody has changed it. */
export const EVEN: MixRow = { speech: 0, steps: 0, effects: 0, ambience: 0, music: 0, muted: [], lowered: 14, happens: false };

export type MixLane = MixRow['muted'][number];

/** All that may be heard of a scene, as loud as by itself: what is said, as far as voices have read it, its sounds, and what happens. */
function all(manifest: Manifest): Heard[] {
    const plain = { offset: 0, turn: 0, repeats: false, decibels: 0, fadeIn: 0, fadeOut: 0, yields: false, curve: [] };
    const said = manifest.lines.flatMap((l): Heard[] =>
        l.sound === null ? [] : [{ ...plain, id: l.id, start: l.start, end: l.end, sound: l.sound, from: 'line', lane: 'speech' }],
    );
    const sounds = manifest.sounds.flatMap(({ muted, ...s }): Heard[] => (muted ? [] : [{ ...s, from: 'kit' }]));
    const noises = manifest.noises.map(([what, item, sound, start, end, offset, turn, repeats, decibels, fade]): Heard => ({
        ...plain,
        id: `${what} ${item} ${start}`,
        sound,
        start,
        end,
        offset,
        turn,
        repeats,
        decibels,
        fadeIn: fade,
        fadeOut: fade,
        from: 'kit',
        lane: 'steps',
    }));
    return [...said, ...sounds, ...noises];
}

/**
 * What is heard of a scene with the lanes as loud as the mix has them.
 *
 * @param solo the one lane that is heard, here and now only; null: all that are not muted
 */
export function heardIn(manifest: Manifest | null, mix: MixRow, solo: MixLane | null): Heard[] {
    return (manifest ? all(manifest) : []).flatMap((s): Heard[] => {
        const lane = s.lane as MixLane;
        const silent = solo === null ? mix.muted.includes(lane) : lane !== solo;
        return silent ? [] : [{ ...s, decibels: s.decibels + mix[lane] }];
    });
}
