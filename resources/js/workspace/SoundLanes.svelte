<script lang="ts">
    import { perSecond } from '../lib/time';
    import { getDesk } from './context';
    import type { SoundRow } from './rows';
    import SoundCurve, { TALL } from './SoundCurve.svelte';
    import WavePicture from './speech/WavePicture.svelte';
    import type { Timeline } from './timeline.svelte';

    /** Sounds under the people, by where they belong; each as loud along its length as its file is. */
    let { line }: { line: Timeline } = $props();
    const { scene, playhead, sound } = getDesk();
    const LANES: [SoundRow['lane'], string][] = [
        ['effects', 'Effects'],
        ['ambience', 'Ambience'],
        ['music', 'Music'],
    ];
    const heard = $derived(new Map((scene.manifest?.sounds ?? []).map((s) => [Number(s.id.slice(1)), s])));
    let drag = $state<{ id: number; from: number; by: number; edge: 'whole' | 'out' } | null>(null);

    function down(e: PointerEvent, s: SoundRow) {
        e.stopPropagation();
        scene.select('sounds', s.id);
        if (!scene.canEdit || e.button !== 0) return;
        const el = e.currentTarget as HTMLElement;
        el.setPointerCapture(e.pointerId);
        const edge = s.repeats && el.getBoundingClientRect().right - e.clientX < 8 ? 'out' : 'whole';
        drag = { id: s.id, from: e.clientX, by: 0, edge };
    }
    function move(e: PointerEvent) {
        if (drag) drag = { ...drag, by: Math.round((e.clientX - drag.from) / line.perFrame) };
    }
    async function up() {
        const d = drag;
        const row = d ? scene.find('sounds', d.id) : null;
        if (d && row && d.by !== 0) {
            const end = Math.round(heard.get(row.id)?.end ?? row.start + 1);
            const to = d.edge === 'out' ? { until: Math.max(row.start + 1, end + d.by) } : { start: Math.max(0, row.start + d.by) };
            await scene.edit({ do: 'sound.set', sound: row.id, ...to });
        }
        drag = null;
    }
    function drop(e: DragEvent, lane: SoundRow['lane']) {
        const id = Number(e.dataTransfer?.getData('application/x-crisp-asset'));
        const r = (e.currentTarget as HTMLElement).getBoundingClientRect();
        if (!id || scene.asset(id)?.kind !== 'sound') return;
        e.preventDefault();
        void scene.edit({ do: 'sound.add', asset: id, lane, start: Math.max(0, line.frame(e.clientX - r.left)) });
    }
    const isOpen = (lane: SoundRow['lane']) => scene.rows.sounds.some((s) => s.lane === lane && scene.isSelected('sounds', s.id));
    /** The curve of the sound that is selected. */
    let curve = $state<SoundCurve>();
    const STEP_WORDS = { step: 'a step', land: 'lands', roll: 'rolls' };

    $effect(() => {
        // Dragged over, what is there is heard.
        if (!playhead.playing) sound.grain(playhead.frame, perSecond(scene.rate));
    });
</script>

<svelte:window onkeydowncapture={(e) => e.key === 'Escape' && (drag = null)} />

{#if scene.mix.happens && (scene.manifest?.noises.length ?? 0) > 0}
    <div class="relative h-[18px] border-b border-line" data-testid="noises-lane">
        <span
            class="absolute inset-y-0 left-0 z-10 flex items-center border-r border-line bg-paper px-2 font-medium text-soft"
            style:width={`${line.left}px`}>Steps</span
        >
        {#each scene.manifest?.noises ?? [] as [what, item, , start, end], k (k)}
            <span
                class={['absolute inset-y-[4px] rounded-sm', what === 'roll' ? 'bg-tide/30' : 'bg-tide/70']}
                style:left={`${line.x(start)}px`}
                style:width={`${what === 'roll' ? Math.max(3, (end - start) * line.perFrame) : 3}px`}
                title={`${scene.find('items', Number(item.slice(1)))?.name ?? ''}: ${STEP_WORDS[what]}, frame ${Math.round(start)}`}
            ></span>
        {/each}
    </div>
{/if}

{#each LANES as [lane, word] (lane)}
    {@const rows = scene.rows.sounds.filter((s) => s.lane === lane)}
    {#if rows.length > 0}
        <div
            class="relative border-b border-line"
            style:height={`${isOpen(lane) ? TALL + 5 : 26}px`}
            role="listitem"
            data-testid={`sounds-${lane}`}
            ondragover={(e) => e.preventDefault()}
            ondrop={(e) => drop(e, lane)}
        >
            <span
                class="absolute inset-y-0 left-0 z-10 flex items-center border-r border-line bg-paper px-2 font-medium text-soft"
                style:width={`${line.left}px`}>{word}</span
            >
            {#each rows as s (s.id)}
                {@const h = heard.get(s.id)}
                {#if h}
                    {@const by = drag?.id === s.id ? drag.by : 0}
                    <div
                        class={[
                            'absolute inset-y-[2px] cursor-grab overflow-hidden rounded-sm border border-tide/60 px-1',
                            'text-[10px] leading-[19px] whitespace-nowrap',
                            scene.isSelected('sounds', s.id) && 'ring-2 ring-ink',
                            (s.muted || scene.mix.muted.includes(lane)) && 'opacity-40',
                        ]}
                        style:left={`${line.x(h.start + (drag?.edge === 'whole' ? by : 0))}px`}
                        style:width={`${Math.max(5, (h.end - h.start + (drag?.edge === 'out' ? by : 0)) * line.perFrame)}px`}
                        role="button"
                        tabindex="0"
                        data-testid={`sound-${s.id}`}
                        aria-label={`${scene.asset(s.assetId)?.name ?? 'Sound'}, frame ${Math.round(h.start)} to ${Math.round(h.end)}`}
                        onpointerdown={(e) => down(e, s)}
                        onpointermove={move}
                        onpointerup={up}
                        ondblclick={(e) => scene.isSelected('sounds', s.id) && curve?.add(e)}
                        onkeydown={(e) => e.key === 'Enter' && scene.select('sounds', s.id)}
                    >
                        <WavePicture
                            sound={h.sound}
                            from={h.offset}
                            seconds={(h.end - h.start) / perSecond(scene.rate)}
                            turn={s.repeats ? h.turn : 0}
                            colour="#0a6e6e66"
                        />
                        <span class="relative rounded-sm bg-sheet/80 px-0.5">{scene.asset(s.assetId)?.name}</span>
                        {#if scene.isSelected('sounds', s.id)}<SoundCurve sound={s} {line} bind:this={curve} />{/if}
                    </div>
                {/if}
            {/each}
        </div>
    {/if}
{/each}
