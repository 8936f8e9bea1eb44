<script lang="ts">
    import { perSecond, short } from '../../lib/time';
    import { getDesk } from '../context';
    import type { LineRow, TakeRow } from '../rows';
    import WavePicture from '../speech/WavePicture.svelte';

    /** Seconds on either side of what is heard that an edge can be dragged to. */
    const ASIDE = 0.6;
    /** Rows that words stand in by turns. */
    const ROWS = 3;

    /** A recording with its words under it; what is heard of it lies between two edges that are dragged. */
    let { line, take }: { line: LineRow; take: TakeRow } = $props();
    const { scene, speech } = getDesk();
    const settled = $derived(speech.settled.get(line.id));
    const part = $derived(settled?.take ?? null);
    const blob = $derived(scene.asset(take.assetId)?.blob ?? null);
    let host = $state<HTMLDivElement>();
    let drag = $state<{ edge: 'from' | 'to'; at: number } | null>(null);
    const edge = (which: 'from' | 'to') => (drag?.edge === which ? drag.at : (part?.[which] ?? 0));
    /** Seconds of the recording that are drawn: what is heard, and a little on either side. */
    const shown = $derived.by(() => {
        const from = Math.max(0, (part?.from ?? 0) - ASIDE);
        return { from, seconds: Math.max(0.1, Math.min(part?.seconds ?? 0, (part?.to ?? 0) + ASIDE) - from) };
    });
    const share = (s: number) => (100 * (s - shown.from)) / shown.seconds;
    /** Second of the recording at a frame of the scene. */
    const second = (frame: number) => (part && settled ? part.from + (frame - settled.start) / perSecond(scene.rate) : 0);

    function at(e: PointerEvent): number {
        const r = host?.getBoundingClientRect();
        return r && part ? Math.max(0, Math.min(part.seconds, shown.from + ((e.clientX - r.left) / r.width) * shown.seconds)) : 0;
    }
    function down(e: PointerEvent, which: 'from' | 'to') {
        if (!scene.canEdit || e.button !== 0) return;
        (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
        drag = { edge: which, at: at(e) };
    }
    function move(e: PointerEvent) {
        if (!drag || !part) return;
        const t = at(e);
        drag = { edge: drag.edge, at: drag.edge === 'from' ? Math.min(t, part.to - 0.1) : Math.max(t, part.from + 0.1) };
    }
    async function up() {
        const d = drag;
        if (d && part && Math.abs(d.at - part[d.edge]) > 0.005)
            await scene.edit({
                do: 'take.set',
                take: take.id,
                [d.edge === 'from' ? 'sourceIn' : 'sourceOut']: Math.round(d.at * 1000) / 1000,
            });
        drag = null;
    }
</script>

{#if part && blob}
    <div class="relative mt-1 h-10 overflow-hidden rounded bg-desk" bind:this={host} data-testid="wave-strip">
        <WavePicture sound={blob} from={shown.from} seconds={shown.seconds} colour="#0a6e6e" />
        <div class="absolute inset-y-0 left-0 bg-sheet/75" style:width={`${share(edge('from'))}%`}></div>
        <div class="absolute inset-y-0 right-0 bg-sheet/75" style:left={`${share(edge('to'))}%`}></div>
        {#each ['from', 'to'] as const as which (which)}
            <div
                class="absolute inset-y-0 -ml-1 w-2 cursor-ew-resize border-x border-ink/60 bg-ink/20"
                style:left={`${share(edge(which))}%`}
                role="slider"
                tabindex="0"
                aria-label={which === 'from' ? 'The line begins' : 'The line ends'}
                aria-valuenow={Math.round(edge(which) * 100) / 100}
                aria-valuemin="0"
                aria-valuemax={part.seconds}
                data-testid={`trim-${which}`}
                onpointerdown={(e) => down(e, which)}
                onpointermove={move}
                onpointerup={up}
            ></div>
        {/each}
    </div>
    <div class="relative h-9 overflow-hidden text-[10px] leading-3 text-soft" data-testid="wave-words">
        {#each settled?.words ?? [] as [word, from], k (k)}<span
                class="absolute border-l border-line pl-px whitespace-nowrap"
                style:left={`${share(second(from))}%`}
                style:top={`${12 * (k % ROWS)}px`}>{word}</span
            >{/each}
    </div>
    <p class="text-[11px] text-soft">
        <span class="mono">{short(part.from, 2)} to {short(part.to, 2)} of {short(part.seconds, 2)} s</span
        >{#if scene.canEdit && (take.sourceIn !== null || take.sourceOut !== null)}
            <button
                class="ml-1 text-tide hover:underline"
                title="From shortly before the first to shortly after the last that is heard"
                onclick={() => scene.edit({ do: 'take.set', take: take.id, sourceIn: null, sourceOut: null })}>trim by itself</button
            >{/if}
    </p>
{:else}
    <p class="mt-1 text-[11px] text-soft">its words are being found…</p>
{/if}
