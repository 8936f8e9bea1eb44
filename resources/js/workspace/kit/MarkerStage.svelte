<script lang="ts">
    import { Button } from 'flowbite-svelte';
    import { onDestroy, onMount } from 'svelte';
    import { ApiError, call } from '../../lib/api';
    import { Preview } from '../answers';
    import { Markers } from './answers';
    import { Turntable } from './turntable';

    type Point = [number, number, number];
    interface Props {
        arrival: number;
        name: string;
        busy: boolean;
        fit: (values: { markers: Record<string, Point>; fingers: boolean }) => void;
        cancel: () => void;
    }
    let { arrival, name, busy, fit, cancel }: Props = $props();

    const WORDS: Record<string, string> = {
        neck: 'Neck',
        hips: 'Hips',
        wristL: 'Left wrist',
        wristR: 'Right wrist',
        kneeL: 'Left knee',
        kneeR: 'Right knee',
        ankleL: 'Left ankle',
        ankleR: 'Right ankle',
    };
    const BONES = [
        ['neck', 'hips'],
        ...['L', 'R'].flatMap((s) => [
            ['neck', `wrist${s}`],
            ['hips', `knee${s}`],
            [`knee${s}`, `ankle${s}`],
        ]),
    ] as [string, string][];

    let box = $state<HTMLDivElement>();
    let canvas = $state<HTMLCanvasElement>();
    let markers = $state.raw<Record<string, Point>>({});
    let proposed: Record<string, Point> = {};
    /** Where each marker is seen, from 0 to 1. */
    let seen = $state.raw<Record<string, [number, number]>>({});
    let fingers = $state(false);
    let alike = $state(true);
    let sure = $state(true);
    let phase = $state<'loading' | 'shown' | 'failed'>('loading');
    let why = $state('');
    let held = $state('');
    let table: Turntable | null = null;

    onMount(() => {
        if (!canvas || !box) return;
        const t = (table = new Turntable(canvas));
        const sizes = new ResizeObserver((l) => {
            const r = l[0]?.contentRect;
            if (r) t.resize(r.width, r.height);
            show();
        });
        sizes.observe(box);
        t.resize(box.clientWidth, box.clientHeight);
        void (async () => {
            try {
                const [got, places] = await Promise.all([
                    call(Preview, 'GET', `arrivals/${arrival}/preview?code=skeleton&as=before`),
                    call(Markers, 'GET', `arrivals/${arrival}/markers`),
                ]);
                t.front();
                await t.show(got.manifest);
                [markers, proposed, sure, fingers] = [places.markers, places.proposed, places.sure, places.fingers];
                phase = 'shown';
                show();
            } catch (e) {
                phase = 'failed';
                why = e instanceof ApiError ? `${e.message} ${e.remedy}` : 'It cannot be drawn.';
            }
        })();
        return () => sizes.disconnect();
    });
    onDestroy(() => table?.dispose());

    function show() {
        const t = table;
        if (!t || phase !== 'shown') return;
        t.front();
        t.paint(performance.now());
        seen = Object.fromEntries(Object.entries(markers).map(([k, p]) => [k, t.place(p)]));
    }

    const other = (key: string) => (key.endsWith('L') ? key.slice(0, -1) + 'R' : key.endsWith('R') ? key.slice(0, -1) + 'L' : '');

    function set(key: string, x: number, y: number) {
        const was = markers[key];
        if (!was) return;
        const next: Record<string, Point> = { ...markers, [key]: [x, y, was[2]] };
        const twin = other(key);
        const middle = markers.hips?.[0] ?? 0;
        if (alike && next[twin]) next[twin] = [2 * middle - x, y, next[twin][2]];
        markers = next;
        const t = table;
        if (t) seen = Object.fromEntries(Object.entries(next).map(([k, p]) => [k, t.place(p)]));
    }

    function move(e: PointerEvent) {
        if (!held || !box || !table) return;
        const r = box.getBoundingClientRect();
        const [x, y] = table.behind((e.clientX - r.left) / r.width, (e.clientY - r.top) / r.height, markers[held]?.[2] ?? 0);
        set(held, x, y);
    }

    function key(e: KeyboardEvent, name: string) {
        const by = { ArrowLeft: [-0.01, 0], ArrowRight: [0.01, 0], ArrowUp: [0, 0.01], ArrowDown: [0, -0.01] }[e.key];
        const at = markers[name];
        if (!by || !at) return;
        e.preventDefault();
        e.stopPropagation();
        set(name, at[0] + (by[0] ?? 0), at[1] + (by[1] ?? 0));
    }

    /** Places that were moved are sent without their depth, which the body tells. */
    function send() {
        const round = (p: Point, depth: boolean) => (depth ? p : p.slice(0, 2)).map((v) => Math.round(v * 10000) / 10000) as Point;
        const same = (a: Point, b?: Point) => b !== undefined && Math.hypot(a[0] - b[0], a[1] - b[1]) < 1e-4;
        fit({ markers: Object.fromEntries(Object.entries(markers).map(([k, p]) => [k, round(p, same(p, proposed[k]))])), fingers });
    }
