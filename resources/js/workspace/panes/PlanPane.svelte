<script lang="ts">
    import { onMount, untrack } from 'svelte';
    import { trackRow, type Stretch } from '../../picture';
    import { getDesk } from '../context';
    import { tapeColour, type ItemRow } from '../rows';
    import LineOfAction from './LineOfAction.svelte';
    import PathMarks from './PathMarks.svelte';
    import { camerasOn } from './cameras';
    import { gridOf, hipsOver, namesApart, type Mark } from './plan';
    import CameraMark from './CameraMark.svelte';
    import CameraWay from './CameraWay.svelte';
    import { heightsOf, PlanBook, storeyAt } from './planBook.svelte';
    import PlanMark from './PlanMark.svelte';

    const { scene, playhead, view } = getDesk();

    let host = $state<SVGSVGElement>();
    let size = $state({ width: 0, height: 0 });
    let centre = $state({ x: 0.6, z: 0.2 });
    let zoom = $state(38);
    let fitted = false;
    let showRoutes = $state(true);

    /** Pixels of the plan that the card of what is selected covers at its upper right. */
    const CARD = { height: 236, width: 232 };

    type Drag =
        | { kind: 'item'; item: ItemRow; x: number; z: number; dx: number; dz: number; moved: boolean }
        | { kind: 'turn'; item: ItemRow; headingDeg: number }
        | { kind: 'pan' };
    let drag = $state<Drag | null>(null);

    onMount(() => {
        const sizes = new ResizeObserver((l) => {
            const r = l[0]?.contentRect;
            if (r) size = { width: r.width, height: r.height };
        });
        if (host) sizes.observe(host);
        return () => sizes.disconnect();
    });

    const book = new PlanBook(untrack(() => scene.id));
    $effect(() => {
        void book.ask((scene.manifest?.items ?? []).filter((i) => i.kind !== 'performer' && !i.extras.backdrop).map((i) => i.blob));
    });

    /** Heights of all storeys of the sets, and the one that was chosen; null: that of who is selected, or of most people. */
    let chosen = $state<number | null>(null);
    const heights = $derived(
        heightsOf(
            scene.rows.items.flatMap((i) => {
                const m = i.kind === 'set' ? scene.manifest?.items.find((x) => x.id === `i${i.id}`) : undefined;
                return m && !m.extras.backdrop ? book.of(m.blob).map((s) => i.position[1] + s.y * i.scale) : [];
            }),
        ),
    );
    const level = $derived.by(() => {
        if (chosen !== null) return chosen;
        const selected = scene.selection?.table === 'items' ? scene.find('items', scene.selection.id) : null;
        if (selected && selected.kind !== 'set') return selected.position[1];
        const people = scene.rows.items
            .filter((i) => i.kind === 'performer')
            .map((i) => i.position[1])
            .sort((a, b) => a - b);
        return people[people.length >> 1] ?? 0;
    });

    const block = $derived.by((): Stretch | null => (void scene.posesVersion, scene.posesAt(playhead.frame)));
    const px = $derived((x: number) => size.width / 2 + (x - centre.x) * zoom);
    const pz = $derived((z: number) => size.height / 2 + (z - centre.z) * zoom);

    const marks = $derived.by((): Mark[] => {
        const list: Mark[] = [];
        for (const item of scene.rows.items) {
            const m = scene.manifest?.items.find((i) => i.id === `i${item.id}`);
            const row = block?.item(`i${item.id}`, playhead.frame);
            let [x, , z] = item.position;
            let heading = item.headingDeg;
            if (row) {
                [x, z] = [row[0] ?? x, row[2] ?? z];
                heading = (2 * Math.atan2(row[4] ?? 0, row[6] ?? 1) * 180) / Math.PI;
                if (m && m.joints.length > 0) {
                    const a = (heading * Math.PI) / 180;
                    const [hx, hz] = [row[10] ?? 0, row[12] ?? 0];
                    const k = row[7] ?? 1;
                    x += (hx * Math.cos(a) + hz * Math.sin(a)) * k;
                    z += (-hx * Math.sin(a) + hz * Math.cos(a)) * k;
                }
            }
            if (drag?.kind === 'item' && drag.item.id === item.id) {
                x += drag.dx;
                z += drag.dz;
            }
            if (drag?.kind === 'turn' && drag.item.id === item.id) heading = drag.headingDeg;
            const b = m?.bounds ?? [
                [-0.2, 0, -0.2],
                [0.2, 1, 0.2],
            ];
            list.push({
                item,
                x,
                z,
                heading,
                bounds: [b[0][0] * item.scale, b[0][2] * item.scale, b[1][0] * item.scale, b[1][2] * item.scale],
                backdrop: m?.extras.backdrop === true,
                storey: m && item.kind !== 'performer' ? storeyAt(book.of(m.blob), (level - item.position[1]) / item.scale) : null,
            });
        }
        const order = { set: 0, prop: 1, performer: 2 };
        return list.sort((a, b) => order[a.item.kind] - order[b.item.kind]);
    });

    const names = $derived(
        namesApart(
            marks.filter((m) => m.item.kind === 'performer').map((m) => ({ id: m.item.id, x: px(m.x), y: pz(m.z), text: m.item.name })),
        ),
    );

    // The first time a scene shows, the plan fits what stands in it.
    $effect(() => {
        if (fitted || marks.length === 0 || size.width < 60) return;
        fitted = true;
        fit();
    });

    // Who is selected does not lie under the card: the plan moves aside.
    $effect(() => {
        const id = scene.selection?.table === 'items' ? scene.selection.id : null;
        if (id === null || size.height < 60) return;
        untrack(() => {
            const m = marks.find((q) => q.item.id === id);
            const room = size.width - (view.folded ? 0 : CARD.width);
            if (m && !drag && m.item.kind !== 'set' && room > 60 && px(m.x) > room - 16)
                centre = { ...centre, x: m.x + (size.width / 2 - room / 2) / zoom };
        });
    });

    function fit() {
        const on = marks.filter((m) => !m.backdrop);
        if (on.length === 0) return;
        const xs = on.flatMap((m) => [m.x + m.bounds[0], m.x + m.bounds[2]]);
        const zs = on.flatMap((m) => [m.z + m.bounds[1], m.z + m.bounds[3]]);
        const [x0, x1, z0, z1] = [Math.min(...xs), Math.max(...xs), Math.min(...zs), Math.max(...zs)];
        // The card of what is selected opens over the upper part of the plan.
        const card = size.height > 420 && scene.selection !== null && !view.folded ? CARD.height : 0;
        zoom = Math.max(
            8,
            Math.min(90, Math.min((size.width - 40) / Math.max(2, x1 - x0), (size.height - card - 40) / Math.max(2, z1 - z0))),
        );
        centre = { x: (x0 + x1) / 2, z: (z0 + z1) / 2 - card / 2 / zoom };
    }

    const cameras = $derived(scene.manifest && block ? camerasOn(scene.manifest, block, playhead.frame) : []);

    /** Where each performer goes, from the poses that are here. */
    const routes = $derived.by(() => {
        void scene.posesVersion;
        const m = scene.manifest;
        if (!m || !showRoutes) return [];
        return scene.rows.items
            .filter((i) => i.kind === 'performer')
            .map((item) => {
                const points: string[] = [];
                const track = m.items.find((i) => i.id === `i${item.id}`)?.track;
                let last: [number, number] | null = null;
                for (let f = 0; f < m.frames; f += 6) {
                    const row = track ? trackRow(track, m, f, scene.poses.pieces) : null;
                    if (!row) continue;
                    const [x, z] = hipsOver(row);
                    if (!last || Math.hypot(x - last[0], z - last[1]) > 0.12) {
                        points.push(`${px(x).toFixed(1)},${pz(z).toFixed(1)}`);
                        last = [x, z];
                    }
                }
                return { item, points: points.join(' '), moves: points.length > 2 };
            });
    });

    const grid = $derived(gridOf(centre, zoom, size));

    function world(e: { clientX: number; clientY: number }): [number, number] {
        const r = host!.getBoundingClientRect();
        return [centre.x + (e.clientX - r.left - size.width / 2) / zoom, centre.z + (e.clientY - r.top - size.height / 2) / zoom];
    }

    function itemDown(e: PointerEvent, item: ItemRow) {
        // Shift and the middle button move the plan.
        if (e.button !== 0 || e.shiftKey) return;
        e.stopPropagation();
        scene.select('items', item.id);
        if (!scene.canEdit) return;
        host?.setPointerCapture(e.pointerId);
        const [x, z] = world(e);
        drag = { kind: 'item', item, x, z, dx: 0, dz: 0, moved: false };
    }

    function knobDown(e: PointerEvent, item: ItemRow) {
        if (e.button !== 0 || e.shiftKey) return;
        e.stopPropagation();
        host?.setPointerCapture(e.pointerId);
        drag = { kind: 'turn', item, headingDeg: item.headingDeg };
    }

    function move(e: PointerEvent) {
        if (!drag) return;
        if (drag.kind === 'pan') centre = { x: centre.x - e.movementX / zoom, z: centre.z - e.movementY / zoom };
        else {
            const [x, z] = world(e);
            if (drag.kind === 'item')
                drag = { ...drag, dx: x - drag.x, dz: z - drag.z, moved: drag.moved || Math.hypot(x - drag.x, z - drag.z) * zoom > 3 };
            else {
                const d = drag;
                const m = marks.find((q) => q.item.id === d.item.id);
                if (m) drag = { ...drag, headingDeg: (Math.atan2(x - m.x, z - m.z) * 180) / Math.PI };
            }
        }
    }

    async function up() {
        const d = drag;
        if (d?.kind === 'item' && d.moved) {
            const [x, y, z] = d.item.position;
            await scene.edit({ do: 'item.place', item: d.item.id, position: [x + d.dx, y, z + d.dz], land: d.item.kind !== 'set' });
        } else if (d?.kind === 'turn') {
            await scene.edit({ do: 'item.place', item: d.item.id, headingDeg: Math.round(d.headingDeg * 10) / 10 });
        }
        drag = null;
    }

    function key(e: KeyboardEvent, item: ItemRow) {
        const by: Record<string, [number, number]> = {
            ArrowLeft: [-0.1, 0],
            ArrowRight: [0.1, 0],
            ArrowUp: [0, -0.1],
            ArrowDown: [0, 0.1],
        };
        const d = e.ctrlKey ? by[e.key] : undefined;
        if (e.key === 'Enter' || e.key === ' ') {
            e.preventDefault();
            e.stopPropagation();
            scene.select('items', item.id);
        } else if (d) {
            e.preventDefault();
            e.stopPropagation();
            const [x, y, z] = item.position;
            void scene.edit({ do: 'item.place', item: item.id, position: [x + d[0], y, z + d[1]], land: item.kind !== 'set' });
        }
    }

    function drop(e: DragEvent) {
        const id = Number(e.dataTransfer?.getData('application/x-crisp-asset'));
        if (!id) return;
        e.preventDefault();
        const [x, z] = world(e);
        const eye = view.free.position;
        void scene.edit({ do: 'item.add', asset: id, near: [x, z], facing: [eye.x, eye.z] });
    }

    const onPath = (e: PointerEvent) => (e.target as Element).getAttribute('data-testid')?.startsWith('path-point') ?? false;

    const escape = (e: KeyboardEvent) => {
        if ((e.key === 'Escape' || e.key === 'Enter') && view.pathing !== null) {
            e.stopPropagation();
            view.pathing = null;
        }
        if (e.key === 'Escape' && drag) {
            e.stopPropagation();
            drag = null;
        }
    };
