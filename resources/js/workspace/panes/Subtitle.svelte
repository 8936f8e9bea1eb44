<script lang="ts">
    import { getDesk } from '../context';
    import { tapeColour } from '../rows';

    /** What is said at the playhead, in the picture. */
    const { scene, playhead, view } = getDesk();
    const now = $derived(
        view.subtitles ? (scene.manifest?.lines ?? []).filter((l) => l.from - 2 <= playhead.frame && playhead.frame < l.to + 4) : [],
    );
    const speakers = $derived(new Set((scene.manifest?.lines ?? []).map((l) => l.item)).size);
</script>

{#if now.length > 0}
    <div class="pointer-events-none absolute inset-x-0 bottom-[5%] flex flex-col items-center gap-1 px-[8%]" data-testid="subtitle">
        {#each now as l (l.id)}
            <p class="rounded bg-ink/75 px-2 py-0.5 text-center text-[13px] text-white">
                {#if speakers > 1}<span
                        class="mr-1 inline-block h-2 w-2 rounded-sm"
                        style:background={tapeColour(scene.manifest?.items.find((i) => i.id === l.item)?.tape ?? 0)}
                    ></span>{/if}{l.heard}
            </p>
        {/each}
    </div>
{/if}
