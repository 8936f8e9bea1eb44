<script lang="ts">
    import { Alert, Button } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import { ApiError, call, tell } from '../../lib/api';
    import { parseFrame, perSecond, timecode } from '../../lib/time';
    import { Renders, type Render } from '../answers';
    import { getDesk } from '../context';
    import RenderEntry from './RenderEntry.svelte';
    import { renderWish } from './renderWish.svelte';

    const { scene, playhead } = getDesk();
    const SIZES = ['640x360', '1280x720', '1920x1080', 'other'];
    const LOUDNESS: [number, string][] = [
        [-14, 'for the web'],
        [-16, 'for headphones'],
        [-23, 'for broadcast'],
    ];
    const asked = renderWish(scene.id);
    let list = $state<Render[]>([]);
    let pace = $state<number | null>(null);
    let error = $state<ApiError | null>(null);
    let watching = $state<string | null>(null);

    const last = $derived(scene.manifest?.shots[scene.manifest.shots.length - 1]?.out ?? scene.frames);
    const range = $derived([
        parseFrame(asked.from || '0', scene.rate) ?? 0,
        parseFrame(asked.to || String(last), scene.rate) ?? last,
    ] as const);
    const wh = $derived((asked.size === 'other' ? asked.typed : asked.size).split('x').map(Number) as [number, number]);
    const estimate = $derived.by(() => {
        if (pace === null || !wh[0] || !wh[1]) return null;
        const s = ((range[1] - range[0]) * pace * Math.max(0.35, (wh[0] * wh[1]) / 921600)) / 1000 + 6;
        return s < 90 ? `about ${Math.ceil(s)} s` : `about ${Math.ceil(s / 60)} min`;
    });

    /** Whether frames are drawn for what is asked. */
    const drawn = $derived(!['wav', 'stems'].includes(asked.format));

    async function load() {
        const r = await call(Renders, 'GET', `scenes/${scene.id}/renders`);
        list = r.renders;
        pace = r.pace;
    }

    onMount(() => {
        let stop = false;
        const again = async () => {
            await load().catch(() => undefined);
            if (!stop) setTimeout(again, list.some((r) => ['waiting', 'drawing', 'encoding'].includes(r.status)) ? 800 : 4000);
        };
        void again();
        return () => (stop = true);
    });

    async function start() {
        error = null;
        await scene.render({ from: range[0], to: range[1], width: wh[0], height: wh[1], format: asked.format, loudness: asked.loudness });
        await load().catch(() => undefined);
    }

    // One that was kept while the server was away has been asked for.
    $effect(() => {
        if (scene.rendersVersion > 0) void load().catch(() => undefined);
    });

    async function act(r: Render, what: 'cancel' | 'resume') {
        error = null;
        try {
            await tell('POST', `renders/${r.id}/${what}`);
            await load();
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            error = e;
        }
    }

    const field = 'mono w-full rounded border border-line bg-sheet px-2 py-1 text-xs';
</script>

