<script lang="ts">
    import { getDesk } from '../context';
    import type { ItemRow } from '../rows';

    /** What a performer does by itself: how it waits, and whether its eyes meet others. */
    let { item }: { item: ItemRow } = $props();
    const { scene } = getDesk();
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
