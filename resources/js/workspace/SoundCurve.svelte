<script module lang="ts">
    /** Pixels of a lane that is open. */
    export const TALL = 46;
</script>

<script lang="ts">
    import { perSecond } from '../lib/time';
    import { getDesk } from './context';
    import type { SoundRow } from './rows';
    import { raised } from './speech/loudness';
    import type { Timeline } from './timeline.svelte';

    /** The level of a sound along its length: points are dragged, a double click on one takes it away. */
    let { sound, line }: { sound: SoundRow; line: Timeline } = $props();
    const { scene } = getDesk();
    const [HIGH, LOW] = [12, -36];
    const y = (db: number) => 3 + ((HIGH - db) / (HIGH - LOW)) * (TALL - 6);
    const x = (t: number) => t * perSecond(scene.rate) * line.perFrame;
    let bent = $state<{ curve: [number, number][]; at: number } | null>(null);
    let host = $state<SVGElement>();
    const curve = $derived((bent?.curve ?? sound.curve).map(([t, db]): [number, number] => [t, db]));
    const half = (db: number) => Math.round(db * 2) / 2;

    /** Where a pointer is: seconds after the sound begins, and decibels. */
    function under(e: MouseEvent): [number, number] {
        const r = host!.getBoundingClientRect();
        const t = Math.min(r.width, Math.max(0, e.clientX - r.left)) / line.perFrame / perSecond(scene.rate);
        const db = HIGH - ((e.clientY - r.top - 3) / (TALL - 6)) * (HIGH - LOW);
        return [Math.round(t * 100) / 100, half(Math.min(HIGH, Math.max(LOW, db)))];
    }
    const keep = (points: [number, number][]) => scene.edit({ do: 'sound.set', sound: sound.id, curve: points });

    /** A point where a pointer is, on the curve as it is. */
    export function add(e: MouseEvent) {
        if (!scene.canEdit) return;
        const [t] = under(e);
        void keep([...curve, [t, half(raised(curve, t))] as [number, number]].sort((a, b) => a[0] - b[0]));
    }
    function grab(e: PointerEvent, at: number) {
        e.stopPropagation();
        if (scene.canEdit && e.button === 0) bent = { curve, at };
    }
    function bend(e: PointerEvent) {
        if (!bent) return;
        const [t, db] = under(e);
        const at = bent.at;
        // A point stays between its neighbours.
        const least = (bent.curve[at - 1]?.[0] ?? -0.05) + 0.05;
        const most = (bent.curve[at + 1]?.[0] ?? Infinity) - 0.05;
        bent = { at, curve: bent.curve.map((p, k) => (k === at ? [Math.min(most, Math.max(least, t)), db] : p)) };
    }
    async function letGo() {
        if (bent && JSON.stringify(curve) !== JSON.stringify(sound.curve)) await keep(curve);
        bent = null;
    }
    function remove(e: MouseEvent, at: number) {
        e.stopPropagation();
        void keep(curve.filter((_, n) => n !== at));
    }
</script>

<svelte:window onpointermove={bend} onpointerup={letGo} onkeydowncapture={(e) => e.key === 'Escape' && (bent = null)} />

<svg bind:this={host} class="pointer-events-none absolute inset-0 h-full w-full overflow-visible" aria-hidden="true">
    <polyline
        fill="none"
        stroke="#1f2933"
        stroke-width="1"
        stroke-dasharray={curve.length === 0 ? '2 3' : undefined}
        points={[[0, raised(curve, 0)], ...curve, [1e4, raised(curve, 1e9)]].map(([t, db]) => `${x(t!)},${y(db!)}`).join(' ')}
    />
</svg>
{#each curve as [t, db], k (k)}
    <span
        class="absolute h-2 w-2 cursor-move rounded-full border border-ink bg-sheet"
        role="button"
        tabindex="-1"
        data-testid="bend"
        aria-label={`Level ${db} dB at ${t} s`}
        title={`${db} dB at ${t} s; a double click takes it away`}
        style:left={`${x(t) - 4}px`}
        style:top={`${y(db) - 4}px`}
        onpointerdown={(e) => grab(e, k)}
        ondblclick={(e) => remove(e, k)}
    ></span>
{/each}
