<script lang="ts">
    import { getDesk } from '../context';
    import type { LineRow } from '../rows';

    /** The words of a line, to be read and changed where they stand. */
    let { line }: { line: LineRow } = $props();
    const { scene } = getDesk();
    let typed = $state<string | null>(null);

    function take() {
        const said = typed?.trim();
        if (said !== undefined && said !== '' && said !== line.text) void scene.edit({ do: 'line.set', line: line.id, text: said });
        typed = null;
    }

    function key(e: KeyboardEvent & { currentTarget: HTMLTextAreaElement }) {
        e.stopPropagation();
        if (e.key === 'Escape') typed = null;
        else if (e.key !== 'Enter' || e.shiftKey) return;
        e.preventDefault();
        e.currentTarget.blur();
    }
</script>

<textarea
    class="block field-sizing-content w-full resize-none border-0 bg-transparent px-1.5 pt-0 pb-1 text-xs focus:ring-1 focus:ring-tide"
    rows="1"
    maxlength="5000"
    aria-label={`What ${scene.find('items', line.itemId)?.name ?? 'somebody'} says`}
    placeholder="a recording; type what is said"
    readonly={!scene.canEdit}
    value={typed ?? line.text}
    onfocus={() => scene.select('lines', line.id)}
    oninput={(e) => (typed = e.currentTarget.value)}
    onblur={take}
    onkeydown={key}></textarea>
