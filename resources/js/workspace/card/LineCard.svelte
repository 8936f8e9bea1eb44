<script lang="ts">
    import { onMount } from 'svelte';
    import { perSecond, short } from '../../lib/time';
    import { getDesk } from '../context';
    import type { LineRow } from '../rows';
    import { DELIVERIES } from '../speech/speech.svelte';
    import LineField from '../speech/LineField.svelte';
    import VoicePicker from '../speech/VoicePicker.svelte';
    import ChoiceRow from './ChoiceRow.svelte';
    import NumberField from './NumberField.svelte';
    import SliderRow from './SliderRow.svelte';
    import TakesField from './TakesField.svelte';
    import WordsField from './WordsField.svelte';

    let { line }: { line: LineRow } = $props();
    const { scene, speech } = getDesk();
    onMount(() => void (speech.voices.length === 0 && speech.refresh()));

    const people = $derived(scene.rows.items.filter((i) => i.kind === 'performer'));
    const settled = $derived(speech.settled.get(line.id));
    const before = $derived(line.afterId === null ? null : scene.find('lines', line.afterId));
    const set = (values: Record<string, unknown>) => scene.edit({ do: 'line.set', line: line.id, ...values });
    const on = $derived(speech.anglesOf(line.id));
    const angle = $derived(on.length === 1 ? on[0]! : '');
    /** From the line's first sound to the next one's, or a little after its last. */
    function film(letter: string) {
        const camera = scene.rows.cameras.find((c) => c.letter === letter);
        if (!camera || !settled) return;
        const from = Math.max(0, Math.round(settled.from) - 1);
        const next = Math.min(...[...speech.settled.values()].map((l) => Math.round(l.from) - 1).filter((f) => f > from));
        const to = Math.min(
            scene.frames,
            Math.max(from + 1, next - settled.to < 2 * perSecond(scene.rate) ? next : Math.round(settled.to) + 6),
        );
        return scene.edit({ do: 'reel.lay', from, to, shots: [{ camera: camera.id, in: from }] });
    }
    let written = $state('');
    let spoken = $state('');
    async function say() {
        const word = written.trim();
        if (word === '') return;
        await scene.edit({ do: 'production.set', sayAs: { [word]: spoken.trim() || null } });
        await speech.refresh();
        written = spoken = '';
    }
    const others = $derived(Object.entries(speech.sayAs).filter(([w]) => line.text.toLowerCase().includes(w)));
</script>

<p class="mb-1 text-sm font-semibold">Line <span class="font-normal text-soft">of {scene.find('items', line.itemId)?.name}</span></p>
<div class="rounded border border-line"><LineField {line} /></div>
<div class="mb-2"><WordsField {line} /></div>
<dl class="grid grid-cols-[52px_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
    <ChoiceRow
        word="Speaker"
        label="Speaker"
        value={String(line.itemId)}
        options={people.map((p) => [String(p.id), p.name])}
        save={(id) => set({ item: Number(id) })}
    />
    <ChoiceRow
        word="To"
        label="Spoken to"
        value={String(line.toId ?? '')}
        options={[
            ['', 'who answers, or is nearest'],
            ...people.filter((p) => p.id !== line.itemId).map((p) => [String(p.id), p.name] as const),
        ]}
        save={(id) => set({ to: id ? Number(id) : null })}
    />
    <ChoiceRow word="Said" label="How it is said" value={line.delivery} options={DELIVERIES} save={(delivery) => set({ delivery })} />
    <dt class="text-soft">{before ? 'Pause' : 'Start'}</dt>
    <dd>
        {#if before}<NumberField label="Seconds after the line before" value={line.pause} digits={2} save={(pause) => set({ pause })} />
        {:else}<NumberField
                label="Start (frame)"
                value={line.start}
                digits={0}
                save={(n) => set({ start: Math.max(0, Math.round(n)) })}
            />{/if}
    </dd>
    {#if settled && scene.rows.cameras.length > 0}<ChoiceRow
            word="Angle"
            label="Camera that is on air while it is said"
            help="The reel shows the line from there: what lay there gives way"
            value={angle}
            options={[
                ...(on.length === 1 ? [] : [['', on.length === 0 ? 'nothing on air' : on.join(', ')] as const]),
                ...scene.rows.cameras.map((c) => [c.letter, `${c.letter} ${c.name}`] as const),
            ]}
            save={film}
        />{/if}
    <dt class="text-soft">Voice</dt>
    <dd><VoicePicker value={line.voice} own={speech.voiceOf(line.itemId)} none="the speaker's own" save={(voice) => set({ voice })} /></dd>
</dl>
<dl class="mt-1.5 grid grid-cols-[52px_minmax(0,1fr)_32px] items-center gap-x-2">
    <SliderRow word="Pace" help="Words by the time" least={0.5} most={2} step={0.05} value={line.pace} save={(pace) => set({ pace })} />
</dl>
{#if settled}<p class="mono mt-1 text-[11px] text-soft">
        {short((settled.to - settled.from) / perSecond(scene.rate), 2)} s, frames {Math.round(settled.from)} to {Math.round(settled.to)}
    </p>{/if}
<TakesField {line} />
{#if scene.canEdit}
    <details class="mt-1">
        <summary class="cursor-pointer text-tide">Say a word otherwise…</summary>
        <div class="mt-1 grid grid-cols-2 gap-1">
            <input
                class="min-w-0 rounded border-line bg-sheet px-1 py-0.5 text-xs"
                placeholder="written"
                aria-label="The word as it is written"
                bind:value={written}
                onkeydown={(e) => e.stopPropagation()}
            />
            <input
                class="min-w-0 rounded border-line bg-sheet px-1 py-0.5 text-xs"
                placeholder="spoken"
                aria-label="The word as it is spoken"
                bind:value={spoken}
                onkeydown={(e) => (e.stopPropagation(), e.key === 'Enter' && void say())}
            />
        </div>
        <button class="mt-1 text-tide hover:underline" data-testid="say-as" onclick={say}>In the whole production</button>
    </details>
    {#each others as [w, s] (w)}<p class="text-[11px] text-soft">{w} is said “{s}”</p>{/each}
    <div class="mt-2 flex gap-3">
        {#if before}<button class="text-tide hover:underline" onclick={() => settled && set({ start: Math.round(settled.start) })}
                >Let it wait for nobody</button
            >{/if}
        <button class="text-alarm hover:underline" title="Del" onclick={() => scene.edit({ do: 'line.remove', line: line.id })}
            >Remove</button
        >
    </div>
{/if}
