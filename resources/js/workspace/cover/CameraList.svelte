<script lang="ts">
    import { Button } from 'flowbite-svelte';
    import { onDestroy, untrack } from 'svelte';
    import { short } from '../../lib/time';
    import { shotAt, viewOf } from '../../picture';
    import { getDesk } from '../context';
    import { framingsOf, framingWords } from './setups';
    import { SmallPictures } from './smallPictures.svelte';

    /** All cameras with what they see now, the one on air marked; a click cuts. */
    const { scene, playhead, view } = getDesk();
    const onAir = $derived(scene.manifest ? shotAt(scene.manifest, playhead.frame)?.camera : null);
    const selected = $derived(scene.selection?.table === 'cameras' ? scene.find('cameras', scene.selection.id) : null);
    const name = (id: number) => scene.find('items', id)?.name ?? '?';

    const pictures = new SmallPictures(
        () => view.painter,
        (frame) => scene.posesAt(frame),
        224,
        Math.round(224 / (scene.manifest ? scene.manifest.width / scene.manifest.height : 16 / 9)),
        () => playhead.playing,
    );
    onDestroy(() => pictures.close());
    /** While it plays the pictures come as they can: each is of the frame at which it was asked for. */
    let asked = $state.raw<Record<number, string>>({});

    $effect(() => {
        void [scene.posesVersion, scene.manifest];
        const frame = playhead.frame;
        // All have their turn before any comes again: on a slow machine the last would never.
        if (playhead.playing && untrack(() => pictures.busy)) return;
        untrack(() => look(frame));
    });

    function look(frame: number) {
        const m = scene.manifest;
        const block = scene.posesAt(frame);
        if (!m || !block) return;
        const list = m.cameras.flatMap((c) => {
            const row = block.camera(c.id, frame);
            return row ? [{ id: Number(c.id.slice(1)), key: `${c.id} ${frame} ${m.state}`, view: viewOf(row, c), frame }] : [];
        });
        asked = Object.fromEntries(list.map((a) => [a.id, a.key]));
        pictures.ask(list);
    }

    let last = $state.raw<Record<number, string>>({});
    $effect(() => {
        const now = Object.entries(asked).flatMap(([id, key]) => (pictures.made[key] ? [[id, pictures.made[key]] as const] : []));
        if (now.length > 0) last = { ...untrack(() => last), ...Object.fromEntries(now) };
    });

    function open(id: number) {
        scene.select('cameras', id);
        view.covering = id;
        view.source = { kind: 'camera', id };
    }

    /** Left over: neither on the reel nor locked. */
    const unused = $derived(scene.rows.cameras.filter((c) => !c.locked && !scene.rows.shots.some((s) => s.cameraId === c.id)));

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

{#if scene.canEdit && unused.length > 0}
    <p class="flex items-center gap-2 border-b border-line px-2 py-1 text-xs">
        <span class="flex-1 text-soft">{unused.length === 1 ? '1 camera is' : `${unused.length} cameras are`} on no shot.</span>
        <button
            class="text-alarm hover:underline"
            data-testid="clear-cameras"
            onclick={() => scene.edit(...unused.map((c) => ({ do: 'camera.remove', camera: c.id })))}>Remove</button
        >
    </p>
{/if}
<ul class="flex min-h-0 flex-1 flex-col gap-1.5 overflow-auto p-2">
    {#each scene.rows.cameras as c, i (c.id)}
        {@const here = c.keys.some((k) => k.frame === playhead.frame)}
        {@const framings = framingsOf(scene.rows.framings, c.id)}
        {@const first = framings[0]}
        <li
            class={[
                'shrink-0 overflow-hidden rounded border bg-sheet',
                selected?.id === c.id ? 'border-tide' : 'border-line',
                onAir === `c${c.id}` && 'ring-2 ring-tide',
            ]}
        >
            <button class="block aspect-video w-full bg-surround" aria-label={`Look through camera ${c.letter}`} onclick={() => open(c.id)}
                >{#if last[c.id]}<img class="h-full w-full" src={last[c.id]} alt={`What camera ${c.letter} sees`} />{/if}</button
            >
            <div class="flex items-center gap-2 p-1.5">
                <span
                    class={[
                        'grid h-6 w-6 shrink-0 place-items-center rounded-full border border-tide font-bold',
                        onAir === `c${c.id}` ? 'bg-tide text-white' : 'text-tide',
                    ]}>{c.letter}</span
                >
                <button class="min-w-0 flex-1 text-left" data-testid={`camera-${c.letter}`} onclick={() => open(c.id)}>
                    <span class="block truncate font-semibold">{c.name || (first ? framingWords(first, name) : `Camera ${c.letter}`)}</span>
                    <span class="mono block text-[10px] text-soft">
                        {#if first}{short(first.focalMm, 0)} mm, {framings.length === 1
                                ? 'knows whom it films'
                                : `${framings.length - 1} moves`}
                        {:else}{short(c.keys[0]?.focalMm ?? 0, 0)} mm, {c.keys.length} {c.keys.length === 1 ? 'key' : 'keys'}{/if}
                    </span>
                </button>
                <Button
                    size="xs"
                    color="alternative"
                    data-testid={`cut-to-${c.letter}`}
                    title={`Cut to ${c.letter} at the playhead${i < 9 ? ` (${i + 1})` : ''}`}
                    onclick={() => scene.edit({ do: 'shot.cut', camera: c.id, frame: playhead.frame })}>Cut</Button
                >
            </div>
            {#if selected?.id === c.id && !first}
                <div class="flex gap-1 px-1.5 pb-1.5">
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
