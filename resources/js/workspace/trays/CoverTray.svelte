<script lang="ts">
    import { Button } from 'flowbite-svelte';
    import { short } from '../../lib/time';
    import { shotAt } from '../../picture';
    import { getDesk } from '../context';

    const { scene, playhead, view } = getDesk();
    const onAir = $derived(scene.manifest ? shotAt(scene.manifest, playhead.frame)?.camera : null);
    const selected = $derived(scene.selection?.table === 'cameras' ? scene.find('cameras', scene.selection.id) : null);

    async function make() {
        const pose = view.pose();
        if (!(await scene.edit({ do: 'camera.add', ...pose, frame: playhead.frame }))) return;
        const made = scene.rows.cameras[scene.rows.cameras.length - 1];
        if (made) {
            scene.select('cameras', made.id);
            view.source = { kind: 'camera', id: made.id };
        }
    }

    async function key() {
        if (!selected) return;
        const k = selected.keys[0];
        await scene.edit({
            do: 'camera.key',
            camera: selected.id,
            frame: playhead.frame,
            ...view.pose(),
            fStop: k?.fStop ?? 4,
            focusMetres: k?.focusMetres ?? null,
        });
        view.source = { kind: 'camera', id: selected.id };
    }
</script>

<div class="flex h-full flex-col">
    <div class="flex flex-col gap-2 border-b border-line p-2">
        <Button size="sm" onclick={make} data-testid="camera-from-view">Camera from this view</Button>
        <p class="text-xs text-soft">Turn the picture by dragging, then make a camera of what you see.</p>
    </div>
    <ul class="flex min-h-0 flex-1 flex-col gap-1 overflow-auto p-2">
        {#each scene.rows.cameras as c, i (c.id)}
            {@const here = c.keys.some((k) => k.frame === playhead.frame)}
            <li class={['rounded border bg-sheet p-2', selected?.id === c.id ? 'border-tide' : 'border-line']}>
                <div class="flex items-center gap-2">
                    <span
                        class={[
                            'grid h-6 w-6 shrink-0 place-items-center rounded-full border border-tide font-bold',
                            onAir === `c${c.id}` ? 'bg-tide text-white' : 'text-tide',
                        ]}>{c.letter}</span
                    >
                    <button
                        class="min-w-0 flex-1 text-left"
                        data-testid={`camera-${c.letter}`}
                        onclick={() => (scene.select('cameras', c.id), (view.source = { kind: 'camera', id: c.id }))}
                    >
                        <span class="block truncate font-semibold">{c.name || `Camera ${c.letter}`}</span>
                        <span class="mono block text-[10px] text-soft"
                            >{short(c.keys[0]?.focalMm ?? 0, 0)} mm, {c.keys.length} {c.keys.length === 1 ? 'key' : 'keys'}</span
                        >
                    </button>
                    <Button
                        size="xs"
                        color="alternative"
                        data-testid={`cut-to-${c.letter}`}
                        title={`Cut to ${c.letter} at the playhead${i < 9 ? ` (${i + 1})` : ''}`}
                        onclick={() => scene.edit({ do: 'shot.cut', camera: c.id, frame: playhead.frame })}>Cut</Button
                    >
                </div>
                {#if selected?.id === c.id}
                    <div class="mt-2 flex gap-1">
                        <Button size="xs" onclick={key} data-testid="key-here">{here ? 'Key again here' : 'Key this view here'}</Button>
                        {#if here && c.keys.length > 1}<Button
                                size="xs"
                                color="alternative"
                                onclick={() => scene.edit({ do: 'camera.unkey', camera: c.id, frame: playhead.frame })}>Remove key</Button
                            >{/if}
                    </div>
                {/if}
            </li>
        {:else}
            <li class="p-1 text-soft">No camera yet. The first one you make is put on the reel at once.</li>
        {/each}
    </ul>
</div>
