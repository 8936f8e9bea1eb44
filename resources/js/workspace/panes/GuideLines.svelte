<script lang="ts">
    import { masked, within, type Guides } from './guides';

    /** Guides over the picture. */
    let { guides, width, height }: { guides: Guides; width: number; height: number } = $props();
    const box = $derived(masked(width, height, guides.mask));
    const safe = $derived([within(box, 0.93), within(box, 0.9)]);
    const bars = $derived(`M 0 0 H ${width} V ${height} H 0 Z M ${box.x} ${box.y} v ${box.height} h ${box.width} v ${-box.height} Z`);
</script>

<svg class="pointer-events-none absolute inset-0" {width} {height} data-testid="guides" aria-hidden="true">
    {#if guides.mask !== null}<path d={bars} fill="#111314" fill-opacity=".82" fill-rule="evenodd" />{/if}
    <g fill="none" stroke="#fff" stroke-opacity=".55" stroke-width="1">
        {#if guides.thirds}
            {#each [1 / 3, 2 / 3] as t (t)}
                <path d={`M ${box.x + box.width * t} ${box.y} v ${box.height} M ${box.x} ${box.y + box.height * t} h ${box.width}`} />
            {/each}
        {/if}
        {#if guides.safe}
            {#each safe as b, n (n)}<rect
                    x={b.x}
                    y={b.y}
                    width={b.width}
                    height={b.height}
                    stroke-dasharray={n === 0 ? '' : '5 4'}
                />{/each}
        {/if}
        {#if guides.headroom}<path
                d={`M ${box.x} ${box.y + box.height * 0.075} h ${box.width}`}
                stroke="#ffd479"
                stroke-dasharray="8 5"
            />{/if}
    </g>
</svg>
