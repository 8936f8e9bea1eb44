<script lang="ts">
    import { Button } from 'flowbite-svelte';
    import { onDestroy } from 'svelte';
    import { ApiError, call } from '../../lib/api';
    import { timecode } from '../../lib/time';
    import { getDesk } from '../context';
    import { tapeColour } from '../rows';
    import { FirstCuts, cutWords, type FirstCut } from './setups';
    import { SmallPictures } from './smallPictures.svelte';

    /** A first cut of what people do, in three styles, as a strip; nothing changes until it is taken. */
    const { scene, playhead, view } = getDesk();
    let chosen = $state.raw<number[] | null>(null);
    let cuts = $state.raw<Record<string, FirstCut>>({});
    let style = $state('plain');
    let busy = $state(false);
    let failed = $state<{ message: string; remedy: string } | null>(null);
    let looked = '';

    const people = $derived(scene.rows.items.filter((i) => i.kind === 'performer'));
    // Who does something is meant, until somebody says otherwise.
    const does = (b: { assetId: number }) => scene.asset(b.assetId)?.slug !== 'idle';
    const active = $derived(people.filter((p) => scene.rows.beats.some((b) => b.itemId === p.id && does(b))).map((p) => p.id));
    const taking = $derived(chosen ?? (active.length > 0 ? active : people.map((p) => p.id)).slice(0, 12));
    const span = $derived({ from: playhead.first, to: playhead.end });
    const cut = $derived(cuts[style] ?? null);
    const stale = $derived(cut !== null && scene.manifest?.state !== looked);

    const pictures = new SmallPictures(
        () => view.painter,
        (frame) => scene.posesAt(frame),
        192,
        Math.round(192 / (scene.manifest ? scene.manifest.width / scene.manifest.height : 16 / 9)),
    );
    onDestroy(() => pictures.close());
    const key = (s: FirstCut['shots'][number]) => JSON.stringify([s.view, s.from, s.to]);
    const middle = (s: FirstCut['shots'][number]) => Math.floor((s.from + s.to) / 2);
    $effect(() => {
        void scene.posesVersion;
        pictures.ask((cut?.shots ?? []).map((s) => ({ key: key(s), view: s.view, frame: middle(s) })));
    });

    function toggle(id: number) {
        chosen = taking.includes(id) ? taking.filter((t) => t !== id) : [...taking, id];
    }

    async function look() {
        busy = true;
        failed = null;
        try {
            const body = { people: taking.map((id) => `i${id}`), from: span.from, to: span.to };
            cuts = (await call(FirstCuts, 'POST', `scenes/${scene.id}/cuts`, body)).cuts;
            looked = scene.manifest?.state ?? '';
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            failed = e;
        }
        busy = false;
    }

    async function take() {
        if (!cut || !(await scene.edit(...cut.commands))) return;
        cuts = {};
        view.source = { kind: 'reel' };
        playhead.go(span.from);
    }
</script>

<div class="flex flex-col gap-1.5 border-b border-line p-2">
    <div class="flex flex-wrap gap-1" role="group" aria-label="Who takes part">
        {#each people as p (p.id)}
            <button
                class={[
                    'flex items-center gap-1 rounded border px-1.5 py-0.5 text-[11px]',
                    taking.includes(p.id) ? 'border-ink bg-sheet' : 'border-line opacity-60',
                ]}
                aria-pressed={taking.includes(p.id)}
                onclick={() => toggle(p.id)}
                ><span class="h-2 w-2 rounded-full" style:background={tapeColour(p.tape)}></span>{p.name}</button
            >
        {/each}
    </div>
    <p class="mono text-[10px] text-soft" title="From in to out of the playhead (I and O)">
        {timecode(span.from, scene.rate)} to {timecode(span.to, scene.rate)}
    </p>
    <Button size="xs" onclick={look} disabled={busy || taking.length === 0} data-testid="look-for-cut"
        >{busy ? 'Setting up and looking…' : cut ? 'Look again' : 'Show a first cut'}</Button
    >
    {#if failed}<p class="text-alarm" role="alert">{failed.message} {failed.remedy}</p>{/if}
</div>
{#if cut}
    <div class="flex items-center gap-1 border-b border-line p-2" role="group" aria-label="Style">
        {#each Object.entries(cuts) as [name, c] (name)}
            <button
                class={[
                    'rounded border px-1.5 py-0.5 text-[11px]',
                    style === name ? 'border-tide bg-tide text-white' : 'border-line bg-sheet',
                ]}
                aria-pressed={style === name}
                onclick={() => (style = name)}>{c.title} ({c.shots.length})</button
            >
        {/each}
        <span class="flex-1"></span>
        {#if scene.canEdit}<Button size="xs" onclick={take} data-testid="take-cut">Take it</Button>{/if}
    </div>
    <p class="px-2 pt-1 text-[11px] text-soft">
        {cutWords(cut.facts)}{#if stale}<span class="block text-alarm">The scene has changed since; look again.</span>{/if}
    </p>
    <ol class="min-h-0 flex-1 overflow-auto p-2" data-testid="first-cut">
        {#each cut.shots as s, n (s.from)}
            <li class="mb-1.5">
                <button
                    class="flex w-full gap-2 rounded border border-line bg-sheet text-left hover:border-tide"
                    onclick={() => playhead.go(middle(s))}
                >
                    <span class="block aspect-video w-24 shrink-0 bg-surround"
                        >{#if pictures.made[key(s)]}<img class="h-full w-full" src={pictures.made[key(s)]} alt={s.title} />{/if}</span
                    >
                    <span class="min-w-0 py-0.5 text-[11px] leading-tight"
                        ><span class="mono text-soft">{n + 1}. {timecode(s.to - s.from, scene.rate).slice(-5)}</span><br />{s.title}</span
                    >
                </button>
            </li>
        {/each}
    </ol>
{:else if !busy}
    <p class="p-2 text-soft">
        Set-ups for those who are marked, and shots among them: on whom speaks, wider where they walk, close on what changes hands. You see
        them here before anything is changed.
    </p>
{/if}
