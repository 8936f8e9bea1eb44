<script lang="ts">
    import { getDesk } from '../context';
    import type { ItemRow } from '../rows';
    import { lookAt, lookCommands } from './looks';

    /** What a performer does by itself: how it waits, and whether its eyes meet others. */
    let { item }: { item: ItemRow } = $props();
    const { scene, playhead } = getDesk();
    const others = $derived(scene.rows.items.filter((i) => i.kind !== 'set' && i.id !== item.id));
    const now = $derived(lookAt(scene.rows.contacts, item.id, playhead.frame));
    const seen = $derived(others.find((o) => o.id === now?.targetId && o.kind === 'performer'));
    const isMutual = $derived(!!seen && lookAt(scene.rows.contacts, seen.id, playhead.frame)?.targetId === item.id);
    const face = (id: number) => (scene.find('items', id)?.kind === 'performer' ? 'head' : '');
    const look = (who: number, at: number | null) =>
        scene.edit(...lookCommands(scene.rows.contacts, who, at, playhead.frame, at === null ? '' : face(at)));

    const LIVES: [ItemRow['life'], string][] = [
        ['calm', 'Calm'],
        ['tense', 'Tense'],
        ['cold', 'Cold'],
        ['tired', 'Tired'],
        ['off', 'As still as the pose'],
    ];
</script>

<dt class="text-soft">Waits</dt>
<dd>
    <select
        class="w-full rounded border-line bg-sheet py-0.5 text-xs"
        aria-label="What they are like while they wait"
        title="Breath, blinks, shifts of weight and small looks wherever no motion says otherwise"
        disabled={!scene.canEdit}
        value={item.life}
        onchange={(e) => scene.edit({ do: 'item.set', item: item.id, life: e.currentTarget.value })}
    >
        {#each LIVES as [id, word] (id)}<option value={id}>{word}</option>{/each}
    </select>
</dd>
<dt class="text-soft">Eyes</dt>
<dd>
    <label class="flex items-center gap-2" title="Whom they speak to, hand something or have to do with">
        <input
            type="checkbox"
            class="rounded border-line text-tide"
            aria-label="Eyes meet others by themselves"
            checked={item.meets}
            disabled={!scene.canEdit}
            onchange={(e) => scene.edit({ do: 'item.set', item: item.id, meets: e.currentTarget.checked })}
        />meet others
    </label>
</dd>
<dt class="text-soft">Looks at</dt>
<dd>
    <select
        class="w-full rounded border-line bg-sheet py-0.5 text-xs"
        aria-label="Looks at, from here on"
        title="From the playhead on"
        disabled={!scene.canEdit}
        value={String(now?.targetId ?? '')}
        onchange={(e) => look(item.id, e.currentTarget.value ? Number(e.currentTarget.value) : null)}
    >
        <option value="">as it comes</option>
        {#each others as o (o.id)}<option value={String(o.id)}>{o.name}</option>{/each}
    </select>
    {#if seen && !isMutual && scene.canEdit}
        <button class="mt-0.5 text-tide hover:underline" data-testid="look-back" onclick={() => look(seen.id, item.id)}
            >{seen.name} looks back</button
        >
    {/if}
</dd>
