<script lang="ts">
    import { parseNumber, short, type Unit } from '../../lib/time';

    let {
        label,
        value,
        unit = '',
        digits = 2,
        save,
        parse,
    }: {
        label: string;
        value: number;
        unit?: Unit;
        digits?: number;
        save: (n: number) => unknown;
        /** @param present what it is a change of, where it is typed as one */
        parse?: (t: string, present: number) => number | null;
    } = $props();
    let text = $state<string | null>(null);
    let wrong = $state(false);

    let begun = '';

    function take() {
        // Looked into and left as it was.
        if (text === null || text === begun) {
            text = null;
            return;
        }
        const n = parse ? parse(text, value) : parseNumber(text, unit, value);
        wrong = n === null;
        if (n === null) return;
        begun = text;
        text = null;
        if (n !== value) save(n);
    }
</script>

<label class="flex items-center gap-1">
    <span class="sr-only">{label}</span>
    <input
        class={['mono w-full min-w-0 rounded border bg-sheet px-1.5 py-0.5 text-xs', wrong ? 'border-alarm' : 'border-line']}
        aria-label={label}
        aria-invalid={wrong}
        title={wrong
            ? `Write a number${unit === 'm' ? ' (2.5, 250cm)' : unit === 'deg' ? ' (45, 45deg)' : ''} or a change (+0.1, -=0.1, *2, /2, 50%)`
            : label}
        value={text ?? short(value, digits)}
        onfocus={(e) => {
            // What arrives while somebody is in the field does not change it under the fingers.
            begun = text ?? short(value, digits);
            text = begun;
            e.currentTarget.select();
        }}
        oninput={(e) => (text = e.currentTarget.value)}
        onblur={take}
        onkeydown={(e) => {
            e.stopPropagation();
            if (e.key === 'Enter') take();
            if (e.key === 'Escape') {
                text = null;
                wrong = false;
                e.currentTarget.blur();
            }
        }}
    />
</label>
