<script lang="ts">
    import { getDesk } from './context';
    import { framingFields, framingsOf, framingWords, movesFrom } from './cover/setups';
    import type { CameraRowData, FramingRow } from './rows';
    import type { Timeline } from './timeline.svelte';

    /** What a camera that knows whom it films does over time: its moves are dragged, their ends too; a drag over free room draws one. */
    type Props = { camera: CameraRowData; line: Timeline; busy?: boolean };
    let { camera, line, busy = $bindable(false) }: Props = $props();
    const { scene, playhead } = getDesk();
    const name = (id: number) => scene.find('items', id)?.name ?? '?';
    const framings = $derived(framingsOf(scene.rows.framings, camera.id));

    type Drag = { id: number; edge: 'whole' | 'in' | 'out'; x: number; by: number };
    let drag = $state<Drag | null>(null);
    /** Frames over which a new move is drawn; asked about once it is let go. */
    let span = $state<{ from: number; to: number; done: boolean } | null>(null);
    $effect(() => {
        busy = drag !== null || (span !== null && !span.done);
    });
    const shown = $derived.by(() => {
        const at = span;
        return at ? [Math.min(at.from, at.to), Math.max(at.from, at.to)] : null;
    });
    const before = $derived(shown ? ([...framings].reverse().find((f) => f.frame <= (shown[0] ?? 0)) ?? framings[0]) : undefined);

    const placed = (f: FramingRow): [number, number] => {
        if (drag?.id !== f.id) return [f.frame, f.over];
        if (drag.edge === 'whole') return [Math.max(0, f.frame + drag.by), f.over];
        if (drag.edge === 'out') return [f.frame, Math.max(0, f.over + drag.by)];
        const by = Math.max(-f.frame, Math.min(f.over, drag.by));
        return [f.frame + by, f.over - by];
    };

    function down(e: PointerEvent, f: FramingRow) {
        e.stopPropagation();
        scene.select('cameras', camera.id);
        if (!scene.canEdit || camera.locked || e.button !== 0) return;
        const el = e.currentTarget as HTMLElement;
        el.setPointerCapture(e.pointerId);
        const r = el.getBoundingClientRect();
        const grip = Math.min(8, r.width / 4);
        const edge = e.clientX - r.left < grip ? 'in' : r.right - e.clientX < grip ? 'out' : 'whole';
        drag = { id: f.id, edge: f.over === 0 ? 'whole' : edge, x: e.clientX, by: 0 };
    }

    async function up() {
        const d = drag;
        const f = d && framings.find((o) => o.id === d.id);
        if (d && f && d.by !== 0) {
            const [frame, over] = placed(f);
            await scene.edit({ do: 'framing.set', framing: f.id, frame, over });
        }
        drag = null;
    }

    let room = $state<HTMLElement>();
    const at = (e: PointerEvent) => Math.max(0, line.frame(e.clientX - (room?.getBoundingClientRect().left ?? 0) + line.left));

    function spanDown(e: PointerEvent) {
        if (e.button !== 0) return;
        e.stopPropagation();
        if (!scene.canEdit || camera.locked) return playhead.go(at(e));
        span = { from: at(e), to: at(e), done: false };
        const move = (to: PointerEvent) => span && (span = { ...span, to: at(to) });
        addEventListener('pointermove', move);
        addEventListener('pointerup', () => (removeEventListener('pointermove', move), spanUp()), { once: true });
    }

    function spanUp() {
        const s = span;
        if (!s || s.done) return;
        if (Math.abs(s.to - s.from) < 4) {
            span = null;
            playhead.stop();
            playhead.go(s.from);
        } else span = { ...s, done: true };
    }

    async function draw(changes: Partial<FramingRow>) {
        const shows = before;
        if (!shows || !shown) return;
        const [from, to] = shown as [number, number];
        span = null;
        await scene.edit({
            do: 'camera.frame',
            camera: camera.id,
            move: true,
            ...framingFields({ ...shows, ...changes }),
            frame: Math.max(from, shows.frame + 1),
            over: to - from,
        });
    }
</script>

<svelte:window onkeydowncapture={(e) => e.key === 'Escape' && (drag = span = null)} />

<div
    class="absolute inset-y-0 right-0 cursor-crosshair"
    style:left={`${line.left}px`}
    role="presentation"
    title="Drag to draw a move over these frames"
    data-testid={`camera-lane-${camera.letter}`}
    onpointerdown={spanDown}
    bind:this={room}
></div>
{#each framings as f, i (f.id)}
    {@const [frame, over] = placed(f)}
    <div
        class={[
            'absolute top-[4px] h-[18px] cursor-grab overflow-hidden rounded-sm text-[10px] leading-[18px] whitespace-nowrap',
            over > 0 ? 'border border-tide bg-tide/30 px-1' : 'border-l-2 border-tide pl-1 text-soft',
        ]}
        style:left={`${line.x(frame)}px`}
        style:width={over > 0 ? `${Math.max(6, over * line.perFrame)}px` : undefined}
        style:max-width={over > 0 ? undefined : `${Math.max(6, ((framings[i + 1]?.frame ?? scene.frames) - frame) * line.perFrame)}px`}
        role="button"
        tabindex="0"
        data-testid={`framing-${camera.letter}-${i}`}
        aria-label={over > 0
            ? `Move to ${framingWords(f, name)}, frame ${frame} to ${frame + over}`
            : `From here on ${framingWords(f, name)}, frame ${frame}`}
        title={framingWords(f, name)}
        onpointerdown={(e) => down(e, f)}
        onpointermove={(e) => drag && (drag = { ...drag, by: Math.round((e.clientX - drag.x) / line.perFrame) })}
        onpointerup={up}
        onkeydown={(e) => e.key === 'Enter' && playhead.go(f.frame)}
    >
        {framingWords(f, name)}
    </div>
{/each}
{#if shown}
    {@const [from = 0, to = 0] = shown}
    <div
        class="pointer-events-none absolute inset-y-0 border-x border-buoy bg-buoy/20"
        style:left={`${line.x(from)}px`}
        style:width={`${Math.max(1, (to - from) * line.perFrame)}px`}
    ></div>
    {#if span?.done && before}
        <div
            class="absolute top-0 z-20 flex h-full items-center gap-1 rounded border border-line bg-sheet px-1 shadow"
            style:left={`${Math.max(line.left, line.x(from))}px`}
            role="group"
            aria-label="Which move over these frames"
            data-testid="draw-move"
        >
            {#each movesFrom(before) as m (m.title)}
                <button class="rounded border border-line px-1 text-[10px] hover:border-tide" onclick={() => draw(m.changes)}
                    >{m.title}</button
                >
            {/each}
            <button class="px-1 text-[10px] text-soft" onclick={() => (span = null)}>No</button>
        </div>
    {/if}
{/if}
