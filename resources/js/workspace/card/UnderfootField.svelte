<script lang="ts">
    import { getDesk } from '../context';
    import type { ItemRow } from '../rows';
    import ChoiceRow from './ChoiceRow.svelte';

    let { item }: { item: ItemRow } = $props();
    const { scene } = getDesk();
    const KINDS = ['wood', 'stone', 'gravel', 'earth', 'grass', 'carpet', 'metal', 'water'];
</script>

<ChoiceRow
    word="Steps on it"
    label="What steps on it sound like"
    help="As its name has it, unless you say otherwise"
    value={item.underfoot}
    options={[['auto', 'as it is named'], ...KINDS.map((k) => [k, k] as const)]}
    save={(underfoot) => scene.edit({ do: 'item.set', item: item.id, underfoot })}
/>
