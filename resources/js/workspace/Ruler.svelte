<script lang="ts">
    import { timecode } from '../lib/time';
    import { getDesk } from './context';
    import { ticks } from './ruler';
    import { scrubbing } from './scrub';
    import type { Timeline } from './timeline.svelte';

    let { line }: { line: Timeline } = $props();
    const { scene, playhead } = getDesk();

    const marks = $derived(ticks(line.from, Math.min(scene.frames, line.from + line.shown), line.perFrame, scene.rate));
    const scrub = $derived(scrubbing(line, playhead));
</script>

<div
    class="relative h-5 shrink-0 cursor-col-resize touch-none overflow-hidden border-b border-line bg-paper select-none"
    role="slider"
    tabindex="-1"
    aria-label="Time"
    aria-valuemin={0}
    aria-valuemax={scene.frames - 1}
    aria-valuenow={playhead.frame}
    aria-valuetext={timecode(playhead.frame, scene.rate)}
    data-testid="ruler"
    title="Click to go there, drag to look through"
    onpointerdown={scrub}
>
    {#each marks as t (t.frame)}
        <span class={['absolute bottom-0 w-px bg-soft', t.label === '' ? 'h-1.5 opacity-50' : 'h-3']} style:left={`${line.x(t.frame)}px`}
        ></span>
        {#if t.label !== ''}
            <span class="mono absolute top-0 text-[10px] text-soft" style:left={`${line.x(t.frame) + 3}px`}>{t.label}</span>
        {/if}
    {/each}
</div>
