<script lang="ts">
    import { keepGuides, MASKS, NO_GUIDES, type Guides } from './guides';

    let { guides = $bindable() }: { guides: Guides } = $props();
    const on = $derived(JSON.stringify(guides) !== JSON.stringify(NO_GUIDES));
    let open = $state(false);

    function set(values: Partial<Guides>) {
        guides = { ...guides, ...values };
        keepGuides(guides);
    }
    const LINES = [
        ['thirds', 'Thirds'],
        ['safe', 'Safe for titles and action'],
        ['headroom', 'Head room'],
        ['focus', 'Tint what is not sharp'],
    ] as const;
</script>

<div class="relative">
    <button
        class={['rounded px-2 py-0.5', on ? 'bg-paper text-ink' : 'border border-white/25 hover:bg-white/10']}
        aria-expanded={open}
        data-testid="guides-menu"
        onclick={() => (open = !open)}>Guides</button
    >
    {#if open}
        <div class="absolute top-7 right-0 z-20 flex w-52 flex-col gap-1 rounded border border-line bg-paper p-2 text-ink shadow">
            <select
                class="rounded border-line bg-sheet py-0.5 text-xs"
                aria-label="Mask"
                value={String(guides.mask)}
                onchange={(e) => set({ mask: MASKS.find(([m]) => String(m) === e.currentTarget.value)?.[0] ?? null })}
            >
                {#each MASKS as [m, word] (word)}<option value={String(m)}>{word}</option>{/each}
            </select>
            {#each LINES as [name, word] (name)}
                <label class="flex items-center gap-2"
                    ><input
                        type="checkbox"
                        checked={guides[name]}
                        onchange={(e) => set({ [name]: e.currentTarget.checked })}
                    />{word}</label
                >
            {/each}
        </div>
    {/if}
</div>
