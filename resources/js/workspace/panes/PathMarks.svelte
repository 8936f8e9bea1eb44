<script lang="ts">
    import { getDesk } from '../context';
    import { tapeColour } from '../rows';

    let {
        px,
        pz,
        world,
    }: { px: (x: number) => number; pz: (z: number) => number; world: (e: { clientX: number; clientY: number }) => [number, number] } =
        $props();
    const { scene, view } = getDesk();

    // The way of the beat or thing that is selected, or that is being drawn.
    const of = $derived.by(() => {
        if (view.pathing) return view.pathing;
        const s = scene.selection;
        return s?.table === 'beats' || s?.table === 'items' ? { table: s.table, id: s.id } : null;
    });
    const beat = $derived(of?.table === 'beats' ? scene.find('beats', of.id) : null);
    const item = $derived(beat ? scene.find('items', beat.itemId) : of?.table === 'items' ? scene.find('items', of.id) : null);
    const kept = $derived(beat ? (beat.path?.points ?? []) : (item?.route?.points ?? []));
    const colour = $derived(tapeColour(item?.tape ?? 0));
    let drag = $state<{ index: number; at: [number, number] } | null>(null);
    const points = $derived(kept.map((p, i) => (drag?.index === i ? drag.at : p)));

    function save(next: [number, number][]) {
        if (of) view.saveWay(of, next);
    }

    function down(e: PointerEvent, index: number) {
        e.stopPropagation();
        if (e.button !== 0 || !scene.canEdit) return;
        (e.currentTarget as Element).setPointerCapture(e.pointerId);
        drag = { index, at: world(e) };
    }

    function up() {
        const d = drag;
        drag = null;
        if (d) save(kept.map((p, i) => (i === d.index ? d.at : p)));
    }

    function key(e: KeyboardEvent, index: number) {
        if (e.key !== 'Delete' && e.key !== 'Backspace') return;
        e.stopPropagation();
        save(kept.filter((_, i) => i !== index));
    }
</script>

{#if points.length > 0}
    <polyline
        points={points.map((p) => `${px(p[0])},${pz(p[1])}`).join(' ')}
        fill="none"
        stroke={colour}
        stroke-width="1"
        class="pointer-events-none"
    />
    {#each points as p, i (i)}
        <g transform={`translate(${px(p[0])} ${pz(p[1])})`}>
            <rect
                x="-6"
                y="-6"
                width="12"
                height="12"
                rx="2"
                transform="rotate(45)"
                role="button"
                tabindex="0"
                class="cursor-move"
                data-testid={`path-point-${i}`}
                aria-label={`Place ${i + 1} of the path; Delete takes it away`}
                fill={i === points.length - 1 ? colour : '#fbf9f4'}
                stroke={colour}
                stroke-width="2"
                onpointerdown={(e) => down(e, i)}
                onpointermove={(e) => drag && (drag = { ...drag, at: world(e) })}
                onpointerup={up}
                onkeydown={(e) => key(e, i)}
            />
            <text
                y="4"
                text-anchor="middle"
                class="pointer-events-none text-[9px] font-bold"
                fill={i === points.length - 1 ? '#fff' : colour}>{i + 1}</text
            >
        </g>
    {/each}
{/if}
