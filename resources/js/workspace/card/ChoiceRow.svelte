<script lang="ts">
    import { getDesk } from '../context';

    interface Props {
        word: string;
        label: string;
        value: string;
        /** What may be chosen, as it is stored and as it is called. */
        options: readonly (readonly [string, string])[];
        help?: string;
        save: (value: string) => unknown;
    }
    let { word, label, value, options, help, save }: Props = $props();
    const { scene } = getDesk();
</script>

<dt class="text-soft">{word}</dt>
<dd class="min-w-0">
    <select
        class="w-full rounded border-line bg-sheet py-0.5 text-xs"
        aria-label={label}
        title={help}
        disabled={!scene.canEdit}
        {value}
        onchange={(e) => save(e.currentTarget.value)}
        >{#each options as [id, said] (id)}<option value={id}>{said}</option>{/each}</select
    >
</dd>
