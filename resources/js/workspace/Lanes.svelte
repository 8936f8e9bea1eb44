<script lang="ts">
    import { getDesk } from './context';
    import { framingsOf } from './cover/setups';
    import FramingLane from './FramingLane.svelte';
    import LineMarks from './LineMarks.svelte';
    import SoundLanes from './SoundLanes.svelte';
    import { soundOf } from './speech/recorder.svelte';
    import { tapeColour, type BeatRow, type CameraRowData, type ItemRow, type LinkRow } from './rows';
    import type { Timeline } from './timeline.svelte';

    let { line }: { line: Timeline } = $props();
    const { scene, playhead, recorder } = getDesk();

    let host = $state<HTMLDivElement>();
    type Drag = { id: number; edge: 'whole' | 'in' | 'out'; from: number; by: number; kind: 'beat' | 'link' };
    let drag = $state<Drag | null>(null);
    /** A move is drawn or dragged on a camera's lane. */
    let drawing = $state(false);

    // Performers first, then what is carried; props that do nothing come last.
    const rank = (i: ItemRow) => (i.kind === 'performer' ? 0 : scene.rows.links.some((l) => l.childId === i.id) ? 1 : 3);
    const lanes = $derived(scene.rows.items.filter((i) => i.kind !== 'set').sort((a, b) => rank(a) - rank(b) || a.id - b.id));
    const acting = $derived(lanes.filter((i) => rank(i) < 3));
    const still = $derived(lanes.filter((i) => rank(i) === 3));
    const letter = (i: ItemRow) => (i.kind === 'performer' ? i.name.slice(0, 1).toUpperCase() : i.name.slice(0, 1).toLowerCase());

    function span(b: BeatRow): [number, number] {
        const known = scene.manifest?.beats[`b${b.id}`];
        // Gestures that go with a line begin where that is.
        let start = known ? Math.round(known.start) : b.start;
        let end = known ? known.end : b.start + 24;
        if (b.play.keepLooping) {
            // It goes on to the next beat, or for as long as the scene lasts.
            const later = scene.rows.beats.filter((o) => o.itemId === b.itemId && o.start > b.start && !o.play.layer).map((o) => o.start);
            end = Math.max(b.start + 1, Math.min(scene.frames, ...later));
        }
        if (drag?.kind === 'beat' && drag.id === b.id) {
            if (drag.edge === 'whole') [start, end] = [start + drag.by, end + drag.by];
            if (drag.edge === 'in') start += drag.by;
            if (drag.edge === 'out') end += drag.by;
        }
        return [start, Math.max(start + 1, end)];
    }

    function linkSpan(l: LinkRow): [number, number] {
        let [a, b] = [l.from, l.to ?? scene.frames];
        if (drag?.kind === 'link' && drag.id === l.id) {
            if (drag.edge !== 'out') a += drag.by;
            if (drag.edge !== 'in') b += drag.by;
        }
        return [a, Math.max(a + 1, b)];
    }

    function down(e: PointerEvent, kind: 'beat' | 'link', id: number) {
        e.stopPropagation();
        scene.select(kind === 'beat' ? 'beats' : 'links', id);
        if (!scene.canEdit || e.button !== 0) return;
        const el = e.currentTarget as HTMLElement;
        el.setPointerCapture(e.pointerId);
        const r = el.getBoundingClientRect();
        const grip = Math.min(8, r.width / 4);
        const edge = e.clientX - r.left < grip ? 'in' : r.right - e.clientX < grip ? 'out' : 'whole';
        drag = { id, edge, from: e.clientX, by: 0, kind };
    }

    function move(e: PointerEvent) {
        if (drag) drag = { ...drag, by: Math.round((e.clientX - drag.from) / line.perFrame) };
    }

    async function up() {
        const d = drag;
        if (d && d.by !== 0) await (d.kind === 'beat' ? dropBeat(d) : dropLink(d));
        drag = null;
    }

    async function dropBeat(d: Drag) {
        const b = scene.find('beats', d.id);
        if (!b) return;
        if (d.edge === 'whole') {
            await scene.edit({ do: 'beat.set', beat: b.id, start: Math.max(0, b.start + d.by) });
            return;
        }
        const [start, end] = span(b);
        await scene.edit({ do: 'beat.trim', beat: b.id, edge: d.edge, frame: Math.max(0, Math.round(d.edge === 'in' ? start : end)) });
    }

    async function dropLink(d: Drag) {
        const l = scene.find('links', d.id);
        if (!l) return;
        const [a, b] = linkSpan(l);
        await scene.edit({
            do: 'link.set',
            link: l.id,
            from: Math.max(0, a),
            ...(d.edge === 'in' && l.to === null ? {} : { to: b >= scene.frames && l.to === null ? null : b }),
        });
    }

    function scrub(e: PointerEvent) {
        if (!host) return;
        const r = host.getBoundingClientRect();
        if (e.clientX - r.left < line.left) return;
        playhead.stop();
        playhead.go(line.frame(e.clientX - r.left));
    }

    function drop(e: DragEvent, item: ItemRow) {
        const id = Number(e.dataTransfer?.getData('application/x-crisp-asset'));
        const file = soundOf(e.dataTransfer);
        if ((!id && !file) || !host || item.kind !== 'performer' || !scene.canEdit) return;
        e.preventDefault();
        const start = Math.max(0, line.frame(e.clientX - host.getBoundingClientRect().left));
        if (file) void recorder.bring(item.id, file, start);
        else void scene.edit({ do: 'beat.add', item: item.id, motion: id, start, partner: 'near' });
    }

    const framed = (c: CameraRowData) => framingsOf(scene.rows.framings, c.id);
    function keyed(c: CameraRowData) {
        return c.keys.length > 1 && framed(c).length === 0 ? c.keys : [];
    }

    const moving = $derived(
        scene.rows.cameras.filter((c) => c.keys.length > 1 || framed(c).length > 1 || scene.isSelected('cameras', c.id)),
    );
