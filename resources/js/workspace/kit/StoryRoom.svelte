<script lang="ts">
    import { Textarea } from 'flowbite-svelte';
    import { call } from '../../lib/api';
    import { getDesk } from '../context';
    import { Lines, type Line, type Part } from './answers';
    import type { AssetRow } from '../rows';

    const { scene, view, kit } = getDesk();
    const KINDS: [AssetRow['kind'], string][] = [
        ['performer', 'Who'],
        ['set', 'Where'],
        ['prop', 'Things'],
        ['motion', 'Actions'],
        ['sound', 'Sounds'],
    ];
    let lines = $state.raw<Line[]>([]);
    let asked = 0;
    let written = $state<string | null>(null);

    // Anew when the story changes, or what stands in the scene.
    const wanted = $derived(
        `${scene.story} ${scene.rows.items.map((i) => `${i.assetId} ${i.name}`).join()} ${scene.rows.beats.map((b) => b.assetId).join()} ${kit.version}`,
    );
    $effect(() => {
        void wanted;
        const turn = ++asked;
        void call(Lines, 'GET', `scenes/${scene.id}/parts`).then((got) => {
            if (turn === asked) lines = got.lines;
        });
    });
    const all = $derived(lines.flatMap((l) => l.found));
    const count = $derived({
        parts: new Set(all.map((p) => p.id)).size,
        here: new Set(all.filter((p) => p.here).map((p) => p.id)).size,
        missing: new Set(lines.flatMap((l) => l.missing)).size,
    });

    async function keep() {
        if (written === null || written === scene.story) return;
        const story = written;
        if (await scene.edit({ do: 'scene.set', story: story.trim() === '' ? null : story })) written = null;
    }
    async function put(p: Part) {
        const a = scene.assets.find((x) => x.id === p.id);
        const at = view.target;
        const eye = view.free.position;
        const home = a?.kind === 'set' && a.house;
        await scene.edit({ do: 'item.add', asset: p.id, ...(home ? { home: true } : { near: [at.x, at.z], facing: [eye.x, eye.z] }) });
    }
    /** Who of a line stands in the scene, to be given what the line has them do. */
    function doer(line: Line) {
        const who = line.found.find((p) => p.kind === 'performer' && p.here);
        const cast = scene.rows.items.filter((i) => i.kind === 'performer' && i.assetId === who?.id);
        return cast.find((i) => i.name === who?.name) ?? cast[0];
    }
    function show(p: Part) {
        kit.kind = p.kind;
        kit.asset = p.id;
        kit.open('shelves');
    }
</script>

<div class="flex min-h-0 flex-1" data-testid="story-room">
    <div class="flex w-[380px] shrink-0 flex-col gap-2 border-r border-line p-4">
        <h2 class="text-lg font-semibold">What happens in {scene.name}</h2>
        <p class="text-xs text-soft">
            A few plain sentences: who is where, does what, with which things. The list beside it finds the parts.
        </p>
        <Textarea
            class="min-h-0 w-full flex-1 resize-none text-sm leading-6"
            classes={{ div: 'flex min-h-0 flex-1' }}
            aria-label="Story"
            placeholder="It is dusk at the ferry pier. Oda waits on the bench. Bram pushes the hand cart and rings the bell."
            disabled={!scene.canEdit}
            value={written ?? scene.story}
            oninput={(e: Event) => (written = (e.currentTarget as HTMLTextAreaElement).value)}
            onblur={keep}
        />
        <button
            class="self-start rounded bg-tide px-3 py-1 text-sm font-semibold text-white disabled:opacity-40"
            disabled={written === null || written === scene.story || !scene.canEdit}
            onclick={keep}
            data-testid="find-parts">Find the parts</button
        >
    </div>
    <div class="min-w-0 flex-1 overflow-auto p-4" data-testid="parts-list">
        {#if lines.length > 0}
            <p class="mb-3 text-xs text-soft" data-testid="parts-count">
                {count.parts} part{count.parts === 1 ? '' : 's'}: {count.here} in the scene, {count.parts - count.here} on the shelf{count.missing >
                0
                    ? `; nothing yet for ${count.missing} word${count.missing === 1 ? '' : 's'}`
                    : ''}.
            </p>
        {:else}
            <p class="text-soft">Write the story first; what it needs is listed here.</p>
        {/if}
        {#each lines as line, n (n)}
            {@const actor = doer(line)}
            <section class="mb-3 rounded border border-line bg-sheet p-3" data-testid={`line-${n}`}>
                <h3 class="mb-2 font-semibold">{line.text}</h3>
                <div class="flex flex-wrap gap-x-5 gap-y-2">
                    {#each KINDS as [kind, text] (kind)}
                        {@const some = line.found.filter((p) => p.kind === kind)}
                        {#if some.length > 0}
                            <div>
                                <p class="mb-1 text-[11px] text-soft">{text}</p>
                                <div class="flex flex-wrap gap-2">
                                    {#each some as p (p.id)}
                                        <div
                                            class={[
                                                'flex items-center gap-2 rounded border py-0.5 pr-2 pl-0.5 text-xs',
                                                p.here ? 'border-tide' : 'border-line border-dashed',
                                            ]}
                                            data-testid={`part-${p.id}`}
                                            data-here={p.here}
                                        >
                                            <button
                                                class="flex items-center gap-2 text-left hover:underline"
                                                title={`For “${p.words.join(', ')}”. Show it on its shelf`}
                                                onclick={() => show(p)}
                                            >
                                                {#if p.picture}<img
                                                        src={`/api/blobs/${p.picture}`}
                                                        alt=""
                                                        class="h-8 w-11 rounded-sm object-cover"
                                                    />{/if}
                                                <span
                                                    ><span class="block">{p.name}</span><span class="block text-[10px] text-soft"
                                                        >{p.here ? 'in the scene' : 'on the shelf'}</span
                                                    ></span
                                                >
                                            </button>
                                            {#if !p.here && scene.canEdit && (kind === 'performer' || kind === 'set' || kind === 'prop')}
                                                <button
                                                    class="rounded bg-tide px-1.5 py-0.5 text-[11px] font-semibold text-white"
                                                    aria-label={`Put ${p.name} into the scene`}
                                                    onclick={() => put(p)}>Put in</button
                                                >
                                            {:else if !p.here && scene.canEdit && kind === 'motion' && actor}
                                                <button
                                                    class="rounded bg-tide px-1.5 py-0.5 text-[11px] font-semibold text-white"
                                                    aria-label={`Give ${p.name} to ${actor.name}`}
                                                    title={`It goes on after what ${actor.name} does already`}
                                                    onclick={() =>
                                                        scene.edit({ do: 'beat.add', item: actor.id, motion: p.id, partner: 'near' })}
                                                    >To {actor.name}</button
                                                >
                                            {/if}
                                        </div>
                                    {/each}
                                </div>
                            </div>
                        {/if}
                    {/each}
                </div>
                {#if line.missing.length > 0}
                    <p class="mt-2 text-xs text-buoy" data-testid="missing">
                        Nothing in the kit for: {line.missing.join(', ')}. Drop a file here, or say it in another word.
                    </p>
                {/if}
                {#each line.cannot as lack (lack)}<p class="mt-2 text-xs text-alarm" data-testid="cannot">{lack}</p>{/each}
            </section>
        {/each}
    </div>
</div>