<div class="flex h-full flex-col">
    <form class="flex flex-col gap-2 border-b border-line p-2" onsubmit={(e) => (e.preventDefault(), start())}>
        <label class="text-xs font-semibold text-soft"
            >Size
            <select class="mt-0.5 w-full rounded border-line bg-sheet py-1 text-sm text-ink" aria-label="Size" bind:value={asked.size}>
                {#each SIZES as s (s)}<option value={s}>{s === 'other' ? 'another size' : s.replace('x', ' x ')}</option>{/each}
            </select>
        </label>
        {#if asked.size === 'other'}<input
                class={field}
                aria-label="Width x height"
                bind:value={asked.typed}
                onkeydown={(e) => e.stopPropagation()}
            />{/if}
        <div class="grid grid-cols-2 gap-2">
            <label class="text-xs font-semibold text-soft"
                >From <input
                    class={field}
                    placeholder="0"
                    aria-label="From"
                    bind:value={asked.from}
                    onkeydown={(e) => e.stopPropagation()}
                /></label
            >
            <label class="text-xs font-semibold text-soft"
                >To <input
                    class={field}
                    placeholder={String(last)}
                    aria-label="To"
                    bind:value={asked.to}
                    onkeydown={(e) => e.stopPropagation()}
                /></label
            >
        </div>
        {#if playhead.inFrame !== null || playhead.outFrame !== null}
            <button
                type="button"
                class="self-start text-xs text-tide hover:underline"
                onclick={() => ((asked.from = String(playhead.first)), (asked.to = String(playhead.end)))}>use in and out</button
            >
        {/if}
        <label class="text-xs font-semibold text-soft"
            >As
            <select class="mt-0.5 w-full rounded border-line bg-sheet py-1 text-sm text-ink" aria-label="As" bind:value={asked.format}>
                <option value="mp4">Video (MP4)</option>
                <option value="webm">Video (WebM)</option>
                <option value="png">Pictures (PNG, zipped)</option>
                <option value="wav">Sound (WAV)</option>
                <option value="stems">Sound by lanes (WAV, zipped)</option>
            </select>
        </label>
        {#if asked.format !== 'png'}<label class="text-xs font-semibold text-soft" title="How loud the whole is; no peak goes beyond -1 dB"
                >Loudness
                <select
                    class="mt-0.5 w-full rounded border-line bg-sheet py-1 text-sm text-ink"
                    aria-label="Loudness"
                    bind:value={asked.loudness}
                >
                    {#each LOUDNESS as [lufs, word] (lufs)}<option value={lufs}>{lufs} LUFS, {word}</option>{/each}
                </select>
            </label>{/if}
        <p class="text-xs text-soft">
            {range[1] - range[0]} frames, {timecode(range[1] - range[0], scene.rate)} at {+perSecond(scene.rate).toFixed(3)}. {!drawn
                ? 'Nothing is drawn for it.'
                : estimate
                  ? `This machine needs ${estimate}.`
                  : 'The first render here will tell how long frames take.'}
        </p>
        {#if scene.rows.lines.length > 0}<p class="text-xs text-soft">
                What is said, as subtitles:
                {#each ['srt', 'vtt'] as as (as)}<a
                        class="mr-2 text-tide hover:underline"
                        href={`/api/scenes/${scene.id}/subtitles.${as}`}
                        download>{as === 'srt' ? 'SubRip' : 'WebVTT'}</a
                    >{/each}
            </p>{/if}
        {#if error}<Alert color="red" role="alert" class="p-2 text-xs"><strong>{error.message}</strong> {error.remedy}</Alert>{/if}
        <Button size="sm" type="submit" data-testid="render">Render</Button>
    </form>
    <ul class="flex min-h-0 flex-1 flex-col gap-2 overflow-auto p-2" aria-label="Renders">
        {#each list as r (r.id)}
            <RenderEntry
                {r}
                watching={watching === r.id}
                watch={() => (watching = watching === r.id ? null : r.id)}
                act={(what) => act(r, what)}
            />
        {:else}
            <li class="text-soft">Finished videos wait here.</li>
        {/each}
    </ul>
</div>

<!-- Before the keys of the workspace, which would take it for theirs. -->
<svelte:window
    onkeydowncapture={(e) => {
        if (e.key === 'Escape' && watching) {
            watching = null;
            e.stopPropagation();
        }
    }}
/>

{#if watching}
    <div
        class="fixed inset-0 z-50 grid place-items-center bg-ink/70"
        role="presentation"
        onclick={(e) => e.target === e.currentTarget && (watching = null)}
    >
        <div class="w-[min(92vw,1100px)] rounded bg-surround p-3">
            <!-- svelte-ignore a11y_media_has_caption -->
            <video class="w-full" src={`/api/renders/${watching}/file`} controls autoplay></video>
            <div class="mt-2 text-right"><Button size="xs" color="alternative" onclick={() => (watching = null)}>Close</Button></div>
        </div>
    </div>
{/if}
