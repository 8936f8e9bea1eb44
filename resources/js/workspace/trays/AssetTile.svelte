<script lang="ts">
    import { getDesk } from '../context';
    import { tapeColour, type AssetRow } from '../rows';

    let { asset, hint, pick, tall = false }: { asset: AssetRow; hint: string; pick: () => void; tall?: boolean } = $props();
    const { kit } = getDesk();

    const fact = $derived.by(() => {
        const f = asset.facts as { seconds?: number; travel?: number; loops?: boolean; size?: number[]; pixels?: number[] };
        if (asset.kind === 'picture') return f.pixels ? `${f.pixels.join(' x ')} px` : '';
        if (asset.kind === 'sound') return `${f.seconds?.toFixed(1) ?? '?'} s${f.loops ? ', loops' : ''}`;
        if (asset.kind === 'motion')
            return `${f.seconds?.toFixed(1) ?? '?'} s${f.loops ? ', loops' : ''}${f.travel && f.travel > 0.1 ? `, ${f.travel.toFixed(1)} m` : ''}`;
        if (asset.kind === 'performer' && f.size) return `${(f.size[1] ?? 0).toFixed(2)} m tall`;
        return f.size ? f.size.map((s) => s.toFixed(s < 1 ? 2 : 1)).join(' x ') + ' m' : '';
    });

    function start(e: DragEvent) {
        e.dataTransfer?.setData('application/x-crisp-asset', String(asset.id));
        kit.leave();
        if (e.dataTransfer) e.dataTransfer.effectAllowed = 'copy';
    }
</script>

<button
    class={[
        'group relative overflow-hidden rounded border border-line bg-sheet text-left hover:border-tide focus-visible:border-tide',
        'flex flex-col',
        tall ? 'h-full w-full' : '',
    ]}
    onpointerenter={(e) => kit.rest(asset, e.currentTarget.getBoundingClientRect())}
    onpointerleave={() => kit.leave()}
    onfocus={(e) => e.currentTarget.matches(':focus-visible') && kit.rest(asset, e.currentTarget.getBoundingClientRect())}
    onblur={() => kit.leave()}
    draggable="true"
    ondragstart={start}
    onclick={() => {
        kit.leave();
        pick();
    }}
    title={`${hint}. ${asset.credit}, ${asset.licence}`}
    data-testid={`asset-${asset.slug}`}
>
    <span class={['block w-full overflow-hidden bg-[#d8cfbd]', tall ? 'min-h-0 flex-1' : 'aspect-[4/3]']}>
        {#if asset.picture}
            <img
                src={`/api/blobs/${asset.picture}`}
                alt=""
                class="h-full w-full object-cover"
                draggable="false"
                loading="lazy"
                decoding="async"
            />
        {:else}
            <span class="grid h-full place-items-center text-2xl font-bold text-soft/50">{asset.name.slice(0, 1)}</span>
        {/if}
    </span>
    {#if asset.colour !== null}<span class="absolute top-1 left-1 h-3 w-3 rounded-sm" style:background={tapeColour(asset.colour)}
        ></span>{/if}
    <span class="block px-2 py-1">
        <span class={['font-semibold', tall ? 'block truncate' : 'line-clamp-2 leading-tight']}>{asset.name}</span>
        <span class="mono block truncate text-[10px] text-soft">{fact}</span>
    </span>
</button>
