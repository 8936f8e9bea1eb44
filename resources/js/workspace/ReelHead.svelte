<script lang="ts">
    /** What the reel is called, how many shots it has, and the way to them as a list. */
    let { shots, width, list }: { shots: number; width: number; list: () => void } = $props();
</script>

<div class="absolute inset-y-0 left-0 z-10 flex flex-col justify-center border-r border-line bg-desk px-3" style:width={`${width}px`}>
    <strong>Reel</strong>
    {#if shots === 0}<span class="text-xs text-soft">no camera yet</span>
    {:else}<button
            class="text-left text-xs text-tide hover:underline"
            data-testid="open-shot-list"
            title="The shots as a list"
            onpointerdown={(e) => e.stopPropagation()}
            onclick={list}>{shots} {shots === 1 ? 'shot' : 'shots'}</button
        >{/if}
</div>
