<script lang="ts">
    import { onMount } from 'svelte';
    import { perSecond, short } from '../../lib/time';
    import { getDesk } from '../context';
    import { tapeColour, type LineRow } from '../rows';
    import LineField from './LineField.svelte';
    import PastePanel from './PastePanel.svelte';

    /** The scene's lines as on a page: who speaks, what is said, Enter for the next line, Tab for the next speaker. */
    const { scene, playhead, speech, recorder } = getDesk();
    onMount(() => void speech.refresh());

    const people = $derived(scene.rows.items.filter((i) => i.kind === 'performer'));
    const page = $derived(speech.page);
    const settled = $derived(speech.settled);
    let text = $state('');
    let speaker = $state<number | null>(null);
    /** Who has just been given a line that is still on its way. */
    let spoke = $state<number | null>(null);
    $effect(() => {
        if (page.length > 0) spoke = null;
    });
    let pasting = $state(false);
    let pastedText = $state('');
    let entry = $state<HTMLTextAreaElement>();
    let list = $state<HTMLDivElement>();

    /** Whoever did not speak last is likely to answer. */
    const likely = $derived.by(() => {
        const last = spoke ?? page.at(-1)?.itemId;
        if (!last) return people[0]?.id ?? null;
        return page.findLast((l) => l.itemId !== last)?.itemId ?? people.find((p) => p.id !== last)?.id ?? last;
    });
    const who = $derived(speaker ?? likely);

    function next(by: 1 | -1 = 1) {
        const at = people.findIndex((p) => p.id === who);
        speaker = people[(at + by + people.length) % people.length]?.id ?? null;
    }

    function typed(e: KeyboardEvent) {
        e.stopPropagation();
        if (e.key === 'Enter' && !e.shiftKey) {
            e.preventDefault();
            void add();
        } else if (e.key === 'Tab') {
            e.preventDefault();
            next(e.shiftKey ? -1 : 1);
        }
    }

    async function add() {
        const said = text.trim();
        const by = who;
        if (!by || said === '') return;
        text = '';
        speaker = null;
        spoke = by;
        const first = page.length === 0 ? { start: Math.round(playhead.frame) } : {};
        if (!(await scene.edit({ do: 'line.add', item: by, text: said, ...first }))) text = said;
        entry?.focus();
        list?.scrollTo({ top: list.scrollHeight });
    }

    /** What is typed is what will be said; without it the words can come later. */
    function record() {
        if (!who) return;
        void recorder.begin({ item: who, text: text.trim() });
        text = '';
    }

    function pasted(e: ClipboardEvent) {
        const page = e.clipboardData?.getData('text/plain') ?? '';
        // Several rows with names: a page of dialogue, not the words of one line.
        if (page.split('\n').filter((row) => /^\s*[\p{L}\p{N}][^:：]{0,40}[:：]/u.test(row)).length < 2) return;
        e.preventDefault();
        pastedText = page;
        pasting = true;
    }

    const gap = (l: LineRow) => (l.afterId === null ? null : l.pause);
    const at = (l: LineRow) => short((settled.get(l.id)?.from ?? l.start) / perSecond(scene.rate), 1);
    const waits = $derived(scene.voices.waiting);
</script>

