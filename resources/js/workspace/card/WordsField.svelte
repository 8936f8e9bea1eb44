<script lang="ts">
    import { perSecond } from '../../lib/time';
    import { getDesk } from '../context';
    import type { LineRow } from '../rows';
    import { doesAt, withAt, without, wordsOf } from '../speech/words';

    /** The words of a line: each is heard by itself, and something may be done at it. */
    let { line }: { line: LineRow } = $props();
    const { scene, speech, playhead } = getDesk();
    const words = $derived(wordsOf(line.text));
    const settled = $derived(speech.settled.get(line.id));
    let chosen = $state<number | null>(null);
    const at = $derived(chosen !== null && chosen < words.length ? chosen : null);
    const NOISES = ['breath', 'sigh', 'gasp', 'laugh', 'cough', 'hm', 'sniff'];
    const GESTURES = ['Wave', 'Point', 'Beckon', 'Shrug', 'Shake the head', 'Bow', 'Clap', 'Salute', 'Think', 'Scratch the head'];
    const gestures = $derived(GESTURES.filter((g) => scene.assets.some((a) => a.kind === 'motion' && a.name === g)));
    const others = $derived(scene.rows.items.filter((i) => i.id !== line.itemId && i.kind !== 'set').map((i) => i.name));

    /** From a little before a word to a little after it: a voice may count words otherwise, then by their share. */
    function hear(n: number) {
        chosen = n;
        const all = settled?.words ?? [];
        const w = all[all.length === words.length ? n : Math.floor((n * all.length) / words.length)];
        if (w) playhead.playOnce(Math.max(0, w[1] - 0.08 * perSecond(scene.rate)), w[2] + 0.12 * perSecond(scene.rate));
    }
    const write = (text: string) => scene.edit({ do: 'line.set', line: line.id, text });
    const put = (does: string) => at !== null && does !== '' && write(withAt(line.text, at, does));
</script>

{#if words.length > 0}
    <div class="mt-1 flex max-h-[66px] flex-wrap gap-0.5 overflow-auto" data-testid="words" aria-label="Words; each is heard by itself">
        {#each words as { word }, n (n)}
            <button
                class={['rounded px-1 text-[11px] hover:bg-tide/10', at === n ? 'bg-tide text-paper' : 'bg-paper']}
                title="Hear it, and do something at it"
                onclick={() => hear(n)}
                >{#if doesAt(line.text, n).length > 0}<span class="text-alarm">•</span>{/if}{word}</button
            >
        {/each}
    </div>
    {#if at !== null && scene.canEdit}
        <div class="mt-1 text-[11px]" data-testid="at-word">
            <span class="text-soft">At “{words[at]?.word}”</span>
            {#each doesAt(line.text, at) as does, n (n)}
                <button
                    class="ml-1 rounded border border-line px-1"
                    title="Take it away"
                    onclick={() => write(without(line.text, at, does))}>{does} ×</button
                >
            {/each}
            <select
                class="mt-1 w-full rounded border-line bg-sheet py-0.5 text-xs"
                aria-label="What is done at the word"
                value=""
                onchange={(e) => {
                    void put(e.currentTarget.value);
                    e.currentTarget.value = '';
                }}
            >
                <option value="">do something at it…</option>
                <optgroup label="Look"
                    >{#each ['away', 'down', 'up', 'left', 'right', 'back', ...others] as way, n (n)}<option value={`look ${way}`}
                            >look {way}</option
                        >{/each}</optgroup
                >
                <optgroup label="Head"
                    ><option value="nod">nod</option><option value="shake">shake the head</option><option value="blink">blink</option
                    ></optgroup
                >
                <optgroup label="Gesture"
                    >{#each gestures as g (g)}<option value={g.toLowerCase()}>{g.toLowerCase()}</option>{/each}</optgroup
                >
                <optgroup label="Noise"
                    >{#each NOISES as n (n)}<option value={n}>{n}</option>{/each}</optgroup
                >
                <optgroup label="Pause"
                    ><option value="0.5 s">half a second</option><option value="1 s">a second</option><option value="2 s"
                        >two seconds</option
                    ></optgroup
                >
            </select>
        </div>
    {/if}
{/if}
