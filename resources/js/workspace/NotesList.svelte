<script lang="ts">
    import { timecode } from '../lib/time';
    import { getDesk } from './context';
    import { Lookout } from './cover/lookout.svelte';
    import type { ManifestNote } from '../picture';

    const { scene, playhead } = getDesk();
    const lookout = new Lookout();
    const notes = $derived([...(scene.manifest?.notes ?? []), ...lookout.notes]);
    $effect(() => {
        void scene.manifest?.state;
        if (scene.rows.framings.length === 0) return lookout.none();
        if (playhead.playing) return;
        return lookout.ask(scene.id);
    });
    let open = $state(false);

    function go(n: ManifestNote) {
        open = false;
        playhead.stop();
        if (n.frames) playhead.go(n.frames[0]);
        const at = n.about.find((id) => id.startsWith('b')) ?? n.about[0];
        const tables = { b: 'beats', c: 'cameras' } as const;
        if (at) scene.select(tables[at[0] as 'b' | 'c'] ?? 'items', Number(at.slice(1)));
    }

    function mend(n: ManifestNote, mend: ManifestNote['mends'][number]) {
        go(n);
        void scene.edit(...mend.commands);
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
                        <span class="mono float-right text-soft">{n.frames ? timecode(n.frames[0], scene.rate) : ''}</span>
                        <span class="font-semibold">{n.sentence}</span>
                        <span class="block text-soft">{n.remedy}</span>
                    </button>
                    {#if scene.canEdit && n.mends.length > 0}
                        <p class="flex gap-2 px-2 pb-2">
                            {#each n.mends as m (m.words)}
                                <button
                                    class="rounded border border-line px-1.5 py-0.5 text-tide hover:bg-desk"
                                    data-testid={`mend-${i}`}
                                    onclick={() => mend(n, m)}>{m.words}</button
                                >
                            {/each}
                        </p>
                    {/if}
                </li>
            {/each}
        </ul>
    {/if}
</div>
