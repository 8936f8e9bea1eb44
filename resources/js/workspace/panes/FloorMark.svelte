<script lang="ts">
    interface Props {
        /** Centre, half width and flatness of the ring, and the knob, in pixels of the picture. */
        x: number;
        y: number;
        r: number;
        squash: number;
        knob: [number, number];
        colour: string;
        /** Null: nothing may be turned. */
        onturn: ((e: PointerEvent) => void) | null;
    }
    const { x, y, r, squash, knob, colour, onturn }: Props = $props();
    // White below, so that the tape's colour reads on any ground.
    const strokes = $derived([
        { stroke: '#fff', width: 4, opacity: 0.7 },
        { stroke: colour, width: 2, opacity: 1 },
    ]);
</script>

<svg class="pointer-events-none absolute inset-0 h-full w-full overflow-visible" aria-hidden="true">
    {#each strokes as s (s.width)}
        <ellipse cx={x} cy={y} rx={r} ry={r * squash} fill="none" stroke={s.stroke} stroke-opacity={s.opacity} stroke-width={s.width} />
    {/each}
    {#if onturn}
        <circle
            class="pointer-events-auto cursor-grab"
            data-testid="turn-knob"
            role="presentation"
            cx={knob[0]}
            cy={knob[1]}
            r="7"
            fill={colour}
            stroke="#fff"
            stroke-width="2"
            onpointerdown={onturn}
        />
    {/if}
</svg>
