import type { Playhead } from './playhead.svelte';
import type { Timeline } from './timeline.svelte';

/** Takes the playhead to where the pointer is pressed, and along until it is let go, wherever that is. */
export function scrubbing(line: Timeline, playhead: Playhead): (e: PointerEvent) => void {
    return (e) => {
        if (e.button !== 0) return;
        const left = (e.currentTarget as HTMLElement).getBoundingClientRect().left;
        const to = (at: PointerEvent) => playhead.go(line.frame(at.clientX - left));
        const end = () => {
            removeEventListener('pointermove', to);
            removeEventListener('pointerup', end);
            removeEventListener('pointercancel', end);
        };
        playhead.stop();
        to(e);
        addEventListener('pointermove', to);
        addEventListener('pointerup', end);
        addEventListener('pointercancel', end);
    };
}