<div class="flex h-full flex-col" data-testid="dialogue">
    <div class="min-h-0 flex-1 overflow-auto p-2" bind:this={list}>
        {#if page.length === 0}
            <p class="mb-2 text-xs text-soft">
                Choose who speaks, type what is said, Enter. Words between *asterisks* get weight; [1.5 s] is a pause, [nod] a nod. A whole
                page with names before colons can be pasted.
            </p>
        {/if}
        <ol class="flex flex-col gap-1" aria-label="Lines">
            {#each page as l (l.id)}
                {@const g = gap(l)}
                {#if g !== null && Math.abs(g - 0.4) > 0.01}<li class="pl-2 text-[10px] text-soft" aria-hidden="true">
                        {g < 0 ? `falls in by ${short(-g, 2)} s` : `${short(g, 2)} s of silence`}
                    </li>{/if}
                <li
                    class={['rounded border bg-sheet', scene.isSelected('lines', l.id) ? 'border-tide' : 'border-line']}
                    data-testid={`line-${l.id}`}
                >
                    <button
                        class="flex w-full items-center gap-1.5 px-1.5 pt-1 text-left text-[11px]"
                        onclick={() => (scene.select('lines', l.id), playhead.go(settled.get(l.id)?.start ?? l.start))}
                    >
                        <span
                            class="h-2.5 w-2.5 shrink-0 rounded-sm"
                            style:background={tapeColour(scene.find('items', l.itemId)?.tape ?? 0)}
                        ></span>
                        <span class="truncate font-semibold">{scene.find('items', l.itemId)?.name ?? '?'}</span>
                        {#if l.delivery !== 'plain'}<span class="text-soft">{l.delivery === 'called' ? 'called out' : l.delivery}</span
                            >{/if}
                        <span class="mono ml-auto text-soft" title="The camera on air, and when it is said"
                            >{speech.anglesOf(l.id).join(' ')}
                            {at(l)} s</span
                        >
                    </button>
                    <LineField line={l} />
                    {#if scene.voices.problems[String(l.id)]}<p class="px-1.5 pb-1 text-[11px] text-alarm" role="alert">
                            {scene.voices.problems[String(l.id)]}
                        </p>{:else if settled.get(l.id)?.sound === null}<p class="px-1.5 pb-1 text-[10px] text-soft">
                            a voice reads it…
                        </p>{/if}
                </li>
            {/each}
        </ol>
    </div>
    {#if scene.canEdit}
        <div class="border-t border-line p-2">
            {#if pasting}
                <PastePanel bind:page={pastedText} done={() => ((pasting = false), (pastedText = ''))} />
            {:else if people.length === 0}
                <p class="text-xs text-soft">There is nobody in the scene who could speak.</p>
            {:else}
                <div class="mb-1 flex items-center gap-2">
                    <select
                        class="min-w-0 flex-1 rounded border-line bg-sheet py-0.5 text-xs"
                        aria-label="Who speaks"
                        value={String(who ?? '')}
                        onchange={(e) => (speaker = Number(e.currentTarget.value))}
                    >
                        {#each people as p (p.id)}<option value={String(p.id)}>{p.name}</option>{/each}
                    </select>
                    {#if recorder.aim !== null && 'item' in recorder.aim}
                        <meter class="h-2 w-12" min="0" max="1" value={Math.sqrt(recorder.level)} aria-label="Loudness"></meter>
                        <button
                            class="rounded bg-alarm px-1.5 text-xs font-semibold text-white disabled:opacity-50"
                            disabled={recorder.sending}
                            data-testid="record-new-stop"
                            onclick={() => recorder.end()}>{recorder.sending ? 'Keeping…' : `Stop ${short(recorder.seconds, 0)} s`}</button
                        >
                    {:else}
                        <button
                            class="flex items-center gap-1 text-xs text-tide hover:underline disabled:opacity-50"
                            disabled={recorder.aim !== null}
                            title="Plays the scene from here and listens to the microphone; wear headphones"
                            data-testid="record-new"
                            onclick={record}><span class="h-2 w-2 rounded-full bg-alarm"></span>Record</button
                        >
                    {/if}
                    <button class="text-xs text-tide hover:underline" data-testid="paste-page" onclick={() => (pasting = true)}
                        >Paste…</button
                    >
                </div>
                <textarea
                    class="w-full resize-none rounded border-line bg-sheet p-1.5 text-xs"
                    rows="2"
                    maxlength="5000"
                    aria-label="What is said"
                    title="Enter: next line. Tab: next speaker"
                    placeholder="What is said…"
                    data-testid="line-entry"
                    bind:this={entry}
                    bind:value={text}
                    onpaste={pasted}
                    onkeydown={typed}></textarea>
            {/if}
            {#if waits > 0}<p class="text-[10px] text-soft" role="status" data-testid="voices-wait">
                    {waits}
                    {waits === 1 ? 'line is' : 'lines are'} being read
                </p>{/if}
        </div>
    {/if}
</div>
