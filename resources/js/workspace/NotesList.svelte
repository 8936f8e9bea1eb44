<script lang="ts">
    import { timecode } from '../lib/time';
    import { getDesk } from './context';
    import type { ManifestNote } from '../picture';

    const { scene, playhead } = getDesk();
    const notes = $derived(scene.manifest?.notes ?? []);
    let open = $state(false);

    function go(n: ManifestNote) {
        open = false;
        playhead.stop();
        playhead.go(n.frame);
        if (n.beat) scene.select('beats', Number(n.beat.slice(1)));
        else scene.select('items', Number(n.item.slice(1)));
    }
</script>

<svelte:window onkeydown={(e) => e.key === 'Escape' && (open = false)} />

<div class="relative">
    <button
        class={['rounded px-1.5 py-0.5 text-xs', notes.length > 0 ? 'font-semibold text-buoy hover:bg-desk' : 'text-soft']}
        disabled={notes.length === 0}
        aria-expanded={open}
        data-testid="notes"
        onclick={() => (open = !open)}>notes: {notes.length === 0 ? 'none' : notes.length}</button
    >
    {#if open && notes.length > 0}
        <ul class="absolute top-8 right-0 z-40 max-h-96 w-80 overflow-auto rounded border border-line bg-sheet p-1 text-xs shadow-lg">
            {#each notes as n, i (i)}
                <li>
                    <button class="w-full rounded p-2 text-left hover:bg-desk" data-testid={`note-${i}`} onclick={() => go(n)}>
                        <span class="mono float-right text-soft">{timecode(n.frame, scene.rate)}</span>
                        <span class="font-semibold">{n.text}</span>
                        <span class="block text-soft">{n.remedy}</span>
                    </button>
                </li>
            {/each}
        </ul>
    {/if}
</div>
