<script lang="ts">
    import { getDesk } from '../context';
    import NumberField from './NumberField.svelte';

    interface Props {
        chosen: number | null;
        /** Width of the picture on the surface. */
        metres: number;
        choose: (picture: number | null) => void;
        spread: (metres: number) => void;
    }
    let { chosen, metres, choose, spread }: Props = $props();
    const { scene, kit } = getDesk();
    const pictures = $derived(scene.assets.filter((a) => a.kind === 'picture'));
</script>

<div data-testid="picture-picker">
    {#if pictures.length === 0}
        <p class="text-soft">
            There is no picture in the kit.
            <button class="text-tide hover:underline" onclick={() => kit.open('arrivals')}>Drop one into the kit room.</button>
        </p>
    {:else}
        <div class="grid max-h-32 grid-cols-4 gap-1 overflow-y-auto">
            {#each pictures as p (p.id)}
                <button
                    class={[
                        'aspect-square overflow-hidden rounded border-2',
                        chosen === p.id ? 'border-tide' : 'border-transparent hover:border-line',
                    ]}
                    aria-pressed={chosen === p.id}
                    title={p.name}
                    data-testid={`lay-${p.slug}`}
                    onclick={() => choose(chosen === p.id ? null : p.id)}
                    ><img class="h-full w-full object-cover" alt={p.name} loading="lazy" src={`/api/blobs/${p.blob}`} /></button
                >
            {/each}
        </div>
        {#if chosen !== null}
            <label class="mt-1 grid grid-cols-[1fr_72px] items-center gap-2 text-soft"
                >Width on it, m <NumberField label="Width of the picture (m)" value={metres} unit="m" save={spread} /></label
            >
        {/if}
    {/if}
</div>
