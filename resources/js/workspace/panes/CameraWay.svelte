<script lang="ts">
    import { getDesk } from '../context';
    import { framingsOf } from '../cover/setups';
    import { standingAt } from '../cover/standing';
    import type { CameraKeyRow, FramingRow } from '../rows';
    import { dragged, draggedKey } from './cameraWay';

    /** The way of the camera that is selected, with the places to and from which it is led: they are dragged. */
    type Props = {
        px: (x: number) => number;
        pz: (z: number) => number;
        world: (e: { clientX: number; clientY: number }) => [number, number];
    };
    let { px, pz, world }: Props = $props();
    const { scene, playhead } = getDesk();

    const camera = $derived(scene.selection?.table === 'cameras' ? scene.find('cameras', scene.selection.id) : null);
    const framings = $derived(camera ? framingsOf(scene.rows.framings, camera.id) : []);
    const at = (frame: number) => scene.posesAt(frame)?.camera(`c${camera?.id}`, frame);

    type Stop = { frame: number; spot: [number, number]; framing: FramingRow | null; key: CameraKeyRow | null };
    const stops = $derived.by((): Stop[] => {
        void scene.posesVersion;
        if (!camera) return [];
        const list: Omit<Stop, 'spot'>[] =
            framings.length > 0
                ? framings.map((framing) => ({ frame: framing.frame + framing.over, framing, key: null }))
                : camera.keys.map((key) => ({ frame: key.frame, framing: null, key }));
        return list.flatMap((s) => {
            const row = at(Math.min(s.frame, scene.frames - 1));
            return row ? [{ ...s, spot: [row.position[0], row.position[2]] as [number, number] }] : [];
        });
    });

    /** In metres, so that a plan that is moved has it worked out once. */
    const spots = $derived.by(() => {
        void scene.posesVersion;
        const out: [number, number][] = [];
        for (let f = 0; camera && f < scene.frames; f += 4) {
            const row = at(f);
            const last = out[out.length - 1];
            if (!row || (last && Math.hypot(row.position[0] - last[0], row.position[2] - last[1]) < 0.03)) continue;
            out.push([row.position[0], row.position[2]]);
        }
        return out;
    });
    const way = $derived(spots.length > 1 ? spots.map(([x, z]) => `${px(x).toFixed(1)},${pz(z).toFixed(1)}`).join(' ') : '');

    let drag = $state<{ index: number; to: [number, number] } | null>(null);
    const canDrag = (s: Stop) => scene.canEdit && !camera?.locked && s.framing?.kind !== 'overShoulder';

    function about(f: FramingRow, frame: number): [number, number] | null {
        const ids = [f.subjectId, ...(f.kind === 'together' && f.partnerId !== null ? [f.partnerId] : [])];
        const all = ids.flatMap((id) => {
            const spot = standingAt(scene, id, Math.min(frame, scene.frames - 1));
            return spot ? [spot] : [];
        });
        const mean = (k: 0 | 1) => all.reduce((sum, s) => sum + s[k], 0) / all.length;
        return all.length > 0 ? [mean(0), mean(1)] : null;
    }

    const change = $derived.by(() => {
        const s = drag && stops[drag.index];
        const centre = s?.framing ? about(s.framing, s.frame) : null;
        return drag && s?.framing && centre ? { ...dragged(s.framing, centre, s.spot, drag.to), centre } : null;
    });

    function down(e: PointerEvent, index: number, s: Stop) {
        e.stopPropagation();
        if (e.button !== 0) return;
        if (!canDrag(s)) return playhead.go(s.frame);
        (e.currentTarget as Element).setPointerCapture(e.pointerId);
        drag = { index, to: s.spot };
    }

    async function up() {
        const d = drag;
        const s = d && stops[d.index];
        if (d && s && camera && Math.hypot(d.to[0] - s.spot[0], d.to[1] - s.spot[1]) > 0.03) {
            if (s.framing && change) {
                await scene.edit({ do: 'framing.set', framing: s.framing.id, sideDeg: change.sideDeg, focalMm: change.focalMm });
            } else if (s.key) {
                const metres = at(s.frame)?.focusMetres ?? 3;
                await scene.edit({ do: 'camera.key', camera: camera.id, ...draggedKey(s.key, d.to, metres) });
            }
        } else if (s) playhead.go(s.frame);
        drag = null;
    }
</script>

<svelte:window onkeydowncapture={(e) => e.key === 'Escape' && (drag = null)} />

{#if camera}
    <g data-testid="camera-way">
        {#if way}<polyline
                points={way}
                fill="none"
                stroke="#0b6e6e"
                stroke-width="2"
                stroke-dasharray="1 4"
                stroke-linecap="round"
                class="pointer-events-none"
            />{/if}
        {#if drag && change}
            <line
                class="pointer-events-none"
                x1={px(drag.to[0])}
                y1={pz(drag.to[1])}
                x2={px(change.centre[0])}
                y2={pz(change.centre[1])}
                stroke="#0b6e6e"
            />
            <text class="pointer-events-none text-[11px] font-semibold" fill="#0b6e6e" x={px(drag.to[0]) + 12} y={pz(drag.to[1]) - 8}
                >{Math.round(change.sideDeg)}°, {Math.round(change.focalMm)} mm</text
            >
        {/if}
        {#each stops as s, i (i)}
            {@const spot = drag?.index === i ? drag.to : s.spot}
            <g
                role="button"
                tabindex="0"
                class={canDrag(s) ? 'cursor-move' : 'cursor-pointer'}
                transform={`translate(${px(spot[0])} ${pz(spot[1])})`}
                data-testid={`camera-stop-${i}`}
                aria-label={`Camera ${camera.letter} at frame ${s.frame}${canDrag(s) ? '; drag it: the size stays' : ''}`}
                onpointerdown={(e) => down(e, i, s)}
                onpointermove={(e) => drag && (drag = { ...drag, to: world(e) })}
                onpointerup={up}
                onkeydown={(e) => e.key === 'Enter' && playhead.go(s.frame)}
            >
                <title>{s.framing ? 'Drag to another side; nearer or farther the lens goes along, the size stays' : 'Drag this key'}</title>
                <circle r="11" fill="none" stroke="#0b6e6e" stroke-width="2" stroke-dasharray={i === 0 ? undefined : '3 2'} />
                {#if stops.length > 1}<text x="9" y="-9" class="text-[10px] font-bold" fill="#0b6e6e">{i + 1}</text>{/if}
                <circle r="13" fill="transparent" />
            </g>
        {/each}
    </g>
{/if}
