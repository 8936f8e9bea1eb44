<script lang="ts">
    import { onDestroy, onMount, untrack } from 'svelte';
    import { Vector3 } from 'three';
    import { short } from '../../lib/time';
    import { blendedAt, Painter } from '../../picture';
    import { getDesk } from '../context';
    import FloorMark from './FloorMark.svelte';
    import GuideLines from './GuideLines.svelte';
    import { guidesKept } from './guides';
    import GuidesMenu from './GuidesMenu.svelte';
    import { FrameHand } from './hand';
    import { tapeColour, type ItemRow } from '../rows';
    import SideViews from './SideViews.svelte';
    import Subtitle from './Subtitle.svelte';

    const desk = getDesk();
    const { scene, playhead, view } = desk;

    let canvas = $state<HTMLCanvasElement>();
    let area = $state<HTMLDivElement>();
    let room = $state({ width: 640, height: 360 });
    let shown = $state(false);
    let failed = $state('');
    let guides = $state.raw(guidesKept());
    let marks = $state<{ x: number; y: number; r: number; squash: number; knob: [number, number]; item: ItemRow } | null>(null);
    let label = $state({ text: '', lens: '', camera: null as number | null });
    let stageVersion = $state(0);
    let sides = $state(false);

    let painter: Painter | null = null;
    let loop = 0;
    let wanted = true;
    const hand = new FrameHand(
        desk,
        () => canvas,
        () => (wanted = true),
    );

    const aspect = $derived(scene.manifest ? scene.manifest.width / scene.manifest.height : 16 / 9);
    const box = $derived.by(() => {
        const w = Math.max(120, Math.min(room.width - 24, (room.height - 16) * aspect));
        return { width: Math.floor(w), height: Math.floor(w / aspect) };
    });

    onMount(() => {
        if (!canvas) return;
        try {
            const gpu = probe();
            painter = new Painter(canvas, scene.shelf, !gpu ? 'draft' : 'final');
            view.painter = painter;
            untrack(() => (shown = true));
        } catch (e) {
            failed = `This browser does not draw in three dimensions (${e instanceof Error ? e.message : 'no WebGL'}).`;
            return;
        }
        const sizes = new ResizeObserver((list) => {
            const r = list[0]?.contentRect;
            if (r) room = { width: r.width, height: r.height };
        });
        if (area) sizes.observe(area);
        const run = (now: number) => {
            loop = requestAnimationFrame(run);
            playhead.tick(now);
            if (wanted || playhead.playing) paint(now);
        };
        loop = requestAnimationFrame(run);
        return () => sizes.disconnect();
    });

    onDestroy(() => {
        cancelAnimationFrame(loop);
        view.painter = null;
        painter?.dispose();
    });

    /** True on a real graphics chip: then the workspace shows the final picture. */
    function probe(): boolean {
        const gl = document.createElement('canvas').getContext('webgl2');
        if (!gl) throw new Error('no WebGL 2');
        const info = gl.getExtension('WEBGL_debug_renderer_info');
        const name = info ? String(gl.getParameter(info.UNMASKED_RENDERER_WEBGL)) : '';
        gl.getExtension('WEBGL_lose_context')?.loseContext();
        return !/llvmpipe|swiftshader|software|softpipe/i.test(name);
    }

    // Models of the scene.
    $effect(() => {
        const m = scene.manifest;
        if (!m || !shown || !painter) return;
        void painter.show(m).then(
            () => stageVersion++,
            (e: unknown) => (failed = e instanceof Error ? e.message : 'The models could not be read.'),
        );
    });

    // Anything that changes the picture.
    $effect(() => {
        void [
            playhead.frame,
            scene.posesVersion,
            scene.manifest,
            view.version,
            view.source,
            scene.selection,
            stageVersion,
            box.width,
            scene.rows.items,
            guides,
        ];
        wanted = true;
    });

    let shownFrame = -1;
    function paint(now: number) {
        if (!painter || !scene.manifest) return;
        if (!wanted && playhead.frame === shownFrame) return;
        const block = scene.posesAt(playhead.frame);
        if (!block) return;
        wanted = false;
        shownFrame = playhead.frame;
        const draft = 960;
        const width = Math.min(draft, Math.round(box.width * Math.min(devicePixelRatio, 1.5)));
        painter.resize(Math.max(160, width - (width % 2)), Math.max(90, 2 * Math.round(width / aspect / 2)));
        painter.tintsFocus = guides.focus;
        const now_ = view.at(block, playhead.frame);
        painter.draw(
            block,
            playhead.frame,
            now_.view,
            view.source.kind === 'reel' ? blendedAt(scene.manifest, block, playhead.frame) : null,
        );
        view.painted?.(playhead.frame);
        view.shown = block;
        if (stageVersion > 0) view.firstPicture ||= performance.now();
        hand.preview();
        playhead.counted(now);
        const v = now_.view;
        label = {
            text: now_.label,
            lens: `${short(v.focalMm, 0)} mm   f/${short(v.fStop, 1)}   focus ${short(v.focusMetres)} m`,
            camera: now_.camera,
        };
        mark();
    }

    /** Ring and turn knob on the floor around the selected item. */
    function mark() {
        const s = scene.selection;
        const item = s?.table === 'items' ? scene.find('items', s.id) : null;
        const at = item && painter ? painter.stage.footing(`i${item.id}`) : null;
        if (!item || !at || !painter || playhead.playing) {
            marks = null;
            return;
        }
        const r = radius(item);
        const px = (p: Vector3): [number, number] | null => {
            const q = painter!.project(p);
            return q.z > 1 ? null : [((q.x + 1) / 2) * box.width, ((1 - q.y) / 2) * box.height];
        };
        const centre = px(at);
        const side = px(at.clone().add(new Vector3(r, 0, 0)));
        const front = px(at.clone().add(new Vector3(0, 0, r)));
        const heading = (hand.turning(item) * Math.PI) / 180;
        const knob = px(at.clone().add(new Vector3(Math.sin(heading) * r, 0, Math.cos(heading) * r)));
        // From near, the floor where somebody stands lies far below the picture.
        if (!centre || !side || !front || !knob || centre[1] > 1.12 * box.height) {
            marks = null;
            return;
        }
        const rx = Math.hypot(side[0] - centre[0], side[1] - centre[1]);
        const ry = Math.hypot(front[0] - centre[0], front[1] - centre[1]);
        marks = { x: centre[0], y: centre[1], r: Math.max(rx, 10), squash: Math.min(1, Math.max(0.08, ry / Math.max(rx, 1))), knob, item };
    }

    function radius(item: ItemRow): number {
        const b = scene.manifest?.items.find((i) => i.id === `i${item.id}`)?.bounds;
        return item.kind === 'performer' || !b
            ? 0.55
            : Math.max(0.3, Math.min(2.6, 0.62 * Math.max(b[1][0] - b[0][0], b[1][2] - b[0][2]) * item.scale));
    }

    const person = $derived.by(() => {
        const item = scene.selection?.table === 'items' ? scene.find('items', scene.selection.id) : null;
        return item?.kind === 'performer' ? item : null;
    });
    const choices = $derived([
        {
            id: 'reel',
            text: 'Reel',
            on: view.source.kind === 'reel',
            show: scene.rows.shots.length > 0,
            pick: () => (view.source = { kind: 'reel' }),
        },
        {
            id: 'free',
            text: 'Free view',
            on: view.source.kind === 'free',
            show: true,
            pick: () => view.leave(view.at(scene.posesAt(playhead.frame), playhead.frame).view),
        },
        {
            id: 'close',
            text: 'Close look',
            on: view.source.kind === 'close',
            show: view.source.kind === 'close' || person !== null,
            pick: () => view.lookClose(person?.id ?? 0),
        },
    ]);
