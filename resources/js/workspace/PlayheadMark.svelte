<script lang="ts">
    import { getDesk } from './context';
    import type { Timeline } from './timeline.svelte';

    let { line }: { line: Timeline } = $props();
    const { playhead } = getDesk();
</script>

<!-- Its head lies in the ruler, which takes the pointer: dragged by its head it goes along. -->
{#if line.x(playhead.frame) >= line.left}
    <div class="pointer-events-none absolute inset-y-0 z-20 w-px bg-buoy" style:left={`${line.x(playhead.frame)}px`}>
        <div
            class="absolute top-[11px] -left-[5px] h-0 w-0 border-x-[5.5px] border-t-[9px] border-x-transparent border-t-buoy"
            data-testid="playhead"
        ></div>
    </div>
{/if}
