<script lang="ts">
    import { Progressbar } from 'flowbite-svelte';
    import type { Render } from '../answers';

    /** A render that was asked for: how far it is, and what can be done with it. */
    let { r, watching, watch, act }: { r: Render; watching: boolean; watch: () => void; act: (what: 'cancel' | 'resume') => void } =
        $props();
    /** Whether frames are drawn for it. */
    const seen = $derived(!['wav', 'stems'].includes(r.format));
    const WORDS = {
        waiting: 'waiting for a worker',
        drawing: 'drawing',
        encoding: 'encoding',
        done: 'done',
        cancelled: 'cancelled',
        failed: 'stopped',
    };
</script>

<li class="rounded border border-line bg-sheet p-2 text-xs" data-testid="render-entry" data-status={r.status}>
    <div class="flex items-baseline justify-between gap-2">
        <span class="truncate font-semibold" title={r.fileName}>{r.fileName}</span>
        <span class={r.status === 'failed' ? 'font-semibold text-alarm' : 'text-soft'}
            >{r.status === 'encoding' && !seen ? 'mixing' : WORDS[r.status]}</span
        >
    </div>
    <p class="mono text-[10px] text-soft">
        {!seen ? 'Sound' : `${r.width} x ${r.height}`}, {r.frames} frames{r.bytes ? `, ${(r.bytes / 1e6).toFixed(1)} MB` : ''}
    </p>
    {#if ['waiting', 'drawing', 'encoding'].includes(r.status)}
        <Progressbar progress={Math.round((100 * r.drawn) / r.frames)} size="h-1.5" class="my-1" />
        <!-- On one line of fixed height: what is said gets shorter while the pointer is on its way to the button. -->
        <p class="flex h-5 items-center gap-2 text-soft">
            <button class="shrink-0 text-tide hover:underline" onclick={() => act('cancel')}>Cancel</button>
            <span class={['min-w-0 truncate', !seen && 'hidden']}
                >{r.drawn} of {r.frames}{r.secondsLeft !== null ? `, ${r.secondsLeft} s left` : ''}</span
            >
        </p>
    {:else if r.status === 'done'}
        <div class="mt-1 flex gap-3">
            {#if !['png', 'stems'].includes(r.format)}<button class="font-medium text-tide hover:underline" onclick={watch}
                    >{watching ? 'Close' : r.format === 'wav' ? 'Listen' : 'Watch'}</button
                >{/if}
            <a
                class="font-medium text-tide hover:underline"
                href={`/api/renders/${r.id}/file?download=1`}
                download={r.fileName}
                data-testid="download">Download</a
            >
        </div>
    {:else}
        {#if r.error}<p class="text-alarm">{r.error}</p>{/if}
        {#if seen}<p class="text-soft">{r.drawn} of {r.frames} frames are kept.</p>{/if}
        <button class="text-tide hover:underline" onclick={() => act('resume')}>Resume</button>
    {/if}
</li>