</script>

<svelte:window onkeydowncapture={escape} />

<section class="flex min-h-0 min-w-0 flex-1 flex-col bg-sheet" aria-label="Plan">
    <div class="flex h-8 shrink-0 items-center gap-2 border-b border-line px-3 text-xs">
        <strong>Plan</strong><span class="text-soft">{grid.step} m grid</span>
        <span class="flex-1"></span>
        {#if heights.length > 1}
            <select
                class="rounded border-line bg-sheet py-0 pr-7 pl-2 text-xs"
                aria-label="Storey"
                onchange={(e) => (chosen = e.currentTarget.value === '' ? null : Number(e.currentTarget.value))}
            >
                <option value="">Where people are</option>
                {#each heights as y, k (k)}<option value={y}>{y.toFixed(1)} m up</option>{/each}
            </select>
        {/if}
        <button
            class={['rounded border border-line px-2 py-0.5', showRoutes && 'bg-desk']}
            aria-pressed={showRoutes}
            onclick={() => (showRoutes = !showRoutes)}>Routes</button
        >
        <button class="rounded border border-line px-2 py-0.5 hover:bg-desk" onclick={fit}>Fit</button>
    </div>
    <svg
        bind:this={host}
        class="min-h-0 w-full flex-1 touch-none select-none"
        data-testid="plan"
        role="application"
        aria-label="Overhead diagram; Ctrl and arrows move a focused item"
        class:cursor-crosshair={view.pathing !== null}
        onpointerdowncapture={(e) =>
            view.pathing !== null && e.button === 0 && !onPath(e) && (e.stopPropagation(), view.addToPath(world(e)))}
        onpointerdown={(e) => (
            host?.setPointerCapture(e.pointerId),
            (drag = { kind: 'pan' }),
            e.button === 0 && !e.shiftKey && scene.select(null)
        )}
        onpointermove={move}
        onpointerup={up}
        onwheel={(e) => (e.preventDefault(), (zoom = Math.max(4, Math.min(220, zoom * (1 - e.deltaY * 0.001)))))}
        ondragover={(e) => e.preventDefault()}
        ondrop={drop}
    >
        {#each grid.lines as l, i (i)}
            <line x1={l.x1} y1={l.y1} x2={l.x2} y2={l.y2} stroke={l.main ? '#b9ad95' : '#e4dccb'} stroke-width="1" />
        {/each}
        {#each marks as m (m.item.id)}
            {#if !m.backdrop}
                <PlanMark
                    mark={m}
                    x={px(m.x)}
                    y={pz(m.z)}
                    {zoom}
                    name={names.get(m.item.id) ?? -14}
                    on={scene.isSelected('items', m.item.id)}
                    knob={scene.canEdit}
                    grab={(e) => itemDown(e, m.item)}
                    grabKnob={(e) => knobDown(e, m.item)}
                    key={(e) => key(e, m.item)}
                />
            {/if}
        {/each}
        {#each routes as r (r.item.id)}
            {#if r.moves}<polyline
                    points={r.points}
                    fill="none"
                    stroke={tapeColour(r.item.tape)}
                    stroke-width="2"
                    stroke-dasharray="5 4"
                    class="pointer-events-none"
                />{/if}
        {/each}
        <PathMarks {px} {pz} {world} />
        <LineOfAction {px} {pz} />
        {#each cameras as c (c.id)}
            <CameraMark
                camera={c}
                x={px(c.x)}
                y={pz(c.z)}
                {zoom}
                on={scene.isSelected('cameras', c.id)}
                select={() => scene.select('cameras', c.id)}
            />
        {/each}
        <CameraWay {px} {pz} {world} />
    </svg>
</section>