</script>

<!-- A drag goes on wherever the pointer goes. -->
<svelte:window onpointermove={hand.move} onpointerup={hand.up} onkeydowncapture={hand.letGo} />

<section class="flex min-h-0 min-w-0 flex-1 flex-col bg-surround text-paper" aria-label="Frame">
    <div class="flex h-8 shrink-0 items-center gap-1 px-2 text-xs whitespace-nowrap">
        {#each choices as c (c.id)}
            {#if c.show}
                <button
                    class={['rounded px-2 py-0.5', c.on ? 'bg-paper text-ink' : 'border border-white/25 hover:bg-white/10']}
                    onclick={c.pick}
                    data-testid={`view-${c.id}`}
                    aria-pressed={c.on}>{c.text}</button
                >
            {/if}
        {/each}
        <span class="flex min-w-0 gap-1 overflow-x-auto">
            {#each scene.rows.cameras as c (c.id)}
                <button
                    class={[
                        'mono w-6 shrink-0 rounded py-0.5',
                        view.source.kind === 'camera' && view.source.id === c.id
                            ? 'bg-paper text-ink'
                            : 'border border-white/25 hover:bg-white/10',
                    ]}
                    title={`Look through camera ${c.letter}${c.name ? `, ${c.name}` : ''}`}
                    aria-pressed={view.source.kind === 'camera' && view.source.id === c.id}
                    onclick={() => ((view.source = { kind: 'camera', id: c.id }), scene.select('cameras', c.id))}>{c.letter}</button
                >
            {/each}
        </span>
        <span class="flex-1"></span>
        <button
            class={['rounded px-2 py-0.5', sides ? 'bg-paper text-ink' : 'border border-white/25 hover:bg-white/10']}
            aria-pressed={sides}
            data-testid="sides"
            title="The scene from before, from the side and from above as well"
            onclick={() => (sides = !sides)}>Sides</button
        >
        <GuidesMenu bind:guides />
        <span class="mono opacity-70">{short(aspect)} : 1</span>
    </div>
    <div class="relative grid min-h-0 flex-1 place-items-center" bind:this={area}>
        <div
            class={['relative', label.camera !== null && view.source.kind === 'camera' && 'outline-2 outline-offset-2 outline-[#7fc4bd]']}
            style:width={`${box.width}px`}
            style:height={`${box.height}px`}
            role="presentation"
            ondragover={(e) => e.preventDefault()}
            ondrop={hand.drop}
        >
            <canvas
                bind:this={canvas}
                class={[
                    'h-full w-full touch-none bg-[#2c2d2f] fullscreen:bg-black fullscreen:object-contain',
                    view.aiming && 'cursor-crosshair',
                ]}
                data-testid="frame"
                data-frame={playhead.frame}
                tabindex="0"
                aria-label="The picture"
                onpointerdown={hand.down}
                onwheel={hand.wheel}
                onkeydown={hand.keys}
                oncontextmenu={(e) => e.preventDefault()}
            ></canvas>
            <GuideLines {guides} width={box.width} height={box.height} />
            <Subtitle />
            {#if marks}<FloorMark
                    {...marks}
                    colour={tapeColour(marks.item.tape)}
                    onturn={scene.canEdit ? (e: PointerEvent) => marks && hand.turn(e, marks.item) : null}
                />{/if}
            {#if view.aiming}
                <p class="pointer-events-none absolute inset-x-0 top-3 mx-auto w-fit rounded bg-paper/95 px-3 py-1 text-xs text-ink">
                    Click the place for {view.aiming.what}. Escape leaves it.
                </p>
            {/if}
            {#if failed}
                <p class="absolute inset-x-6 top-6 rounded bg-paper p-3 text-alarm" role="alert">{failed}</p>
            {:else if scene.rows.items.length === 0}
                <div class="pointer-events-none absolute inset-0 grid place-items-center">
                    <div class="pointer-events-auto max-w-sm rounded bg-paper/95 p-5 text-center text-ink">
                        <p class="mb-1 text-base font-semibold">An empty floor</p>
                        <p class="text-soft">Open <strong>Cast</strong> and drag a set into this picture, then the people who act in it.</p>
                    </div>
                </div>
            {/if}
        </div>
    </div>
    {#if sides}<SideViews />{/if}
    <div class="flex h-8 shrink-0 items-center gap-3 px-3 text-xs">
        <span data-testid="view-label">{label.text}</span>
        <span class="mono whitespace-pre opacity-70">{label.lens}</span>
        <span class="flex-1"></span>
        {#if playhead.playing}<span class="mono opacity-70" title="Pictures drawn a second; time itself is kept"
                >{playhead.drawnRate.toFixed(0)} pictures/s</span
            >{/if}
        {#if label.camera !== null && view.source.kind === 'camera' && scene.canEdit}
            <button
                class="rounded border border-white/30 px-2 py-0.5 hover:bg-white/10"
                onclick={() => scene.edit({ do: 'shot.cut', camera: label.camera, frame: playhead.frame })}>Cut here</button
            >
        {/if}
    </div>
</section>
