<script lang="ts">
    import BlendMarks from './BlendMarks.svelte';
    import ShotListSheet from './cover/ShotListSheet.svelte';
    import ReelHead from './ReelHead.svelte';
    import { onDestroy } from 'svelte';
    import { viewOf, type ManifestShot } from '../picture';
    import { keyOf } from './reelPictures';
    import { getDesk } from './context';
    import { scrubbing } from './scrub';
    import type { Timeline } from './timeline.svelte';

    let { line }: { line: Timeline } = $props();
    const { scene, playhead, view } = getDesk();

    let drag = $state<{ id: number; frame: number } | null>(null);
    let pictures = $state<Record<string, string>>({});
    let host = $state<HTMLDivElement>();
    let turn = 0;

    const shots = $derived(scene.manifest?.shots ?? []);
    const keptShots = $derived(new Set(scene.rows.shots.filter((s) => s.kept).map((s) => `s${s.id}`)));
    const bounds = (s: ManifestShot, i: number): [number, number] => {
        const next = shots[i + 1];
        const start = drag && Number(s.id.slice(1)) === drag.id ? drag.frame : s.in;
        const end = drag && next && Number(next.id.slice(1)) === drag.id ? drag.frame : s.out;
        return [start, end];
    };

    const pictureKey = (s: ManifestShot): string => (scene.manifest ? keyOf(scene.manifest, s) : '');

    // Small pictures by the same drawing, one at a time, when nothing else is going on.
    $effect(() => {
        const m = scene.manifest;
        if (!m || shots.length === 0) return;
        void [scene.posesVersion, playhead.playing, view.firstPicture];
        const mine = ++turn;
        const wanted = shots.map((s) => [s, pictureKey(s)] as const).filter(([, k]) => !pictures[k]);
        if (wanted.length === 0 || playhead.playing) return;
        const timer = setTimeout(async () => {
            if (!view.painter || mine !== turn) return;
            const height = 2 * Math.round(96 / (m.width / m.height));
            for (const [s, k] of wanted) {
                const f = Number(k.split('|')[1]);
                const block = scene.posesAt(f);
                const row = block?.camera(s.camera, f);
                if (!block || !row || mine !== turn || !view.painter || view.firstPicture === 0) return;
                const seen = viewOf(
                    row,
                    m.cameras.find((c) => c.id === s.camera),
                );
                pictures = { ...pictures, [k]: view.painter.small(block, f, seen, 192, height) };
                await new Promise((r) => setTimeout(r, 30));
            }
        }, 700);
        return () => clearTimeout(timer);
    });

    onDestroy(() => turn++);

    function cutDown(e: PointerEvent, s: ManifestShot) {
        e.stopPropagation();
        if (!scene.canEdit) return;
        (e.currentTarget as Element).setPointerCapture(e.pointerId);
        drag = { id: Number(s.id.slice(1)), frame: s.in };
    }

    function cutMove(e: PointerEvent, i: number) {
        if (!drag || !host) return;
        const before = shots[i - 1];
        const s = shots[i];
        if (!before || !s) return;
        const f = line.frame(e.clientX - host.getBoundingClientRect().left);
        drag = { ...drag, frame: Math.max(before.in + 1, Math.min(s.out - 1, f)) };
        playhead.go(drag.frame);
    }

    /** With shift held all cuts behind go along. */
    async function cutUp(e: PointerEvent, s: ManifestShot) {
        const d = drag;
        const ripple = e.shiftKey ? { ripple: true } : {};
        if (d && d.frame !== s.in) await scene.edit({ do: 'shot.move', shot: d.id, frame: d.frame, ...ripple });
        drag = null;
    }

    /** Selects the shot and goes to the frame that was clicked; by the keyboard to its first. */
    function pick(e: MouseEvent, s: ManifestShot) {
        scene.select('shots', Number(s.id.slice(1)));
        const at = e.detail > 0 && host ? line.frame(e.clientX - host.getBoundingClientRect().left) : s.in;
        playhead.go(Math.min(s.out - 1, Math.max(s.in, at)));
        view.source = { kind: 'reel' };
    }

    /** Alt and a drag: what the camera of a shot does comes earlier or later under it. */
    let slip = $state<{ camera: number; x: number; by: number } | null>(null);
    function slipDown(e: PointerEvent, s: ManifestShot) {
        e.stopPropagation();
        if (!e.altKey || e.button !== 0 || !scene.canEdit) return;
        (e.currentTarget as Element).setPointerCapture(e.pointerId);
        slip = { camera: Number(s.camera.slice(1)), x: e.clientX, by: 0 };
    }
    function slipUp() {
        const d = slip;
        slip = null;
        if (d && d.by !== 0) void scene.edit({ do: 'camera.slip', camera: d.camera, by: d.by });
    }

    const scrub = $derived(scrubbing(line, playhead));
    let listed = $state(false);
