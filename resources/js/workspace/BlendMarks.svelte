<script lang="ts">
    import { getDesk } from './context';
    import type { Timeline } from './timeline.svelte';

    /** Where the reel dissolves and fades, drawn over its shots. */
    let { line }: { line: Timeline } = $props();
    const { scene } = getDesk();
    const blends = $derived(scene.manifest?.blends ?? []);
</script>

{#each blends as b (b.from)}
    <svg
        class="pointer-events-none absolute top-1.5 h-[58px] overflow-visible"
        style:left={`${line.x(b.from)}px`}
        style:width={`${(b.to - b.from) * line.perFrame}px`}
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        data-testid="blend"
        aria-hidden="true"
    >
        {#if b.a}<path d="M0 0 L100 100 L0 100 Z" fill={b.colour ?? 'none'} fill-opacity="0.55" />{/if}
        {#if b.b}<path d="M0 100 L100 0 L100 100 Z" fill={b.colour ?? 'none'} fill-opacity={b.a ? 0 : 0.55} />{/if}
        {#if b.a}<path d="M0 0 L100 100" class="stroke-white" stroke-width="2" vector-effect="non-scaling-stroke" />{/if}
        {#if b.b}<path d="M0 100 L100 0" class="stroke-white" stroke-width="2" vector-effect="non-scaling-stroke" />{/if}
    </svg>
{/each}
