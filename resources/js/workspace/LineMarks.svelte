<script lang="ts">
    import { perSecond, short } from '../lib/time';
    import { getDesk } from './context';
    import type { ItemRow } from './rows';
    import WavePicture from './speech/WavePicture.svelte';
    import type { Timeline } from './timeline.svelte';

    /** What a performer says, under what they do: dragged, a line moves in time, or the pause before it changes. */
    let { item, line, colour }: { item: ItemRow; line: Timeline; colour: string } = $props();
    const { scene, speech } = getDesk();
    const said = $derived(scene.rows.lines.filter((l) => l.itemId === item.id));
    const settled = $derived(speech.settled);
    let drag = $state<{ id: number; from: number; by: number } | null>(null);

    function down(e: PointerEvent, id: number) {
        e.stopPropagation();
        scene.select('lines', id);
        if (!scene.canEdit || e.button !== 0) return;
        (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId);
        drag = { id, from: e.clientX, by: 0 };
    }
    function move(e: PointerEvent) {
        if (drag) drag = { ...drag, by: Math.round((e.clientX - drag.from) / line.perFrame) };
    }
    async function up() {
        const d = drag;
        const row = d ? scene.find('lines', d.id) : null;
        if (d && row && d.by !== 0) {
            const to =
                row.afterId === null
                    ? { start: Math.max(0, row.start + d.by) }
                    : { pause: Math.max(-10, Math.round((row.pause + d.by / perSecond(scene.rate)) * 100) / 100) };
            await scene.edit({ do: 'line.set', line: row.id, ...to });
        }
        drag = null;
    }
    const by = (id: number) => (drag?.id === id ? drag.by : 0);
    const told = (id: number) => {
        const row = scene.find('lines', id);
        return drag?.id === id && row && row.afterId !== null ? ` ${short(row.pause + drag.by / perSecond(scene.rate), 2)} s after` : '';
    };
</script>

<svelte:window onkeydowncapture={(e) => e.key === 'Escape' && (drag = null)} />

{#each said as l (l.id)}
    {@const s = settled.get(l.id)}
    {#if s}
        <div
            class={[
                'absolute bottom-[1px] h-[13px] cursor-grab overflow-hidden border-l-2 bg-sheet px-1',
                'text-[10px] leading-[13px] whitespace-nowrap',
                scene.isSelected('lines', l.id) ? 'ring-1 ring-ink' : '',
                scene.voices.problems[String(l.id)] ? 'text-alarm' : s.sound === null ? 'text-soft italic' : '',
            ]}
            style:left={`${line.x(s.from + by(l.id))}px`}
            style:width={`${Math.max(6, (s.to - s.from) * line.perFrame)}px`}
            style:border-color={colour}
            role="button"
            tabindex="0"
            data-testid={`said-${l.id}`}
            aria-label={`${item.name} says: ${s.heard}`}
            title={s.heard}
            onpointerdown={(e) => down(e, l.id)}
            onpointermove={move}
            onpointerup={up}
            onkeydown={(e) => e.key === 'Enter' && scene.select('lines', l.id)}
        >
            {#if s.sound}<WavePicture
                    sound={s.sound}
                    from={(s.from - s.start) / perSecond(scene.rate)}
                    seconds={(s.to - s.from) / perSecond(scene.rate)}
                    colour={`${colour}40`}
                />{/if}
            {#if speech.anglesOf(l.id).length > 0}<span class="mono relative mr-0.5 rounded-sm bg-ink/80 px-0.5 text-paper"
                    >{speech.anglesOf(l.id).join('')}</span
                >{/if}<span class="relative">{s.heard || 'a recording'}</span><span class="relative font-semibold">{told(l.id)}</span>
        </div>
    {/if}
{/each}
