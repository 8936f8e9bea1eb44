import type { Manifest } from '../../picture';
import type { Heard } from './sound.svelte';

/** All that is heard of a scene: what is said, as far as voices have read it, and its sounds. */
export function heardIn(manifest: Manifest | null): Heard[] {
    const said = (manifest?.lines ?? []).flatMap((l): Heard[] =>
        l.sound === null
            ? []
            : [
                  {
                      id: l.id,
                      start: l.start,
                      end: l.end,
                      sound: l.sound,
                      from: 'line',
                      offset: 0,
                      turn: 0,
                      repeats: false,
                      decibels: 0,
                      fadeIn: 0,
                      fadeOut: 0,
                      yields: false,
                  },
              ],
    );
    const sounds = (manifest?.sounds ?? []).flatMap(({ muted, ...s }): Heard[] => (muted ? [] : [{ ...s, from: 'kit' }]));
    return [...said, ...sounds];
}
