<script lang="ts">
    import { getDesk } from '../context';
    import { factsOf } from './facts';
    import Turntable from './Turntable.svelte';

    const { scene, kit } = getDesk();
    const WIDTH = 340;
    const HEIGHT = 330;
    const on = $derived.by(() => {
        const s = scene.selection;
        const id = s?.table === 'items' ? s.id : s?.table === 'beats' ? scene.find('beats', s.id)?.itemId : null;
        const item = id ? scene.find('items', id) : null;
        return item?.kind === 'performer' ? item : null;
    });
    const place = $derived.by(() => {
        const b = kit.hover?.box;
        if (!b) return { left: 0, top: 0 };
        const right = b.right + WIDTH + 16 < innerWidth;
        return {
            left: right ? b.right + 8 : Math.max(8, b.left - WIDTH - 8),
            top: Math.max(8, Math.min(innerHeight - HEIGHT - 8, b.top - 20)),
        };
    });
</script>

{#if kit.hover}
    {@const a = kit.hover.asset}
    <div
        class="pointer-events-none fixed z-50 flex flex-col overflow-hidden rounded border border-line bg-paper shadow-lg"
        style:left={`${place.left}px`}
        style:top={`${place.top}px`}
        style:width={`${WIDTH}px`}
        style:height={`${HEIGHT}px`}
        data-testid="hover-preview"
    >
        <div class="min-h-0 flex-1">
            {#if a.kind === 'picture'}<img
                    src={`/api/blobs/${a.picture ?? ''}`}
                    alt={a.name}
                    class="h-full w-full bg-surround object-contain"
                />{:else}<Turntable
                    path={`productions/${scene.production.id}/previews?asset=${a.id}${a.kind === 'motion' && on ? `&on=${on.assetId}` : ''}`}
                    label={a.name}
                />{/if}
        </div>
        <div class="p-2">
            <p class="truncate font-semibold">{a.name}{a.kind === 'motion' && on ? `, on ${on.name}` : ''}</p>
            <p class="line-clamp-2 text-xs text-soft">
                {factsOf(a.kind, a.facts, scene.rate)
                    .map(([n, v]) => `${n.toLowerCase()}: ${v}`)
                    .join(' · ')}
            </p>
        </div>
    </div>
{/if}