</script>

<svelte:window onkeydowncapture={(e) => e.key === 'Escape' && (drag = slip = null)} />

<div
    class="relative h-[72px] shrink-0 overflow-hidden border-b border-line bg-desk"
    bind:this={host}
    data-testid="reel-strip"
    role="list"
    aria-label="Reel: shots in order"
    onpointerdown={scrub}
>
    <ReelHead shots={shots.length} width={line.left} list={() => (listed = true)} />
    {#if shots.length === 0}
        <p class="absolute top-6 text-soft" style:left={`${line.left + 12}px`}>
            Make a camera in <strong>Cover</strong>; the first one is put on the reel at once.
        </p>
    {/if}
    {#each shots as s, i (s.id)}
        {@const [a, b] = bounds(s, i)}
        {@const camera = scene.manifest?.cameras.find((c) => c.id === s.camera)}
        {@const on = playhead.frame >= a && playhead.frame < b}
        <div
            class="absolute top-1.5 h-[58px]"
            role="listitem"
            style:left={`${line.x(a)}px`}
            style:width={`${Math.max(2, (b - a) * line.perFrame - 2)}px`}
        >
            <button
                class={[
                    'relative block h-full w-full overflow-hidden rounded bg-surround text-left',
                    on ? 'ring-2 ring-tide' : scene.isSelected('shots', Number(s.id.slice(1))) ? 'ring-2 ring-ink' : '',
                ]}
                data-testid={`shot-${s.label}`}
                aria-label={`Shot ${s.label}, camera ${camera?.letter ?? ''}`}
                title="Alt and a drag slip what its camera does; the cuts stay"
                onclick={(e) => !e.altKey && pick(e, s)}
                onpointerdown={(e) => slipDown(e, s)}
                onpointermove={(e) => slip && (slip = { ...slip, by: Math.round((e.clientX - slip.x) / line.perFrame) })}
                onpointerup={slipUp}
            >
                {#if pictures[pictureKey(s)]}
                    <span
                        class="block h-full w-full bg-[length:auto_100%] bg-repeat-x"
                        style:background-image={`url(${pictures[pictureKey(s)]})`}
                    ></span>
                {/if}
                <span class="mono absolute bottom-0 left-0 rounded-tr bg-ink/80 px-1 text-[10px] whitespace-nowrap text-white"
                    >{s.label}
                    {camera?.letter}{keptShots.has(s.id) ? ' kept' : ''}{slip && s.camera === `c${slip.camera}` && slip.by !== 0
                        ? ` ${slip.by > 0 ? '+' : ''}${slip.by}`
                        : ''}</span
                >
            </button>
            {#if i > 0}
                <div
                    class="absolute inset-y-0 -left-1.5 z-10 w-3 cursor-col-resize"
                    role="slider"
                    tabindex="0"
                    aria-label={`Cut to shot ${s.label}`}
                    aria-valuenow={a}
                    aria-valuemin={shots[i - 1]?.in ?? 0}
                    aria-valuemax={s.out}
                    data-testid={`cut-${s.label}`}
                    onpointerdown={(e) => cutDown(e, s)}
                    onpointermove={(e) => cutMove(e, i)}
                    onpointerup={(e) => cutUp(e, s)}
                    title="Drag the cut; with Shift all that follow go along"
                    onkeydown={(e) => {
                        const by = e.key === 'ArrowLeft' ? -1 : e.key === 'ArrowRight' ? 1 : 0;
                        if (by === 0) return;
                        e.preventDefault();
                        e.stopPropagation();
                        void scene.edit({ do: 'shot.move', shot: Number(s.id.slice(1)), frame: s.in + by });
                    }}
                ></div>
            {/if}
        </div>
    {/each}
    {#if !drag}<BlendMarks {line} />{/if}
    {#each scene.cutting as c, i (i)}
        <div
            class="pointer-events-none absolute inset-y-0 border-l-2 border-buoy"
            style:left={`${line.x(c.frame) - 1}px`}
            data-testid="cut-on-its-way"
        >
            <span class="mono bg-buoy px-1 text-[10px] text-white">{scene.find('cameras', c.camera)?.letter}</span>
        </div>
    {/each}
</div>

<ShotListSheet bind:open={listed} />
