<script lang="ts">
    import { getDesk } from '../context';
    import type { ItemRow } from '../rows';
    import SliderRow from './SliderRow.svelte';

    let { item }: { item: ItemRow } = $props();
    const { scene } = getDesk();

    const KINDS = ['silk', 'cotton', 'wool', 'oilskin', 'canvas', 'leather'];
    const SLIDERS = [
        ['grams', 'Weight', 20, 1500, 10, 'Grams of a square metre'],
        ['bend', 'Stands', 0, 1, 0.01, '0 falls like silk, 1 stands like card'],
        ['catch', 'Wind', 0, 3, 0.05, 'How well it catches the wind; 1 as a plain sheet'],
        ['damping', 'Calms', 0, 0.99, 0.01, 'Share of its speed that it loses in a second'],
    ] as const;
    const kind = $derived(item.cloth?.kind ?? '');
    /** All its numbers, those of its kind and those set by hand. */
    const numbers = $derived(scene.manifest?.items.find((i) => i.id === `i${item.id}`)?.cloth ?? null);
</script>

<details class="mt-2 border-t border-line pt-2" open={item.cloth !== null} data-testid="cloth">
    <summary class="cursor-pointer font-semibold">Cloth</summary>
    <select
        class="mt-1.5 w-full rounded border-line bg-sheet py-0.5 text-xs"
        aria-label="What it is made of"
        value={kind}
        onchange={(e) =>
            scene.edit({ do: 'item.set', item: item.id, cloth: e.currentTarget.value ? { kind: e.currentTarget.value } : null })}
        ><option value="">as its file says</option>{#each KINDS as k (k)}<option value={k}>{k}</option>{/each}</select
    >
    {#if item.cloth}
        <dl class="mt-1.5 grid grid-cols-[46px_1fr_40px] items-center gap-x-2 gap-y-1">
            {#each SLIDERS as [name, word, least, most, step, help] (name)}
                <SliderRow
                    {word}
                    {help}
                    {least}
                    {most}
                    {step}
                    value={item.cloth?.[name] ?? numbers?.[name] ?? 0}
                    save={(value) => scene.edit({ do: 'item.set', item: item.id, cloth: { ...item.cloth, kind, [name]: value } })}
                />
            {/each}
        </dl>
    {/if}
</details>
