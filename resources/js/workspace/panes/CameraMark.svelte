<script lang="ts">
    import type { CameraOn } from './cameras';

    /** A camera on the plan: its letter, and what it sees when it is chosen or on air. */
    type Props = { camera: CameraOn; x: number; y: number; zoom: number; on: boolean; select: () => void };
    let { camera, x, y, zoom, on, select }: Props = $props();
    const REACH = 60;
    /** Across what it sees, so many metres from it. */
    const across = (metres: number) => {
        const at = (a: number) =>
            `${(Math.sin(camera.a + a) / Math.cos(a)) * metres * zoom} ${(Math.cos(camera.a + a) / Math.cos(a)) * metres * zoom}`;
        return `M ${at(-camera.half)} L ${at(camera.half)}`;
    };
    const edge = (a: number) => `${Math.sin(a) * REACH} ${Math.cos(a) * REACH}`;
</script>

<g transform={`translate(${x} ${y})`}>
    {#if on || camera.onAir}
        <path
            class="pointer-events-none"
            d={`M 0 0 L ${edge(camera.a - camera.half)} L ${edge(camera.a + camera.half)} Z`}
            fill="#0b6e6e"
            fill-opacity=".14"
            stroke="#0b6e6e"
            stroke-width="1"
        />
        {#if on}
            {#each camera.sharp.filter((m) => m < 60) as metres (metres)}
                <path
                    class="pointer-events-none"
                    d={across(metres)}
                    stroke="#0b6e6e"
                    stroke-width="1.5"
                    stroke-dasharray="3 3"
                    data-testid="sharp"
                >
                    <title>Sharp between these two lines</title>
                </path>
            {/each}
        {/if}
    {/if}
    <g
        role="button"
        tabindex="0"
        class="cursor-pointer"
        aria-label={`Camera ${camera.letter}`}
        onpointerdown={(e) => (e.stopPropagation(), select())}
        onkeydown={(e) => e.key === 'Enter' && select()}
    >
        <circle r="9" fill={camera.onAir ? '#0b6e6e' : '#fbf9f4'} stroke="#0b6e6e" stroke-width={on ? 3 : 1.5} />
        <text y="4" text-anchor="middle" class="text-[11px] font-bold" fill={camera.onAir ? '#fff' : '#0b6e6e'}>{camera.letter}</text>
    </g>
</g>
