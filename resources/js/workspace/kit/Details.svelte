<script lang="ts">
    import { Button, Input } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import type { InferOutput } from 'valibot';
    import { ApiError, call } from '../../lib/api';
    import { getDesk } from '../context';
    import { TAPE } from '../rows';
    import { Whole } from './answers';
    import { factsOf } from './facts';
    import RolesPanel from './RolesPanel.svelte';
    import SoundPlayer from './SoundPlayer.svelte';
    import Turntable from './Turntable.svelte';

    let { id }: { id: number } = $props();
    const { scene, view, kit } = getDesk();
    let a = $state<InferOutput<typeof Whole> | null>(null);
    let on = $state(0);
    let replacing = $state('');
    let stamp = $state(0);
    let matching = $state(false);
    const base = $derived(`productions/${scene.production.id}/kit/${id}`);
    const people = $derived(scene.assets.filter((x) => x.kind === 'performer'));
    const others = $derived(scene.assets.filter((x) => x.kind === a?.kind && x.id !== id));
    const path = $derived(
        a && a.kind !== 'sound' && a.kind !== 'picture'
            ? `productions/${scene.production.id}/previews?asset=${id}${a.kind === 'motion' && on ? `&on=${on}` : ''}&t=${stamp}`
            : null,
    );

    onMount(async () => {
        a = await call(Whole, 'GET', base);
    });

    let asked = 0;

    async function change(method: string, tail: string, body: unknown) {
        const turn = ++asked;
        try {
            const got = await call(Whole, method, base + tail, body);
            // Answers may overtake each other: the one to what was asked for last counts.
            if (turn === asked) a = got;
            kit.version++;
            stamp++;
            await scene.refreshAssets();
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            scene.notice = { kind: 'error', message: e.message, remedy: e.remedy };
        }
    }
    const set = (body: Record<string, unknown>) => change('PATCH', '', body);

    /** From a person's collection: it becomes one of this production's own. */
    async function adopt() {
        await change('POST', '/adopt', {});
        if (a) kit.asset = a.id;
    }

    async function use() {
        if (!a) return;
        const at = view.target;
        const eye = view.free.position;
        const home = a.kind === 'set' && a.house;
        if (
            await scene.edit({ do: 'item.add', asset: a.id, ...(home ? { home: true } : { near: [at.x, at.z], facing: [eye.x, eye.z] }) })
        ) {
            const last = scene.rows.items[scene.rows.items.length - 1];
            if (last) scene.select('items', last.id);
            kit.close();
        }
    }
    /** Who would do a motion: the performer that is selected, or the only one there is. */
    const doer = $derived.by(() => {
        const cast = scene.rows.items.filter((i) => i.kind === 'performer');
        return cast.find((i) => scene.isSelected('items', i.id)) ?? (cast.length === 1 ? cast[0] : undefined);
    });
    async function give() {
        if (a && doer && (await scene.edit({ do: 'beat.add', item: doer.id, motion: a.id, partner: 'near' }))) kit.close();
    }
    const field = (e: Event) => (e.currentTarget as HTMLInputElement).value.trim();
</script>

