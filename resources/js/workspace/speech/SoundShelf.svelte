<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { getDesk } from '../context';
    import type { AssetRow } from '../rows';
    import AssetTile from '../trays/AssetTile.svelte';
    import MixPanel from './MixPanel.svelte';

    /** Sounds of the kit and of one's own: a click puts one where the playhead is, a drag on to a lane. */
    const { scene, playhead } = getDesk();
    let search = $state('');
    const words = $derived(search.toLowerCase().split(/\s+/));
    const found = $derived(
        scene.assets.filter(
            (a) => a.kind === 'sound' && !a.archived && words.every((w) => `${a.name} ${a.tags.join(' ')}`.toLowerCase().includes(w)),
        ),
    );

    async function use(a: AssetRow) {
        await scene.edit({ do: 'sound.add', asset: a.id, start: Math.round(playhead.frame) });
    }
</script>

<div class="flex h-full flex-col" data-testid="sound-shelf">
    <div class="border-b border-line p-2">
        <Input
            size="sm"
            placeholder="Search sounds"
            aria-label="Search sounds"
            bind:value={search}
            onkeydown={(e: KeyboardEvent) => e.stopPropagation()}
        />
        <p class="mt-1 text-xs text-soft">A click puts a sound at the playhead; drop files of your own anywhere.</p>
    </div>
    <div class="grid min-h-0 flex-1 auto-rows-min grid-cols-2 gap-2 overflow-auto p-2">
        {#each found as a (a.id)}<AssetTile asset={a} hint="Put it at the playhead" pick={() => use(a)} />{/each}
    </div>
    <MixPanel />
</div>
