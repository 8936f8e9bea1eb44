<script lang="ts">
    import { Button, Input } from 'flowbite-svelte';
    import { getDesk } from '../context';
    import { STYLES } from '../kit/facts';
    import { filesOf } from '../kit/kit.svelte';
    import type { AssetRow } from '../rows';
    import AssetTile from './AssetTile.svelte';

    const { scene, view, kit } = getDesk();
    let search = $state('');
    let kind = $state<'all' | 'performer' | 'set' | 'prop' | 'picture'>('all');
    const kinds = [
        ['all', 'All'],
        ['performer', 'People'],
        ['set', 'Sets'],
        ['prop', 'Props'],
        ['picture', 'Pictures'],
    ] as const;

    const found = $derived(
        scene.assets.filter((a) => {
            if (kind === 'all' ? !['performer', 'set', 'prop'].includes(a.kind) : a.kind !== kind) return false;
            const text = `${a.name} ${a.tags.join(' ')}`.toLowerCase();
            return search
                .toLowerCase()
                .split(/\s+/)
                .every((w) => text.includes(w));
        }),
    );

    /** Styles of what stands in the scene, the commonest first; the far background does not count. */
    const styles = $derived.by(() => {
        const by: Record<string, number> = {};
        for (const i of scene.rows.items) {
            const style = scene.asset(i.assetId)?.facts.style;
            if (typeof style === 'string') by[style] = (by[style] ?? 0) + 1;
        }
        return Object.entries(by).sort((a, b) => b[1] - a[1]);
    });

    async function add(a: AssetRow) {
        if (a.kind === 'picture') {
            scene.notice = {
                kind: 'info',
                message: 'A picture is worn.',
                remedy: 'Drag it on to a surface in the picture, or choose it under Surfaces in a card.',
            };
            return;
        }
        const home = a.kind === 'set';
        const at = view.target;
        const eye = view.free.position;
        await scene.edit({ do: 'item.add', asset: a.id, ...(home ? { home: true } : { near: [at.x, at.z], facing: [eye.x, eye.z] }) });
        const last = scene.rows.items[scene.rows.items.length - 1];
        if (last) scene.select('items', last.id);
    }

    async function drop(e: DragEvent) {
        if (!e.dataTransfer?.types.includes('Files')) return;
        e.preventDefault();
        await kit.bring(await filesOf(e.dataTransfer));
    }
</script>

<div
    class="flex h-full flex-col"
    role="presentation"
    ondragover={(e) => e.dataTransfer?.types.includes('Files') && e.preventDefault()}
    ondrop={drop}
>
    <div class="flex flex-col gap-2 border-b border-line p-2">
        <Input
            size="sm"
            placeholder="Search the kit"
            aria-label="Search the kit"
            bind:value={search}
            onkeydown={(e: KeyboardEvent) => e.stopPropagation()}
        />
        <div class="flex flex-wrap gap-1">
            {#each kinds as [k, text] (k)}
                <button
                    class={['rounded border px-2 py-0.5 text-xs', kind === k ? 'border-tide bg-tide text-white' : 'border-line bg-sheet']}
                    aria-pressed={kind === k}
                    onclick={() => (kind = k)}>{text}</button
                >
            {/each}
        </div>
    </div>
    <div class="grid min-h-0 flex-1 auto-rows-min grid-cols-2 gap-2 overflow-auto p-2">
        {#each found as a (a.id)}
            <AssetTile
                asset={a}
                hint={a.kind === 'picture' ? 'Drag it on to a surface in the picture' : 'Click or drag it into the scene'}
                pick={() => add(a)}
            />
        {:else}
            <p class="col-span-2 p-2 text-soft">Nothing in the kit is called that.</p>
        {/each}
    </div>
    {#if styles.length > 1}
        <p class="border-t border-line px-2 py-1 text-xs text-soft" data-testid="mixed-styles">
            Styles are mixed: {styles.map(([k, n]) => `${n} ${STYLES[k] ?? k}`).join(', ')}.
        </p>
    {/if}
    <div class="flex flex-col gap-1.5 border-t border-line p-2">
        <div class="grid grid-cols-2 gap-1.5">
            <Button size="xs" color="alternative" onclick={() => kit.open('shelves')} data-testid="open-kit">Kit room</Button>
            <Button size="xs" color="alternative" onclick={() => kit.open('arrivals')} data-testid="open-arrivals"
                >Arrivals{#if kit.unseen > 0}<span class="ml-1 rounded-full bg-buoy px-1.5 text-white">{kit.unseen}</span>{/if}</Button
            >
        </div>
        <label class="cursor-pointer rounded border border-dashed border-line bg-sheet p-2 text-center text-xs text-soft hover:border-tide">
            {kit.sending || 'Drop files, a folder or a zip here, or choose'}
            <input
                type="file"
                class="sr-only"
                multiple
                onchange={(e) => kit.bring([...(e.currentTarget.files ?? [])].map((file) => ({ path: file.name, file })))}
            />
        </label>
    </div>
</div>
