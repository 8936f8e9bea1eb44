<script lang="ts">
    import { getDesk } from '../context';
    import type { ExpressionRow } from '../rows';
    import { EMOTIONS, emotionWord } from '../speech/speech.svelte';
    import ChoiceRow from './ChoiceRow.svelte';
    import SliderRow from './SliderRow.svelte';
    import SpanFields from './SpanFields.svelte';

    let { expression }: { expression: ExpressionRow } = $props();
    const { scene } = getDesk();
    const set = (values: Record<string, unknown>) => scene.edit({ do: 'expression.set', expression: expression.id, ...values });
    const shapes = $derived(
        (scene.manifest?.items.find((i) => i.id === `i${expression.itemId}`)?.morphs ?? []).filter((m) => !/glint/.test(m)),
    );
    const amount = (m: string) => {
        const v = expression.shapes[m];
        return typeof v === 'number' ? v : 0;
    };
</script>

<p class="mb-2 text-sm font-semibold">
    Expression <span class="font-normal text-soft">of {scene.find('items', expression.itemId)?.name}</span>
</p>
<dl class="grid grid-cols-[52px_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
    <ChoiceRow
        word="Shows"
        label="What shows"
        value={expression.emotion}
        options={[['none', 'only what is set below'], ...EMOTIONS.map((e) => [e, emotionWord(e)] as const)]}
        save={(emotion) => set({ emotion })}
    />
    <SpanFields span={expression} {set} />
</dl>
<dl class="mt-1.5 grid grid-cols-[52px_minmax(0,1fr)_32px] items-center gap-x-2">
    <SliderRow
        word="Amount"
        help="1 is as strong as it is drawn"
        least={0}
        most={1.2}
        step={0.05}
        value={expression.amount}
        testid="amount"
        save={(a) => set({ amount: a })}
    />
</dl>
{#if shapes.length > 0 && scene.canEdit}
    <details class="mt-1">
        <summary class="cursor-pointer text-tide">Each shape of the face…</summary>
        <dl class="mt-1 grid max-h-40 grid-cols-[72px_1fr_32px] items-center gap-x-2 gap-y-1 overflow-auto">
            {#each shapes as m (m)}<SliderRow
                    word={m}
                    help="Added to what shows"
                    least={-1}
                    most={1.2}
                    step={0.05}
                    value={amount(m)}
                    save={(v) => set({ shapes: { [m]: v === 0 ? null : v } })}
                />{/each}
        </dl>
    </details>
{/if}
{#if scene.canEdit}<button
        class="mt-2 text-alarm hover:underline"
        title="Del"
        onclick={() => scene.edit({ do: 'expression.remove', expression: expression.id })}>Remove</button
    >{/if}
