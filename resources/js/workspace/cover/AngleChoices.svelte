<script lang="ts">
    import type { FramingRow } from '../rows';
    import { HEIGHTS, SIDES } from './setups';

    /** From which side, and from how high. */
    let { side = $bindable(), height = $bindable() }: { side: number; height: FramingRow['height'] } = $props();
</script>

<div class="flex flex-wrap gap-1" role="group" aria-label="From which side">
    {#each SIDES as [deg, word, says] (deg)}
        <button
            class={['rounded border px-1.5 py-0.5 text-[11px]', side === deg ? 'border-tide bg-tide text-white' : 'border-line bg-sheet']}
            title={says}
            aria-pressed={side === deg}
            onclick={() => (side = deg)}>{word}</button
        >
    {/each}
</div>
<div class="flex flex-wrap gap-1" role="group" aria-label="From which height">
    {#each HEIGHTS as [h, word] (h)}
        <button
            class={['rounded border px-1.5 py-0.5 text-[11px]', height === h ? 'border-tide bg-tide text-white' : 'border-line bg-sheet']}
            aria-pressed={height === h}
            onclick={() => (height = h)}>{word}</button
        >
    {/each}
</div>
