<script lang="ts">
    import { getDesk } from '../context';
    import { standingAt } from '../cover/standing';

    /** The line between two who have to do with each other, and the side of it that cameras keep to. */
    let { px, pz }: { px: (x: number) => number; pz: (z: number) => number } = $props();
    const { scene, playhead, view } = getDesk();
    const REACH = 3;
    const AWAY = 46;

    const drawn = $derived.by(() => {
        void scene.posesVersion;
        const line = view.line;
        const a = line && standingAt(scene, line.a, playhead.frame);
        const b = line && standingAt(scene, line.b, playhead.frame);
        if (!line || !a || !b) return null;
        const long = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
        const [ux, uz] = [(b[0] - a[0]) / long, (b[1] - a[1]) / long];
        const from = [px(a[0] - ux * REACH), pz(a[1] - uz * REACH)] as const;
        const to = [px(b[0] + ux * REACH), pz(b[1] + uz * REACH)] as const;
        const kept = scene.rows.framings.find(
            (f) => f.sideDeg !== 0 && [`${line.a} ${line.b}`, `${line.b} ${line.a}`].includes(`${f.subjectId} ${f.partnerId}`),
        );
        // To the left of who is filmed, looking at the other, for a positive side.
        const sign = kept ? Math.sign(kept.sideDeg) * (kept.subjectId === line.a ? 1 : -1) : 0;
        const [ox, oz] = [uz * sign * AWAY, -ux * sign * AWAY];
        const corners = [from, to, [to[0] + ox, to[1] + oz], [from[0] + ox, from[1] + oz]];
        return { from, to, side: sign === 0 ? '' : corners.map((c) => c.join(',')).join(' ') };
    });
</script>

{#if drawn}
    {@const { from, to, side } = drawn}
    <g class="pointer-events-none" data-testid="line-of-action">
        {#if side}<polygon points={side} fill="#0b6e6e" fill-opacity=".08" />{/if}
        <line x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} stroke="#1f2a30" stroke-width="1.2" stroke-dasharray="2 5" />
    </g>
{/if}