<div class="flex w-[340px] shrink-0 flex-col gap-3 overflow-auto border-l border-line p-3" data-testid="kit-details">
    {#if a}
        <div class={a.kind === 'sound' ? 'shrink-0' : 'h-[250px] shrink-0'}>
            {#if path}<Turntable
                    {path}
                    label={`${a.name} on a turntable; arrow keys turn it`}
                />{:else if a.kind === 'picture' && a.picture}<img
                    src={`/api/blobs/${a.picture}`}
                    alt={a.name}
                    class="h-full w-full rounded bg-surround object-contain"
                />{:else if a.blob}<SoundPlayer
                    blob={a.blob}
                    picture={a.picture}
                    name={a.name}
                    loops={a.facts.loops === true}
                    atOnce
                />{/if}
        </div>
        {#if a.kind === 'motion'}
            <label class="flex items-center gap-2 text-xs"
                >played by<select class="flex-1 rounded border-line bg-sheet py-1 text-xs" bind:value={on}
                    ><option value={0}>{a.source && !a.elsewhere ? 'who it came with' : 'Oda Ferrant'}</option
                    >{#each people as p (p.id)}<option value={p.id}>{p.name}</option>{/each}</select
                ></label
            >
        {/if}
        {#if a.house || a.elsewhere}
            <h2 class="text-base font-semibold">{a.name}</h2>
        {:else}
            <Input
                size="sm"
                class="font-semibold"
                value={a.name}
                aria-label="Name"
                onchange={(e: Event) => field(e) && set({ name: field(e) })}
            />
        {/if}
        <div class="flex items-center gap-2">
            {#if a.elsewhere}<Button size="sm" class="flex-1" data-testid="adopt" disabled={!scene.canEdit} onclick={adopt}
                    >Take into this production</Button
                >{:else if a.kind === 'performer' || a.kind === 'set' || a.kind === 'prop'}<Button size="sm" class="flex-1" onclick={use}
                    >Put into the scene</Button
                >{:else if a.kind === 'motion' && scene.canEdit}<Button
                    size="sm"
                    class="flex-1"
                    disabled={!doer}
                    title={doer ? `It goes on after what ${doer.name} does already` : 'Select who is to do it in the scene first'}
                    data-testid="give"
                    onclick={give}>{doer ? `Give it to ${doer.name}` : 'Select a performer to give it to'}</Button
                >{/if}
            <Button
                size="sm"
                color="alternative"
                class="px-2.5"
                aria-pressed={a.collected}
                title="What is in your collection is at hand in all of your productions"
                data-testid="collect"
                onclick={() => change('POST', '/keep', { keep: a?.collected !== true })}
                >{a.collected ? '★ In your collection' : '☆ Collect'}</Button
            >
        </div>
        <dl class="grid grid-cols-[80px_1fr] gap-x-3 gap-y-0.5 text-xs">
            {#each factsOf(a.kind, a.facts, scene.rate) as [name, value] (name)}<dt class="text-soft">{name}</dt>
                <dd>{value}</dd>{/each}
            <dt class="text-soft">Used</dt>
            <dd>{a.uses.length > 0 ? a.uses.map((u) => `${u.times} x in ${u.scene}`).join(', ') : 'nowhere yet'}</dd>
            {#if a.elsewhere}<dt class="text-soft">Belongs to</dt>
                <dd>{a.elsewhere}</dd>{/if}
            {#if a.source}<dt class="text-soft">From</dt>
                <dd class="break-words">{a.source}{a.since ? `, ${a.since}` : ''}</dd>{/if}
            {#if a.same.length > 0}<dt class="text-soft">Same as</dt>
                <dd class="text-buoy">{a.same.join(', ')}</dd>{/if}
        </dl>
        {#if a.house || a.elsewhere}
            <p class="text-xs text-soft">
                By {a.credit}, {a.licence}. Tags: {a.tags.join(', ')}. {a.house
                    ? 'The house kit is the same for everyone.'
                    : 'It is changed where it belongs.'}
            </p>
        {:else}
            <label class="flex flex-col gap-1 text-xs"
                >Tags, with commas<Input
                    size="sm"
                    value={a.tags.join(', ')}
                    onchange={(e: Event) =>
                        set({
                            tags: field(e)
                                .split(/\s*,\s*/)
                                .filter((t) => t),
                        })}
                /></label
            >
            <div class="grid grid-cols-2 gap-2 text-xs">
                <label class="flex flex-col gap-1"
                    >Made by<Input size="sm" value={a.credit} onchange={(e: Event) => set({ credit: field(e) })} /></label
                >
                <label class="flex flex-col gap-1"
                    >Licence<Input size="sm" value={a.licence} onchange={(e: Event) => set({ licence: field(e) })} /></label
                >
                <label class="flex flex-col gap-1"
                    >Folder<Input size="sm" value={a.folder ?? ''} onchange={(e: Event) => set({ folder: field(e) || null })} /></label
                >
                <div class="flex flex-col gap-1">
                    Colour
                    <div class="flex flex-wrap gap-1">
                        {#each TAPE as colour, n (colour)}
                            <button
                                class={['h-5 w-5 rounded', a.colour === n ? 'ring-2 ring-ink' : '']}
                                style:background={colour}
                                aria-label={`Colour ${n + 1}`}
                                aria-pressed={a.colour === n}
                                onclick={() => set({ colour: a?.colour === n ? null : n })}
                            ></button>
                        {/each}
                    </div>
                </div>
            </div>
            <div class="flex flex-col gap-1.5 border-t border-line pt-2 text-xs">
                <label class="flex items-center gap-2"
                    >Replace by<select
                        class="flex-1 rounded border-line bg-sheet py-1 text-xs"
                        data-testid="replace-by"
                        bind:value={replacing}
                        ><option value="">…</option>{#each others as o (o.id)}<option value={String(o.id)}>{o.name}</option>{/each}</select
                    >
                    <Button
                        size="xs"
                        color="alternative"
                        disabled={!replacing}
                        onclick={() => change('POST', '/replace', { with: Number(replacing) })}>Replace</Button
                    ></label
                >
                <p class="text-soft">Every use takes the new one and keeps its beats, links and keys.</p>
                {#if a.kind === 'performer' || (a.kind === 'motion' && a.source)}
                    <button class="self-start text-tide hover:underline" aria-expanded={matching} onclick={() => (matching = !matching)}
                        >Which joint plays what…</button
                    >
                    {#if matching}<RolesPanel
                            asset={id}
                            own={scene.canEdit}
                            changed={() => {
                                stamp++;
                                kit.version++;
                            }}
                        />{/if}
                {/if}
                {#if a.versions.length > 1}
                    <label class="flex items-center gap-2"
                        >Version {a.version} of {a.versions.length}<select
                            class="flex-1 rounded border-line bg-sheet py-1 text-xs"
                            aria-label="Earlier version"
                            onchange={(e) => e.currentTarget.value && change('POST', '/revert', { version: Number(e.currentTarget.value) })}
                            ><option value="">back to…</option>{#each a.versions.slice(1) as v (v.number)}<option value={v.number}
                                    >version {v.number}</option
                                >{/each}</select
                        ></label
                    >
                {/if}
                <div class="flex gap-2">
                    {#if a.arrival}<Button
                            size="xs"
                            color="alternative"
                            onclick={() => {
                                kit.arrival = a?.arrival ?? null;
                                kit.open('arrivals');
                            }}>Its slip</Button
                        >{/if}
                    <Button size="xs" color="alternative" onclick={() => change('POST', '/archive', { back: a?.archived === true })}
                        >{a.archived ? 'Bring back' : 'Put away'}</Button
                    >
                </div>
            </div>
        {/if}
    {/if}
</div>
