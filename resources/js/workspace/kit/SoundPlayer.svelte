<script lang="ts">
    import { onDestroy } from 'svelte';

    interface Props {
        blob: string;
        picture: string | null;
        name: string;
        loops?: boolean;
        /** Heard as soon as it is here. */
        atOnce?: boolean;
    }
    let { blob, picture, name, loops = false, atOnce = false }: Props = $props();
    /** Share of the picture's width that is left free at each side. */
    const MARGIN = 0.05;
    let audio = $state<HTMLAudioElement>();
    let paused = $state(true);
    let at = $state(0);
    let length = $state(0);
    let broken = $state(false);
    const share = $derived(length > 0 ? Math.min(1, at / length) : 0);
    const seconds = (s: number) => `${s.toFixed(1)} s`;

    // The element tells of its time four times a second; the line moves with every picture of the screen.
    let loop = 0;
    $effect(() => {
        if (paused) return;
        const run = () => {
            if (audio) at = audio.currentTime;
            loop = requestAnimationFrame(run);
        };
        run();
        return () => cancelAnimationFrame(loop);
    });
    onDestroy(() => audio?.pause());

    function toggle() {
        if (!audio) return;
        if (audio.paused) void audio.play().catch(() => undefined);
        else audio.pause();
    }
    function seek(e: MouseEvent) {
        if (!audio || length === 0) return;
        const r = (e.currentTarget as HTMLElement).getBoundingClientRect();
        const s = ((e.clientX - r.left) / r.width - MARGIN) / (1 - 2 * MARGIN);
        audio.currentTime = at = Math.max(0, Math.min(0.999, s)) * length;
    }
</script>

<div class="flex flex-col gap-2" data-testid="sound-player" data-playing={!paused}>
    <audio
        bind:this={audio}
        src={`/api/blobs/${blob}`}
        autoplay={atOnce}
        loop={loops}
        onplay={() => (paused = false)}
        onpause={() => (paused = true)}
        onended={() => (paused = true)}
        onerror={() => (broken = true)}
        ondurationchange={() => (length = Number.isFinite(audio?.duration) ? (audio?.duration ?? 0) : 0)}
        ontimeupdate={() => (at = audio?.currentTime ?? 0)}
    ></audio>
    <button
        class="relative block overflow-hidden rounded border border-line bg-surround"
        aria-label={`Go to a place in ${name}`}
        onclick={seek}
    >
        {#if picture}<img src={`/api/blobs/${picture}`} alt="" class="h-[180px] w-full object-fill" draggable="false" />{:else}<span
                class="block h-[180px]"
            ></span>{/if}
        <span class="absolute inset-y-0 w-px bg-buoy" style:left={`${(MARGIN + share * (1 - 2 * MARGIN)) * 100}%`}></span>
    </button>
    <div class="flex items-center gap-3 text-xs">
        <button
            class="rounded bg-tide px-3 py-1 font-semibold text-white disabled:opacity-50"
            disabled={broken}
            onclick={toggle}
            data-testid="hear">{paused ? 'Hear it' : 'Stop'}</button
        >
        <span class="mono text-soft" data-testid="heard">{seconds(at)} of {seconds(length)}</span>
    </div>
    {#if broken}<p class="text-xs text-alarm" role="alert">This browser cannot play it. Save it again as WAV or FLAC.</p>{/if}
</div>
