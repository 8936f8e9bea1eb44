<script lang="ts">
    interface Props {
        word: string;
        help: string;
        least: number;
        most: number;
        step: number;
        value: number;
        testid?: string;
        disabled?: boolean;
        /** Called when it is let go; while it is held its number follows. */
        save: (value: number) => Promise<unknown>;
    }
    let { word, help, least, most, step, value, testid, disabled = false, save }: Props = $props();
    let held = $state<number | null>(null);
    const shown = $derived(held ?? value);

    async function letGo(e: Event) {
        await save(Math.round((e.currentTarget as HTMLInputElement).valueAsNumber * 1000) / 1000);
        held = null;
    }
</script>

<dt class="text-soft" title={help}>{word}</dt>
<dd class="contents">
    <input
        type="range"
        class="h-1.5 w-full accent-tide"
        aria-label={word}
        title={help}
        data-testid={testid}
        min={least}
        max={most}
        {step}
        {disabled}
        value={shown}
        oninput={(e) => (held = e.currentTarget.valueAsNumber)}
        onchange={letGo}
        onkeydown={(e) => e.stopPropagation()}
    />
    <span class="mono text-right text-[11px]">{shown.toFixed(most > 5 ? 0 : 2)}</span>
</dd>
