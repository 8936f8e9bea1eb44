<script lang="ts">
    import type { AssetRow } from '../rows';

    let { asset, hint, pick }: { asset: AssetRow; hint: string; pick: () => void } = $props();

    const fact = $derived.by(() => {
        const f = asset.facts as { seconds?: number; travel?: number; loops?: boolean; size?: number[] };
        if (asset.kind === 'motion')
            return `${f.seconds?.toFixed(1) ?? '?'} s${f.loops ? ', loops' : ''}${f.travel && f.travel > 0.1 ? `, ${f.travel.toFixed(1)} m` : ''}`;
        return f.size ? f.size.map((s) => s.toFixed(s < 1 ? 2 : 1)).join(' x ') + ' m' : '';
    });

    function start(e: DragEvent) {
        e.dataTransfer?.setData('application/x-crisp-asset', String(asset.id));
        if (e.dataTransfer) e.dataTransfer.effectAllowed = 'copy';
    }
</script>

<button
    class="group overflow-hidden rounded border border-line bg-sheet text-left hover:border-tide focus-visible:border-tide"
    draggable="true"
    ondragstart={start}
    onclick={pick}
    title={`${hint}. ${asset.credit}, ${asset.licence}`}
    data-testid={`asset-${asset.slug}`}
>
    <span class="block aspect-[4/3] w-full overflow-hidden bg-[#d8cfbd]">
        {#if asset.picture}
            <img src={`/api/blobs/${asset.picture}`} alt="" class="h-full w-full object-cover" draggable="false" loading="lazy" />
        {:else}
            <span class="grid h-full place-items-center text-2xl font-bold text-soft/50">{asset.name.slice(0, 1)}</span>
        {/if}
    </span>
    <span class="block px-2 py-1">
        <span class="block truncate font-semibold">{asset.name}</span>
        <span class="mono block truncate text-[10px] text-soft">{fact}</span>
    </span>
</button>
