<script lang="ts">
    import { getDesk } from '../context';
    import { columns } from './peaks.svelte';

    /** How loud a stretch of a sound is, drawn over the whole of what it lies in. */
    interface Props {
        sound: string;
        from: number;
        seconds: number;
        /** Seconds after which it begins anew; 0: it does not. */
        turn?: number;
        colour: string;
    }
    let { sound, from, seconds, turn = 0, colour }: Props = $props();
    const { peaks } = getDesk();
    let canvas = $state<HTMLCanvasElement>();
    let width = $state(0);
    let height = $state(0);

    $effect(() => {
        const known = peaks.of(sound);
        const c = canvas;
        if (!c || !known || width < 1 || seconds <= 0) return;
        const count = Math.min(4000, Math.floor(width));
        c.width = count;
        c.height = Math.max(1, Math.floor(height));
        const g = c.getContext('2d');
        if (!g) return;
        g.fillStyle = colour;
        // By the root, so that what is soft is seen too.
        columns(known, from, seconds, count, turn).forEach((v, k) => {
            const tall = Math.max(0.5, Math.sqrt(v) * c.height);
            g.fillRect(k, (c.height - tall) / 2, 1, tall);
        });
    });
</script>

<div class="pointer-events-none absolute inset-0" bind:clientWidth={width} bind:clientHeight={height} aria-hidden="true">
    <canvas class="h-full w-full" data-testid="wave" bind:this={canvas}></canvas>
</div>