</script>

<div class="flex min-h-0 flex-1 flex-col gap-2" data-testid="markers" data-state={phase}>
    <div class="relative min-h-[320px] flex-1 overflow-hidden rounded bg-surround" bind:this={box}>
        <canvas bind:this={canvas} class="h-full w-full" aria-label={`${name} from the front, with its markers`}></canvas>
        {#if phase === 'shown'}
            <svg class="pointer-events-none absolute inset-0 h-full w-full" viewBox="0 0 1 1" preserveAspectRatio="none" aria-hidden="true">
                {#each BONES as [a, b] (a + b)}
                    {#if seen[a] && seen[b]}
                        <line
                            x1={seen[a][0]}
                            y1={seen[a][1]}
                            x2={seen[b][0]}
                            y2={seen[b][1]}
                            class="stroke-white/70"
                            stroke-width="2"
                            vector-effect="non-scaling-stroke"
                        />
                    {/if}
                {/each}
            </svg>
            {#each Object.entries(seen) as [k, at] (k)}
                <button
                    class={[
                        'absolute h-5 w-5 -translate-x-1/2 -translate-y-1/2 cursor-grab touch-none rounded-full border-2 border-white shadow',
                        held === k ? 'bg-buoy' : 'bg-tide',
                    ]}
                    style={`left:${at[0] * 100}%;top:${at[1] * 100}%`}
                    title={WORDS[k]}
                    aria-label={`${WORDS[k]}: drag it, or move it with the arrow keys`}
                    data-testid={`marker-${k}`}
                    onpointerdown={(e) => {
                        held = k;
                        e.currentTarget.setPointerCapture(e.pointerId);
                    }}
                    onpointermove={move}
                    onpointerup={() => (held = '')}
                    onkeydown={(e) => key(e, k)}
                ></button>
            {/each}
            {#if held}<p class="absolute top-2 left-2 rounded bg-ink/70 px-2 py-0.5 text-xs text-white">{WORDS[held]}</p>{/if}
        {:else if phase === 'loading'}
            <p class="absolute right-2 bottom-2 rounded bg-ink/60 px-2 py-0.5 text-xs text-white">looking for its limbs…</p>
        {:else}
            <p class="absolute inset-0 grid place-items-center p-4 text-center text-white">{why}</p>
        {/if}
    </div>
    <p class="text-xs text-soft">
        {sure
            ? 'The eight places were found by its shape. Drag those that are off into the middle of the joint.'
            : 'Its limbs could not all be told apart. Drag the eight places into the middle of each joint.'}
    </p>
    <div class="flex flex-wrap items-center gap-3 text-xs">
        <label class="flex items-center gap-1.5"
            ><input type="checkbox" class="rounded border-line text-tide" bind:checked={alike} /> both sides alike</label
        >
        <label class="flex items-center gap-1.5"
            ><input type="checkbox" class="rounded border-line text-tide" bind:checked={fingers} /> with fingers</label
        >
        <Button
            size="xs"
            color="alternative"
            disabled={phase !== 'shown'}
            onclick={() => {
                markers = proposed;
                show();
            }}>As proposed</Button
        >
        <span class="ml-auto"></span>
        <Button size="xs" color="alternative" onclick={cancel}>Not now</Button>
        <Button size="xs" disabled={phase !== 'shown' || busy} onclick={send} data-testid="fit">Fit the skeleton</Button>
    </div>
</div>
