<script lang="ts">
    import { Button, Input } from 'flowbite-svelte';
    import type { ArrivalRow } from './answers';

    interface Props {
        arrival: ArrivalRow;
        /** It has a skeleton that was fitted to it. */
        fitted: boolean;
        /** It could be given a skeleton. */
        stiff: boolean;
        /** The next click on the picture says where it is moved by. */
        pivoting: boolean;
        beside: boolean;
        mark: () => void;
        point: () => void;
        set: (code: string, value: unknown, what: string) => void;
    }
    let { arrival, fitted, stiff, pivoting, beside = $bindable(), mark, point, set }: Props = $props();
    let height = $state('');
    const turned = $derived(Number((arrival.choices.turn as { degrees?: number } | undefined)?.degrees ?? 0));
    const moved = $derived((arrival.choices.pivot as { to?: string } | undefined)?.to ?? '');

    function grow(e: SubmitEvent) {
        e.preventDefault();
        const metres = Number.parseFloat(height.replace(',', '.')) * (height.trim().endsWith('cm') ? 0.01 : 1);
        if (Number.isFinite(metres) && metres > 0) set('grow', { height: metres }, 'grow');
    }
</script>

<div class="flex flex-wrap items-center gap-2 text-xs" data-testid="model-tools">
    <label class="flex items-center gap-1.5"
        ><input type="checkbox" class="rounded border-line text-tide" bind:checked={beside} /> a person beside it</label
    >
    {#if stiff}<Button size="xs" color="alternative" onclick={mark} data-testid="mark"
            >{fitted ? 'Its skeleton…' : 'Give it a skeleton…'}</Button
        >{/if}
    <span class="ml-auto text-soft">Moved by its</span>
    {#each ['base', 'centre'] as to (to)}
        <Button
            size="xs"
            color={moved === to ? 'primary' : 'alternative'}
            data-testid={`pivot-${to}`}
            aria-pressed={moved === to}
            onclick={() => set('pivot', { to }, 'pivot')}>{to}</Button
        >
    {/each}
    <Button size="xs" color={pivoting || moved === 'point' ? 'primary' : 'alternative'} data-testid="pivot-point" onclick={point}
        >{pivoting ? 'click the point…' : 'a point'}</Button
    >
    <Button
        size="xs"
        color="alternative"
        data-testid="turn"
        onclick={() => set('turn', { about: 'y', degrees: (turned + 90) % 360 }, 'turn')}>turn by 90°</Button
    >
    <form class="flex items-center gap-1" onsubmit={grow}>
        <Input
            size="sm"
            class="w-20 py-1 text-xs"
            placeholder="1.75 m"
            aria-label="Height in metres"
            bind:value={height}
            onkeydown={(e: KeyboardEvent) => e.stopPropagation()}
        />
        <Button size="xs" color="alternative" type="submit">tall</Button>
    </form>
</div>
