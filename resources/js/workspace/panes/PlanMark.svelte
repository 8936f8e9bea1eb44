<script lang="ts">
    import { tapeColour } from '../rows';
    import FloorPlan from './FloorPlan.svelte';
    import type { Mark } from './plan';

    interface Props {
        mark: Mark;
        /** Its place on the plan, and pixels to a metre. */
        x: number;
        y: number;
        zoom: number;
        /** How far below its place its name is written. */
        name: number;
        on: boolean;
        /** Whether it can be turned here. */
        knob: boolean;
        grab: (e: PointerEvent) => void;
        grabKnob: (e: PointerEvent) => void;
        key: (e: KeyboardEvent) => void;
    }
    let { mark, x, y, zoom, name, on, knob, grab, grabKnob, key }: Props = $props();
    const colour = $derived(tapeColour(mark.item.tape));
    /** Large enough to stand on: its name is written into its corner. */
    const isOpen = $derived((mark.bounds[2] - mark.bounds[0]) * (mark.bounds[3] - mark.bounds[1]) > 12);
</script>

<g
    transform={`translate(${x} ${y})`}
    class="cursor-move outline-none"
    role="button"
    tabindex="0"
    aria-label={mark.item.name}
    data-testid={`plan-item-${mark.item.name}`}
    onpointerdown={grab}
    onkeydown={key}
>
    {#if mark.item.kind === 'performer'}
        <!-- A T of tape: the bar across the toes, the stem behind. -->
        <g transform={`rotate(${-mark.heading})`}>
            {#if on}<circle r={Math.max(15, zoom * 0.42)} fill={colour} fill-opacity=".16" stroke={colour} stroke-width="1.5" />{/if}
            <circle r="13" fill="transparent" />
            <path d="M -10 5 h 20 M 0 5 v -13" stroke={colour} stroke-width="5" stroke-linecap="butt" fill="none" />
        </g>
    {:else}
        <g transform={`rotate(${-mark.heading})`}>
            {#if mark.storey}
                <FloorPlan storey={mark.storey} scale={zoom * mark.item.scale} set={mark.item.kind === 'set'} {colour} {on} />
            {/if}
            <rect
                x={mark.bounds[0] * zoom}
                y={mark.bounds[1] * zoom}
                width={Math.max(5, (mark.bounds[2] - mark.bounds[0]) * zoom)}
                height={Math.max(5, (mark.bounds[3] - mark.bounds[1]) * zoom)}
                rx="2"
                fill={mark.item.kind === 'set' ? '#d8ccb2' : colour}
                fill-opacity={mark.storey ? 0 : mark.item.kind === 'set' ? (isOpen ? 0.28 : 0.8) : 0.35}
                stroke-opacity={mark.storey && !on ? 0 : 1}
                stroke={on ? '#0b6e6e' : mark.item.kind === 'set' ? '#a3957a' : colour}
                stroke-width={on ? 2 : 1}
            />
        </g>
    {/if}
    {#if mark.item.kind !== 'prop' || on}
        {@const open = mark.item.kind === 'set' && isOpen}
        <text
            x={open ? mark.bounds[0] * zoom + 6 : 0}
            y={mark.item.kind === 'performer' ? name : open ? mark.bounds[1] * zoom + 14 : 4}
            text-anchor={open ? 'start' : 'middle'}
            class="pointer-events-none text-[11px] font-semibold"
            fill={mark.item.kind === 'performer' ? colour : '#5b5342'}
            stroke="#fbf9f4"
            stroke-width="3"
            paint-order="stroke">{mark.item.name}</text
        >
    {/if}
</g>
{#if on && knob}
    {@const a = (mark.heading * Math.PI) / 180}
    {@const r = Math.max(24, (mark.item.kind === 'performer' ? 0.55 : Math.max(mark.bounds[2], mark.bounds[3])) * zoom + 10)}
    <line x1={x} y1={y} x2={x + Math.sin(a) * r} y2={y + Math.cos(a) * r} stroke={colour} stroke-dasharray="3 3" />
    <circle
        class="cursor-grab"
        role="presentation"
        data-testid="plan-knob"
        cx={x + Math.sin(a) * r}
        cy={y + Math.cos(a) * r}
        r="6"
        fill={colour}
        stroke="#fff"
        stroke-width="2"
        onpointerdown={grabKnob}
    />
{/if}
