<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { ApiError, call } from '../../lib/api';
    import { getDesk } from '../context';
    import type { AssetRow } from '../rows';
    import AssetTile from './AssetTile.svelte';

    const { scene, view } = getDesk();
    let search = $state('');
    let kind = $state<'all' | 'performer' | 'set' | 'prop'>('all');
    let busy = $state('');
    const kinds = [
        ['all', 'All'],
        ['performer', 'People'],
        ['set', 'Sets'],
        ['prop', 'Props'],
    ] as const;

    const found = $derived(
        scene.assets.filter((a) => {
            if (a.kind === 'motion' || (kind !== 'all' && a.kind !== kind)) return false;
            const text = `${a.name} ${a.tags.join(' ')}`.toLowerCase();
            return search
                .toLowerCase()
                .split(/\s+/)
                .every((w) => text.includes(w));
        }),
    );

    async function add(a: AssetRow) {
        const home = a.kind === 'set';
        const at = view.target;
        const eye = view.free.position;
        await scene.edit({ do: 'item.add', asset: a.id, ...(home ? { home: true } : { near: [at.x, at.z], facing: [eye.x, eye.z] }) });
        const last = scene.rows.items[scene.rows.items.length - 1];
        if (last) scene.select('items', last.id);
    }

    async function bring(files: FileList | null | undefined) {
        for (const file of files ?? []) {
            busy = `Bringing in ${file.name}`;
            const form = new FormData();
            form.append('file', file);
            try {
                await call('POST', `productions/${scene.production.id}/assets`, form);
                await scene.refreshAssets();
                scene.notice = { kind: 'info', message: `${file.name} is in the kit.`, remedy: 'Drag it into the picture.' };
            } catch (e) {
                if (!(e instanceof ApiError)) throw e;
                scene.notice = { kind: 'error', message: `${file.name}: ${e.message}`, remedy: e.remedy };
            }
        }
        busy = '';
    }
</script>

<div
    class="flex h-full flex-col"
    role="presentation"
    ondragover={(e) => e.dataTransfer?.types.includes('Files') && e.preventDefault()}
    ondrop={(e) => e.dataTransfer?.files.length && (e.preventDefault(), bring(e.dataTransfer.files))}
>
    <div class="flex flex-col gap-2 border-b border-line p-2">
        <Input
            size="sm"
            placeholder="Search the kit"
            aria-label="Search the kit"
            bind:value={search}
            onkeydown={(e: KeyboardEvent) => e.stopPropagation()}
        />
        <div class="flex gap-1">
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
            <AssetTile asset={a} hint="Click or drag it into the scene" pick={() => add(a)} />
        {:else}
            <p class="col-span-2 p-2 text-soft">Nothing in the kit is called that.</p>
        {/each}
    </div>
    <label class="m-2 cursor-pointer rounded border border-dashed border-line bg-sheet p-2 text-center text-xs text-soft hover:border-tide">
        {busy || 'Drop a GLB here, or choose one'}
        <input type="file" class="sr-only" accept=".glb,.gltf,.bvh" multiple onchange={(e) => bring(e.currentTarget.files)} />
    </label>
</div>
