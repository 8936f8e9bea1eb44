<script lang="ts">
    import { getDesk } from '../context';
    import type { ItemRow } from '../rows';

    /** A thing is given to a performer's hand, from the playhead on: on the card of either. */
    let { item }: { item: ItemRow } = $props();
    const { scene, playhead } = getDesk();
    const isPerson = $derived(item.kind === 'performer');
    const others = $derived(scene.rows.items.filter((i) => i.id !== item.id && i.kind === (isPerson ? 'prop' : 'performer')));
    const field = 'w-full min-w-0 rounded border-line bg-sheet py-0.5 text-xs';
    let chosen = $state(0);
    let hand = $state('handR');

    async function give() {
        const other = others.find((o) => o.id === chosen) ?? others[0];
        if (!other) return;
        const known = new Set(scene.rows.links.map((l) => l.id));
        const [child, parent] = isPerson ? [other, item] : [item, other];
        const done = await scene.edit({
            do: 'link.add',
            child: child.id,
            parent: parent.id,
            mount: hand,
            from: Math.round(playhead.frame),
            keep: 'grip',
        });
        const made = done ? scene.rows.links.find((l) => !known.has(l.id)) : undefined;
        if (made) scene.select('links', made.id);
    }
</script>

{#if others.length > 0 && scene.canEdit}
    <div class="mt-2 grid grid-cols-[1fr_auto] items-center gap-1 border-t border-line pt-2">
        <select class={[field, 'col-span-2']} aria-label={isPerson ? 'What is given' : 'Given to'} bind:value={chosen}>
            {#each others as o, i (o.id)}<option value={i === 0 ? 0 : o.id}>{o.name}</option>{/each}
        </select>
        <select class={field} aria-label="Hand" bind:value={hand}>
            <option value="handR">right hand</option><option value="handL">left hand</option>
        </select>
        <button
            class="rounded border border-line px-1.5 py-0.5 hover:bg-desk"
            data-testid="give"
            title={isPerson ? `Into the hand of ${item.name}, from this frame on` : 'Into the hand, from this frame on'}
            onclick={give}>{isPerson ? 'Give' : 'Give to'}</button
        >
    </div>
{/if}
