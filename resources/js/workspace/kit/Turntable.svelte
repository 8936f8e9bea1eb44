<script lang="ts">
    import { onDestroy, onMount } from 'svelte';
    import { ApiError, call } from '../../lib/api';
    import { Preview } from '../answers';
    import { Turntable } from './turntable';

    interface Props {
        /** Path of the preview to show; null: nothing. */
        path: string | null;
        label: string;
        /** Asked for a point on the thing by a click. */
        pick?: ((point: [number, number, number]) => void) | null;
        /** The same thing, changed: the view stays. */
        keep?: string;
        /** Whether the point that it is moved by is marked. */
        pivot?: boolean;
    }
    let { path, label, pick = null, keep = '', pivot = false }: Props = $props();

    let canvas = $state<HTMLCanvasElement>();
    let box = $state<HTMLDivElement>();
    let phase = $state<'loading' | 'shown' | 'failed'>('loading');
    let why = $state('');
    let table: Turntable | null = null;
    let drag: { x: number; y: number; moved: boolean } | null = null;
    let lastKeep = '';
    /** Where the point that the thing is moved by is in the picture, from 0 to 1 across and down. */
    let origin = $state<[number, number]>([0.5, 0.5]);

    onMount(() => {
        if (!canvas || !box) return;
        table = new Turntable(canvas);
        table.painted = () => {
            if (pivot) origin = table?.place([0, 0, 0]) ?? origin;
        };
        table.turning = !matchMedia('(prefers-reduced-motion: reduce)').matches;
        const sizes = new ResizeObserver((l) => {
            const r = l[0]?.contentRect;
            if (r) table?.resize(r.width, r.height);
            table?.paint(performance.now());
        });
        sizes.observe(box);
        table.resize(box.clientWidth, box.clientHeight);
        void load(path);
        return () => sizes.disconnect();
    });
    onDestroy(() => (asked.abort(), table?.dispose()));

    $effect(() => {
        void load(path);
    });

    let asked = new AbortController();

    async function load(from: string | null) {
        if (!table || !from) return;
        phase = 'loading';
        asked.abort();
        asked = new AbortController();
        try {
            const got = await call(Preview, 'GET', from, undefined, asked.signal);
            if (from !== path) return;
            await table.show(got.manifest, keep !== '' && keep === lastKeep);
            lastKeep = keep;
            if (from === path) phase = 'shown';
        } catch (e) {
            if (from !== path || (e instanceof ApiError && e.reason === 'left')) return;
            phase = 'failed';
            why = e instanceof ApiError ? `${e.message} ${e.remedy}` : 'It cannot be drawn.';
        }
    }

    function down(e: PointerEvent) {
        drag = { x: e.clientX, y: e.clientY, moved: false };
        canvas?.setPointerCapture(e.pointerId);
    }
    function move(e: PointerEvent) {
        if (!drag) return;
        const [dx, dy] = [e.clientX - drag.x, e.clientY - drag.y];
        if (Math.abs(dx) + Math.abs(dy) > 3 || drag.moved) {
            table?.turn(dx, dy);
            table?.paint(performance.now());
            drag = { x: e.clientX, y: e.clientY, moved: true };
        }
    }
    function up(e: PointerEvent) {
        const clicked = drag && !drag.moved;
        drag = null;
        if (!clicked || !canvas || !table) return;
        // A place on what is about to be another one says nothing.
        if (pick && phase !== 'shown') return;
        const r = canvas.getBoundingClientRect();
        const hit = pick ? table.pick(((e.clientX - r.left) / r.width) * 2 - 1, 1 - ((e.clientY - r.top) / r.height) * 2) : null;
        if (hit && pick) pick([hit.x, hit.y, hit.z].map((v) => Math.round(v * 1000) / 1000) as [number, number, number]);
        else if (!pick) table.turning = !table.turning;
    }
    function key(e: KeyboardEvent) {
        const step = { ArrowLeft: [16, 0], ArrowRight: [-16, 0], ArrowUp: [0, 10], ArrowDown: [0, -10] }[e.key];
        if (!step) return;
        e.preventDefault();
        e.stopPropagation();
        table?.turn(step[0] ?? 0, step[1] ?? 0);
        table?.paint(performance.now());
    }
</script>

<div class="relative h-full w-full overflow-hidden rounded bg-surround" bind:this={box} data-testid="turntable" data-state={phase}>
    <canvas
        bind:this={canvas}
        class={['h-full w-full touch-none', pick ? 'cursor-crosshair' : 'cursor-grab']}
        aria-label={label}
        tabindex="0"
        onpointerdown={down}
        onpointermove={move}
        onpointerup={up}
        onwheel={(e) => {
            e.preventDefault();
            e.stopPropagation();
            table?.zoom(e.deltaY > 0 ? 1.12 : 0.89);
            table?.paint(performance.now());
        }}
        onkeydown={key}
    ></canvas>
    {#if pivot && phase === 'shown'}
        <svg
            class="pointer-events-none absolute h-7 w-7 -translate-x-1/2 -translate-y-1/2"
            style:left={`${origin[0] * 100}%`}
            style:top={`${origin[1] * 100}%`}
            viewBox="0 0 28 28"
            data-testid="pivot-mark"
            aria-hidden="true"
        >
            <circle cx="14" cy="14" r="6" fill="none" stroke="#fff" stroke-width="4" />
            <path d="M14 1v26M1 14h26" stroke="#fff" stroke-width="4" />
            <circle cx="14" cy="14" r="6" fill="none" stroke="#b4500f" stroke-width="2" />
            <path d="M14 1v26M1 14h26" stroke="#b4500f" stroke-width="2" />
        </svg>
    {/if}
    {#if phase === 'loading'}
        <p class="absolute right-2 bottom-2 rounded bg-ink/60 px-2 py-0.5 text-xs text-white">being set up…</p>
    {:else if phase === 'failed'}
        <p class="absolute inset-0 grid place-items-center bg-surround p-4 text-center text-white">{why}</p>
    {/if}
</div>
