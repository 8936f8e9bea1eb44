<script lang="ts">
    import { parseFrame, perSecond, short, timecode } from '../lib/time';
    import { shotAt } from '../picture';
    import { getDesk } from './context';

    const { scene, playhead, view, sound } = getDesk();
    let typing = $state<string | null>(null);

    const shot = $derived(scene.manifest ? shotAt(scene.manifest, playhead.frame) : null);
    const camera = $derived(scene.manifest?.cameras.find((c) => c.id === shot?.camera));

    function take() {
        const f = typing === null ? null : parseFrame(typing, scene.rate);
        if (f !== null) playhead.go(f);
        typing = null;
    }

    const buttons = $derived([
        { label: 'To the start (Home)', path: 'M5 5v14M19 5 8 12l11 7z', act: () => playhead.go(playhead.first) },
        { label: 'Back one frame (left)', path: 'M16 5 6 12l10 7z', act: () => playhead.step(-1) },
        {
            label: playhead.playing ? 'Stop (Space)' : 'Play (Space)',
            path: playhead.playing ? 'M7 5h4v14H7zM14 5h4v14h-4z' : 'M7 4l13 8-13 8z',
            act: () => playhead.toggle(),
            main: true,
        },
        { label: 'On one frame (right)', path: 'M8 5l10 7-10 7z', act: () => playhead.step(1) },
        { label: 'To the end (End)', path: 'M19 5v14M5 5l11 7-11 7z', act: () => playhead.go(playhead.end - 1) },
    ]);
</script>

<div class="flex h-10 shrink-0 items-center gap-3 border-y border-line bg-paper px-3">
    {#if typing === null}
        <button
            class="mono text-lg"
            data-testid="timecode"
            title="Type a time: 130, 5.5s, 00:00:05:12"
            onclick={() => (typing = timecode(playhead.frame, scene.rate))}>{timecode(playhead.frame, scene.rate)}</button
        >
    {:else}
        <!-- svelte-ignore a11y_autofocus -->
        <input
            class="mono w-32 rounded border border-line px-1 py-0 text-lg"
            aria-label="Go to time or frame"
            autofocus
            bind:value={typing}
            onblur={take}
            onkeydown={(e) => (e.stopPropagation(), e.key === 'Enter' ? take() : e.key === 'Escape' && (typing = null))}
        />
    {/if}
    <div class="flex items-center gap-1">
        {#each buttons as b (b.label)}
            <button
                class={[
                    'grid h-7 place-items-center rounded border',
                    b.main ? 'w-10 border-tide bg-tide text-white' : 'w-7 border-line bg-sheet hover:bg-desk',
                ]}
                title={b.label}
                aria-label={b.label}
                data-testid={b.main ? 'play' : undefined}
                onclick={b.act}
            >
                <svg viewBox="0 0 24 24" class="h-3.5 w-3.5" fill="currentColor" stroke="currentColor" stroke-width="1.5" aria-hidden="true"
                    ><path d={b.path} /></svg
                >
            </button>
        {/each}
    </div>
    <span class="mono text-xs text-soft">frame {playhead.frame} of {scene.frames}</span>
    <span class="mono text-xs text-soft">in {timecode(playhead.first, scene.rate)} out {timecode(playhead.end, scene.rate)}</span>
    {#if playhead.inFrame !== null || playhead.outFrame !== null}
        <button class="text-xs text-tide hover:underline" onclick={() => ((playhead.inFrame = null), (playhead.outFrame = null))}
            >whole scene</button
        >
    {/if}
    <span class="mono text-xs text-soft"
        >{short(perSecond(scene.rate), 3)} fps{Math.abs(playhead.speed) > 1 || playhead.speed < 0 ? `  x${playhead.speed}` : ''}</span
    >
    <button
        class={['rounded border px-1.5 py-0.5 text-xs', sound.on ? 'border-tide text-tide' : 'border-line text-soft line-through']}
        aria-pressed={sound.on}
        data-testid="sound"
        title={sound.on ? 'Sound is heard (M)' : 'Silent (M)'}
        onclick={() => sound.toggle()}>sound</button
    >
    {#if scene.rows.lines.length > 0}<button
            class={['rounded border px-1.5 py-0.5 text-xs', view.subtitles ? 'border-tide text-tide' : 'border-line text-soft']}
            aria-pressed={view.subtitles}
            data-testid="subtitles"
            title="What is said, in the picture (S)"
            onclick={() => (view.subtitles = !view.subtitles)}>words</button
        >{/if}
    <span class="flex-1"></span>
    {#if shot && camera}
        <span class="text-xs"
            >Shot <span class="mono">{shot.label}</span> &ensp; Camera {camera.letter} &ensp;
            <span class="mono">{timecode(shot.out - shot.in, scene.rate)}</span></span
        >
    {/if}
</div>
