<script lang="ts">
    import { getDesk } from '../context';

    /** A page of dialogue: names before colons become lines; each name that nobody has is asked about once. */
    let { page = $bindable(), done }: { page: string; done: () => void } = $props();
    const { scene, playhead } = getDesk();
    const EXAMPLE = 'Oda: Has he gone?\nBram (calls): Not yet!';
    const people = $derived(scene.rows.items.filter((i) => i.kind === 'performer'));
    const names = $derived([
        ...new Set(
            page
                .split('\n')
                .map((row) => /^\s*([\p{L}\p{N}][\p{L}\p{N} .'’-]{0,39}?)\s*(\([^)]*\))?\s*[:：]/u.exec(row)?.[1]?.trim() ?? '')
                .filter((n) => n !== ''),
        ),
    ]);
    const unknown = $derived(names.filter((n) => !people.some((p) => p.name.toLowerCase() === n.toLowerCase())));
    let meant = $state<Record<string, string>>({});

    async function take() {
        const who = Object.fromEntries(unknown.map((n) => [n, meant[n] ? Number(meant[n]) : '']));
        const first = scene.rows.lines.length === 0 ? { start: Math.round(playhead.frame) } : {};
        if (await scene.edit({ do: 'lines.paste', page, ...(unknown.length > 0 ? { who } : {}), ...first })) done();
    }
</script>

<textarea
    class="w-full resize-none rounded border-line bg-sheet p-1.5 text-xs"
    rows="7"
    aria-label="A page of dialogue"
    placeholder={EXAMPLE}
    data-testid="page"
    bind:value={page}
    onkeydown={(e) => e.stopPropagation()}></textarea>
{#each unknown as n (n)}
    <label class="mt-1 flex items-center gap-2 text-xs"
        ><span class="min-w-0 flex-1 truncate">Who is “{n}”?</span>
        <select class="w-24 rounded border-line bg-sheet py-0.5 text-xs" aria-label={`Who is ${n}`} bind:value={meant[n]}>
            <option value="">left out</option>
            {#each people as p (p.id)}<option value={String(p.id)}>{p.name}</option>{/each}
        </select></label
    >
{/each}
<div class="mt-1 flex gap-3 text-xs">
    <button
        class="rounded bg-tide px-2 py-0.5 font-semibold text-white disabled:opacity-50"
        disabled={names.length === 0}
        data-testid="take-page"
        onclick={take}>Make lines</button
    >
    <button class="text-soft hover:underline" onclick={done}>Leave it</button>
</div>
