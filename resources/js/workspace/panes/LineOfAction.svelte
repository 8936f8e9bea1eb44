<script lang="ts">
    import { getDesk } from '../context';

    /** The line between two who have to do with each other, and the side of it that cameras keep to. */
    let { px, pz }: { px: (x: number) => number; pz: (z: number) => number } = $props();
    const { scene, playhead, view } = getDesk();
    const REACH = 3;
    const AWAY = 46;

    const drawn = $derived.by(() => {
        void [scene.posesVersion, playhead.frame, view.version];
        const line = view.line;
        const [a, b] = [line ? view.painter?.stage.footing(`i${line.a}`) : null, line ? view.painter?.stage.footing(`i${line.b}`) : null];
        if (!line || !a || !b) return null;
        const long = Math.hypot(b.x - a.x, b.z - a.z) || 1;
        const [ux, uz] = [(b.x - a.x) / long, (b.z - a.z) / long];
        const from = [px(a.x - ux * REACH), pz(a.z - uz * REACH)] as const;
        const to = [px(b.x + ux * REACH), pz(b.z + uz * REACH)] as const;
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
