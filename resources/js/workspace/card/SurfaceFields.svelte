<script lang="ts">
    import { call } from '../../lib/api';
    import { Surfaces, type Surface, type Variant } from '../answers';
    import { getDesk } from '../context';
    import type { ItemRow } from '../rows';
    import PicturePicker from './PicturePicker.svelte';

    let { item }: { item: ItemRow } = $props();
    const { scene } = getDesk();

    const FINISHES = ['', 'matt', 'satin', 'gloss', 'metal'];
    /** Share of the whole below which a surface is listed only when all are asked for. */
    const SMALL = 0.004;

    let open = $state(false);
    let all = $state(false);
    let every = $state(false);
    /** The surface whose pictures are shown. */
    let picking = $state('');
    let surfaces = $state.raw<Surface[]>([]);
    /** Sets of materials that the file offers. */
    let variants = $state.raw<Variant[]>([]);

    const source = $derived(
        `${item.id} ${item.assetId} ${item.pinned ?? ''} ${scene.asset(item.assetId)?.version ?? 0} ${item.surfaces['*']?.variant ?? ''}`,
    );
    const alike = $derived(scene.rows.items.filter((i) => i.assetId === item.assetId).length);
    const dressed = $derived(Object.keys(item.surfaces).length);
    const shown = $derived(every ? surfaces : surfaces.filter((s) => s.share >= SMALL || item.surfaces[s.key]));

    $effect(() => {
        if (!open) return;
        const wanted = source;
        void call(Surfaces, 'GET', `scenes/${scene.id}/items/${item.id}/surfaces`).then((got) => {
            if (wanted === source) [surfaces, variants] = [got.surfaces, got.variants];
        });
    });

    const dress = (key: string, wish: Record<string, unknown>) =>
        scene.edit({ do: 'item.dress', item: item.id, surface: key, all: all && alike > 1, ...wish });
</script>

<details class="mt-2 border-t border-line pt-2" bind:open data-testid="surfaces">
    <summary class="cursor-pointer font-semibold"
        >Surfaces{#if dressed > 0}<span class="ml-1 font-normal text-soft">{dressed} changed</span>{/if}</summary
    >
    {#if alike > 1}
        <div class="mt-1.5 flex gap-1" role="group" aria-label="For which">
            {#each [false, true] as which (which)}
                <button
                    class={['rounded border px-1.5', all === which ? 'border-tide bg-tide text-white' : 'border-line hover:bg-desk']}
                    aria-pressed={all === which}
                    onclick={() => (all = which)}>{which ? `all ${alike} like it` : 'this one'}</button
                >
            {/each}
        </div>
    {/if}
    {#if variants.length > 0}
        <div class="mt-1.5 flex flex-wrap gap-1" role="group" aria-label="Variant">
            {#each variants as v (v.name)}
                {@const on = item.surfaces['*']?.variant === v.name}
                <button
                    class={[
                        'flex items-center gap-1 rounded border px-1.5',
                        on ? 'border-tide ring-1 ring-tide' : 'border-line hover:bg-desk',
                    ]}
                    aria-pressed={on}
                    data-testid={`variant-${v.name}`}
                    onclick={() => dress('*', { variant: on ? null : v.name })}
                    ><span class="h-3 w-3 rounded-sm border border-line" style:background={v.colour}></span>{v.name}</button
                >
            {/each}
        </div>
    {/if}
    <ul class="mt-1.5 space-y-1">
        {#each shown as s (s.key)}
            {@const wish = item.surfaces[s.key]}
            <li>
                <div class="grid grid-cols-[24px_1fr_auto_16px] items-center gap-1" data-testid={`surface-${s.key}`}>
                    <input
                        type="color"
                        class="h-5 w-6 cursor-pointer rounded border border-line bg-sheet p-0"
                        aria-label={`Colour of ${s.name}`}
                        value={wish?.colour ?? s.colour}
                        onchange={(e) => dress(s.key, { colour: e.currentTarget.value })}
                    />
                    <span class="truncate" title={s.name}>{s.name}</span>
                    <button
                        class="flex h-5 items-center gap-1 overflow-hidden rounded border border-line px-1 hover:bg-desk"
                        aria-label={`Finish and picture of ${s.name}`}
                        title="Finish and picture"
                        aria-expanded={picking === s.key}
                        onclick={() => (picking = picking === s.key ? '' : s.key)}
                        >{#if wish?.finish}{wish.finish}{/if}{#if wish?.picture}<img
                                class="h-4 w-4 object-cover"
                                alt=""
                                src={`/api/blobs/${scene.asset(wish.picture)?.blob ?? ''}`}
                            />{/if}{#if !wish?.finish && !wish?.picture}…{/if}</button
                    >
                    {#if wish}<button
                            class="text-soft hover:text-ink"
                            aria-label={`${s.name} as it came`}
                            title="As it came"
                            onclick={() => dress(s.key, { reset: true })}>×</button
                        >{/if}
                </div>
                {#if picking === s.key}
                    <div class="mt-1 rounded bg-desk p-1.5">
                        <div class="mb-1.5 flex gap-1" role="group" aria-label={`Finish of ${s.name}`}>
                            {#each FINISHES as f (f)}
                                <button
                                    class={[
                                        'flex-1 rounded border py-0.5 whitespace-nowrap',
                                        (wish?.finish ?? '') === f ? 'border-tide bg-tide text-white' : 'border-line bg-sheet',
                                    ]}
                                    aria-pressed={(wish?.finish ?? '') === f}
                                    onclick={() => dress(s.key, { finish: f || null })}>{f || 'own'}</button
                                >
                            {/each}
                        </div>
                        <PicturePicker
                            chosen={wish?.picture ?? null}
                            metres={wish?.metres ?? 1}
                            choose={(picture) => dress(s.key, { picture })}
                            spread={(metres) => dress(s.key, { metres })}
                        />
                    </div>
                {/if}
            </li>
        {/each}
    </ul>
    <div class="mt-1.5 flex gap-3">
        {#if shown.length < surfaces.length}<button class="text-tide hover:underline" onclick={() => (every = true)}
                >{surfaces.length - shown.length} small ones</button
            >{/if}
        {#if dressed > 0}<button
                class="text-tide hover:underline"
                data-testid="undress"
                onclick={() => scene.edit({ do: 'item.dress', item: item.id, reset: true, all: all && alike > 1 })}>All as it came</button
            >{/if}
    </div>
</details>