</script>

<svelte:window onkeydowncapture={(e) => e.key === 'Escape' && (drag = null)} />

<div
    class="relative min-h-0 flex-1 overflow-auto bg-sheet"
    bind:this={host}
    data-testid="lanes"
    role="list"
    aria-label="Lanes"
    onpointerdown={(e) => e.button === 0 && (scrub(e), (e.currentTarget as HTMLElement).setPointerCapture(e.pointerId))}
    onpointermove={(e) => e.buttons === 1 && !drag && !drawing && scrub(e)}
>
    {#snippet lane(item: ItemRow)}
        {@const colour = tapeColour(item.tape)}
        {@const speaks = scene.rows.lines.some((l) => l.itemId === item.id)}
        <div
            class={['relative border-b border-line', speaks ? 'h-[42px]' : 'h-[30px]', scene.isSelected('items', item.id) && 'bg-desk/60']}
            role="listitem"
            ondragover={(e) => e.preventDefault()}
            ondrop={(e) => drop(e, item)}
        >
            <button
                class="absolute inset-y-0 left-0 z-10 flex items-center gap-2 border-r border-line bg-paper px-2 text-left"
                style:width={`${line.left}px`}
                data-testid={`lane-${item.name}`}
                onpointerdown={(e) => e.stopPropagation()}
                onclick={() => scene.select('items', item.id)}
            >
                <span
                    class="grid h-[18px] w-[18px] shrink-0 place-items-center rounded-sm text-[11px] font-bold text-white"
                    style:background={colour}>{letter(item)}</span
                >
                <span class="truncate font-medium">{item.name}</span>
            </button>
            <div class="absolute top-[14px] right-0 h-px opacity-50" style:left={`${line.left}px`} style:background={colour}></div>
            {#if speaks}<LineMarks {item} {line} {colour} />{/if}
            {#each scene.rows.beats.filter((b) => b.itemId === item.id) as b (b.id)}
                {@const [a, z] = span(b)}
                {@const joined = b.join !== 'cut' && b.joinFrames > 0}
                <div
                    class={[
                        'absolute top-[4px] h-[20px] cursor-grab overflow-hidden rounded px-1.5 text-xs leading-[20px] font-medium whitespace-nowrap text-white',
                        scene.isSelected('beats', b.id) && 'ring-2 ring-ink',
                    ]}
                    style:left={`${line.x(a)}px`}
                    style:width={`${Math.max(4, (z - a) * line.perFrame - 1)}px`}
                    style:background={colour}
                    style:background-image={joined
                        ? `repeating-linear-gradient(115deg, rgba(255,255,255,.45) 0 2px, transparent 2px 5px)`
                        : undefined}
                    style:background-size={joined ? `${Math.max(4, b.joinFrames * line.perFrame)}px 100%` : undefined}
                    style:background-repeat="no-repeat"
                    role="button"
                    tabindex="0"
                    data-testid={`beat-${item.name}-${scene.asset(b.assetId)?.name}`}
                    aria-label={`${scene.asset(b.assetId)?.name ?? 'Motion'} for ${item.name}, frame ${Math.round(a)} to ${Math.round(z)}`}
                    onpointerdown={(e) => down(e, 'beat', b.id)}
                    onpointermove={move}
                    onpointerup={up}
                    onkeydown={(e) => e.key === 'Enter' && scene.select('beats', b.id)}
                >
                    {scene.asset(b.assetId)?.name}
                </div>
            {/each}
            {#each scene.rows.links.filter((l) => l.childId === item.id) as l (l.id)}
                {@const [a, z] = linkSpan(l)}
                {@const parent = scene.find('items', l.parentId)}
                <div
                    class={[
                        'absolute top-[6px] h-[16px] cursor-grab overflow-hidden rounded-sm border px-1 text-[11px] leading-[14px] whitespace-nowrap',
                        scene.isSelected('links', l.id) && 'ring-2 ring-ink',
                    ]}
                    style:left={`${line.x(a)}px`}
                    style:width={`${Math.max(4, (z - a) * line.perFrame - 1)}px`}
                    style:border-color={tapeColour(parent?.tape ?? 0)}
                    style:background={`${tapeColour(parent?.tape ?? 0)}33`}
                    role="button"
                    tabindex="0"
                    data-testid={`link-${item.name}-${parent?.name}`}
                    aria-label={`${item.name} carried by ${parent?.name ?? ''}`}
                    onpointerdown={(e) => down(e, 'link', l.id)}
                    onpointermove={move}
                    onpointerup={up}
                    onkeydown={(e) => e.key === 'Enter' && scene.select('links', l.id)}
                >
                    with {parent?.name}
                </div>
            {/each}
        </div>
    {/snippet}
    {#each acting as item (item.id)}{@render lane(item)}{/each}
    <SoundLanes {line} />
    {#each moving as c (c.id)}
        <div class={['relative h-[26px] border-b border-line', scene.isSelected('cameras', c.id) && 'bg-desk/60']} role="listitem">
            <button
                class="absolute inset-y-0 left-0 z-10 flex items-center gap-2 border-r border-line bg-paper px-2 text-left"
                style:width={`${line.left}px`}
                onpointerdown={(e) => e.stopPropagation()}
                onclick={() => scene.select('cameras', c.id)}
            >
                <span
                    class="grid h-[18px] w-[18px] shrink-0 place-items-center rounded-full border border-tide text-[11px] font-bold text-tide"
                    >{c.letter}</span
                >
                <span class="truncate font-medium">Camera {c.letter}</span>
            </button>
            <div class="absolute top-1/2 right-0 h-px bg-tide/40" style:left={`${line.left}px`}></div>
            {#if framed(c).length > 0}<FramingLane camera={c} {line} bind:busy={drawing} />{/if}
            {#each keyed(c) as k, i (k.frame)}
                {@const next = c.keys[i + 1]}
                {#if next}<div
                        class="absolute top-[9px] h-[8px] rounded bg-tide/30"
                        style:left={`${line.x(k.frame)}px`}
                        style:width={`${(next.frame - k.frame) * line.perFrame}px`}
                    ></div>{/if}
                <button
                    class="absolute top-[8px] z-[1] h-[10px] w-[10px] -translate-x-1/2 rotate-45 bg-tide"
                    style:left={`${line.x(k.frame)}px`}
                    aria-label={`Key of camera ${c.letter} at frame ${k.frame}`}
                    onpointerdown={(e) => e.stopPropagation()}
                    onclick={() => (scene.select('cameras', c.id), playhead.go(k.frame))}
                ></button>
            {/each}
        </div>
    {/each}
    {#each still as item (item.id)}{@render lane(item)}{/each}
    {#if lanes.length === 0}
        <p class="p-4 text-soft" style:padding-left={`${line.left + 12}px`}>Everyone and everything that acts gets a lane here.</p>
    {/if}
</div>
