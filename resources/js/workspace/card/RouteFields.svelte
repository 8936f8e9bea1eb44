<script lang="ts">
    import { parseFrameChange } from '../../lib/time';
    import { getDesk } from '../context';
    import type { ItemRow } from '../rows';
    import NumberField from './NumberField.svelte';

    let { item }: { item: ItemRow } = $props();
    const { scene, playhead, view } = getDesk();
    const route = $derived(item.route);
    const drawing = $derived(view.isPathing('items', item.id));
    const pusher = $derived(route?.by ? scene.find('items', Number(route.by.slice(1))) : null);
    const grips = $derived((scene.manifest?.items.find((i) => i.id === `i${item.id}`)?.mounts ?? []).includes('gripL'));
    const rideable = $derived(scene.manifest?.items.find((i) => i.id === `i${item.id}`)?.extras.vehicle?.rider !== undefined);
    /** Who is on it: whoever has beats on it. */
    const rider = $derived(scene.rows.beats.find((b) => b.play.on === `i${item.id}`)?.itemId);
    const ridden = $derived(rider !== undefined || scene.rows.links.some((l) => l.parentId === item.id));
    const ride = (getOn: boolean) =>
        scene.edit({ do: 'item.ride', item: by || performers[0]!.id, on: item.id, from: Math.round(playhead.frame), getOn });
    const performers = $derived(scene.rows.items.filter((i) => i.kind === 'performer'));
    const set = (values: Record<string, unknown>) => scene.edit({ do: 'item.route', item: item.id, ...values });
    const frame = (t: string, present: number) => parseFrameChange(t, scene.rate, present);
    const field = 'w-full rounded border-line bg-sheet py-0.5 text-xs';
    let by = $state(0);

    function draw() {
        // A route that begins does so at the playhead.
        if (!drawing && !route) view.routeFrom = Math.round(playhead.frame);
        view.pathing = drawing ? null : { table: 'items', id: item.id };
    }
</script>

<div class="mt-2 border-t border-line pt-2">
    <div class="mb-1.5 flex items-center gap-2">
        <span class="font-semibold">Route</span>
        <span class="text-soft"
            >{pusher
                ? `pushed by ${pusher.name}`
                : route
                  ? `${route.points?.length ?? 0} place${route.points?.length === 1 ? '' : 's'}`
                  : 'none'}</span
        >
        <span class="flex-1"></span>
        {#if scene.canEdit && !pusher}
            <button
                class={['rounded border px-1.5 py-0.5', drawing ? 'border-tide bg-tide text-white' : 'border-line hover:bg-desk']}
                aria-pressed={drawing}
                data-testid="draw-route"
                title="Click places on the plan, one after the other"
                onclick={draw}>{drawing ? 'Done' : route ? 'Go on' : 'Draw'}</button
            >
        {/if}
    </div>
    {#if drawing}<p class="mb-1.5 text-soft">Click on the plan where it goes, place after place.</p>{/if}
    {#if route && !pusher}
        <dl class="grid grid-cols-[52px_1fr] items-center gap-x-2 gap-y-1.5">
            <dt class="text-soft">Sets off</dt>
            <dd>
                <NumberField
                    label="Sets off at frame"
                    value={route.from ?? 0}
                    digits={0}
                    parse={frame}
                    save={(n) => set({ from: Math.round(n) })}
                />
            </dd>
            <dt class="text-soft">m/s</dt>
            <dd><NumberField label="Speed (m/s)" value={route.speed ?? 1.2} save={(n) => set({ speed: n, to: null })} /></dd>
            {#if grips && performers.length > 0 && scene.canEdit}
                <dt class="text-soft">Pushed</dt>
                <dd class="grid grid-cols-[1fr_auto] gap-1">
                    <select class={field} aria-label="Who pushes it" bind:value={by}>
                        {#each performers as p (p.id)}<option value={p.id}>by {p.name}</option>{/each}
                    </select>
                    <button
                        class="rounded border border-line px-1.5 hover:bg-desk"
                        data-testid="push"
                        onclick={() => scene.edit({ do: 'item.push', item: item.id, by: by || performers[0]!.id, points: route.points })}
                        >Push</button
                    >
                </dd>
            {/if}
        </dl>
    {/if}
    {#if rideable && !ridden && performers.length > 0 && scene.canEdit}
        <div class="mt-1.5 grid grid-cols-[1fr_auto_auto] gap-1">
            <select class={field} aria-label="Who rides it" bind:value={by}>
                {#each performers as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
            </select>
            <button
                class="rounded border border-line px-1.5 hover:bg-desk"
                data-testid="get-on"
                title="Walks up to it from the playhead on, and gets on"
                onclick={() => ride(true)}>Gets on</button
            >
            <button
                class="rounded border border-line px-1.5 hover:bg-desk"
                data-testid="ride"
                title="Sits on it from the playhead on"
                onclick={() => ride(false)}>Rides</button
            >
        </div>
    {:else if rider !== undefined && scene.canEdit}
        <p class="mt-1.5 flex items-center gap-2">
            <span class="flex-1">{scene.find('items', rider)?.name} rides it</span>
            <button
                class="rounded border border-line px-1.5 hover:bg-desk"
                data-testid="get-off"
                title="At the playhead, or as soon as it stands"
                onclick={() => scene.edit({ do: 'item.alight', item: rider, at: Math.round(playhead.frame) })}>Gets off</button
            >
        </p>
    {/if}
    {#if route && scene.canEdit}<button
            class="mt-1.5 text-tide hover:underline"
            onclick={() => ((view.pathing = null), set({ points: null }))}>Take the route away</button
        >{/if}
</div>
