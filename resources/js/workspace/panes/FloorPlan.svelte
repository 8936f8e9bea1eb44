<script lang="ts">
    import type { Storey } from '../answers';
    import { pathOf, trianglesOf } from './planBook.svelte';

    /** A storey of a set or a thing, drawn as plans are: walls cut, furniture outlined, floors toned. */
    let { storey, scale, set, colour, on }: { storey: Storey; scale: number; set: boolean; colour: string; on: boolean } = $props();
    const floor = $derived(trianglesOf(storey.floor));
    const things = $derived(pathOf(storey.things));
    const walls = $derived(pathOf(storey.walls));
</script>

<g transform={`scale(${scale})`} fill-rule="evenodd" stroke-linejoin="round" data-testid="floor-plan">
    {#if floor}<path d={floor} fill="#efe6d2" />{/if}
    <path
        d={things}
        fill={set ? '#dccfb4' : colour}
        fill-opacity={set ? 0.9 : 0.35}
        stroke={on ? '#0b6e6e' : set ? '#a3957a' : colour}
        stroke-width={on ? 2 : 1}
        vector-effect="non-scaling-stroke"
    />
    {#if walls}
        <path d={walls} fill="#8f836b" stroke={on ? '#0b6e6e' : '#5b5342'} stroke-width="1.5" vector-effect="non-scaling-stroke" />
    {/if}
</g>
