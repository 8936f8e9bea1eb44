import type { Manifest } from '../../picture';
import type { MixRow } from '../rows';
import type { Heard } from './loudness';

/** Where sounds are heard from, for lanes that are heard from the camera: frames, decibels, sides; noises in the manifest's order. */
export interface Places {
    lines: Record<string, Heard['placed']>;
    sounds: Record<string, Heard['placed']>;
    noises: Heard['placed'][];
}

export const NOWHERE: Places = { lines: {}, sounds: {}, noises: [] };

/** The mix of a scene in which nobody has changed it. */
export const EVEN: MixRow = {
    speech: 0,
    steps: 0,
    effects: 0,
    ambience: 0,
    music: 0,
    muted: [],
    lowered: null,
    happens: false,
    placed: [],
};

export type MixLane = MixRow['muted'][number];

export type MixPlace = MixRow['placed'][number];

/** All that may be heard of a scene, as loud as by itself: what is said, as far as voices have read it, its sounds, and what happens. */
function all(manifest: Manifest, places: Places): Heard[] {
    const plain = { offset: 0, turn: 0, repeats: false, decibels: 0, fadeIn: 0, fadeOut: 0, yields: false, curve: [], placed: [] };
    const said = manifest.lines.flatMap((l): Heard[] =>
        l.sound === null
            ? []
            : [
                  {
                      ...plain,
                      id: l.id,
                      start: l.start,
                      end: l.end,
                      sound: l.sound,
                      from: 'line',
                      lane: 'speech',
                      placed: places.lines[l.id] ?? [],
                  },
              ],
    );
    const sounds = manifest.sounds.flatMap(({ muted, ...s }): Heard[] =>
        muted ? [] : [{ ...s, from: 'kit', placed: places.sounds[s.id] ?? [] }],
    );
    const noises = manifest.noises.map(([what, item, sound, start, end, offset, turn, repeats, decibels, fade], k): Heard => ({
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
        placed: places.noises[k] ?? [],
    }));
    return [...said, ...sounds, ...noises];
}

/**
 * What is heard of a scene with the lanes as loud as the mix has them.
 *
 * @param solo the one lane that is heard, here and now only; null: all that are not muted
 */
export function heardIn(manifest: Manifest | null, mix: MixRow, solo: MixLane | null, places: Places = NOWHERE): Heard[] {
    return (manifest ? all(manifest, places) : []).flatMap((s): Heard[] => {
        const lane = s.lane as MixLane;
        const silent = solo === null ? mix.muted.includes(lane) : lane !== solo;
        return silent ? [] : [{ ...s, decibels: s.decibels + mix[lane] }];
    });
}
