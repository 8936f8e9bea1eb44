<script lang="ts">
    import { onMount } from 'svelte';
    import { getDesk } from '../context';
    import type { ItemRow } from '../rows';
    import { EMOTIONS, emotionWord } from '../speech/speech.svelte';
    import VoicePicker from '../speech/VoicePicker.svelte';

    /** Whose voice it is, and what shows in the face: while nothing else does, and from here on. */
    let { item }: { item: ItemRow } = $props();
    const { scene, playhead, speech } = getDesk();
    onMount(() => void (speech.voices.length === 0 && speech.refresh()));
    const set = (values: Record<string, unknown>) => scene.edit({ do: 'item.set', item: item.id, ...values });
    const own = $derived(speech.voices.find((c) => c.id === speech.cast[String(item.id)]) ?? null);
    const shows = $derived(scene.rows.expressions.filter((e) => e.itemId === item.id).sort((a, b) => a.from - b.from));

    async function show(emotion: string) {
        const frame = Math.round(playhead.frame);
        const known = scene.rows.expressions.map((e) => e.id);
        const next = shows.find((e) => e.from > frame)?.from ?? null;
        // One at a time: what showed before ends where this begins.
        const before = shows.findLast((e) => e.from < frame && (e.to === null || e.to > frame));
        if (
            await scene.edit(...(before ? [{ do: 'expression.set', expression: before.id, to: frame }] : []), {
                do: 'expression.add',
                item: item.id,
                emotion,
                from: frame,
                ...(next === null ? {} : { to: next }),
            })
        ) {
            const made = scene.rows.expressions.find((e) => !known.includes(e.id));
            if (made) scene.select('expressions', made.id);
        }
    }
</script>

<dt class="text-soft">Voice</dt>
<dd class="min-w-0">
    <VoicePicker value={item.voice} {own} none="one that suits" save={(voice) => set({ voice }).then(() => speech.refresh())} />
</dd>
<dt class="text-soft">Face</dt>
<dd class="grid min-w-0 grid-cols-2 gap-1">
    <select
        class="min-w-0 rounded border-line bg-sheet py-0.5 text-xs"
        aria-label="What shows in the face at rest"
        title="At rest: under all motions, as long as nothing else shows"
        disabled={!scene.canEdit}
        value={item.resting}
        onchange={(e) => set({ resting: e.currentTarget.value })}
    >
        <option value="none">at rest</option>
        {#each EMOTIONS as e (e)}<option value={e}>{emotionWord(e)}</option>{/each}
    </select>
    <select
        class="min-w-0 rounded border-line bg-sheet py-0.5 text-xs"
        aria-label="What shows from here on"
        title="From the playhead on"
        data-testid="show-here"
        disabled={!scene.canEdit}
        value=""
        onchange={(e) => void show(e.currentTarget.value)}
    >
        <option value="">from here…</option>
        {#each EMOTIONS as e (e)}<option value={e}>{emotionWord(e)}</option>{/each}
    </select>
</dd>
{#if shows.length > 0}<dt class="text-soft">Shows</dt>
    <dd class="flex flex-wrap gap-1">
        {#each shows as e (e.id)}<button
                class="text-tide hover:underline"
                onclick={() => (scene.select('expressions', e.id), playhead.go(e.from))}>{emotionWord(e.emotion)} {e.from}</button
            >{/each}
    </dd>{/if}
