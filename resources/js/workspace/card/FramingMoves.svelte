<script lang="ts">
    import { getDesk } from '../context';
    import { aside, framingFields, framingsOf, hiddenAside, movesFrom } from '../cover/setups';
    import type { CameraRowData, FramingRow } from '../rows';

    /** Moves from what a camera shows at the playhead to something else. */
    let { camera, framings, now }: { camera: CameraRowData; framings: FramingRow[]; now: FramingRow } = $props();
    const { scene, playhead } = getDesk();
    const seconds = $derived(Math.round(2 * (scene.rate[0] / scene.rate[1])));

    const at = $derived(Math.max(playhead.frame, (framings[0]?.frame ?? 0) + 1));
    const others = $derived(scene.rows.items.filter((i) => i.kind === 'performer' && i.id !== (now?.focusId ?? now?.subjectId)));
    const framed = $derived(scene.rows.cameras.filter((c) => c.id !== camera.id && framingsOf(scene.rows.framings, c.id).length > 0));

    /** From what is shown at the playhead to something else, over two seconds. */
    function lead(f: FramingRow, changes: Partial<FramingRow> = {}) {
        const fields = framingFields({ ...f, ...changes });
        void scene.edit({ do: 'camera.frame', camera: camera.id, move: true, ...fields, frame: at, over: seconds });
    }

    const here = $derived(Math.max(playhead.frame, framings[0]?.frame ?? 0));

    /** Comes from beside until the subject is where it is now. */
    function reveal() {
        // Its own distance, whatever one looks through.
        const metres = scene.posesAt(playhead.frame)?.camera(`c${camera.id}`, playhead.frame)?.focusMetres;
        if (metres === undefined) return;
        const from = framingFields({
            ...now,
            ...aside(now, hiddenAside(now, camera.sensorWidthMm, metres)),
            keep: 'still',
        });
        const move = { do: 'camera.frame', camera: camera.id, move: true };
        void scene.edit({ ...move, ...from, frame: here }, { ...move, ...framingFields(now), frame: here + 1, over: seconds });
    }

    /** On to what another camera shows, from the playhead on. */
    function change(id: number) {
        const all = framingsOf(scene.rows.framings, id);
        const to = [...all].reverse().find((f) => f.frame <= playhead.frame) ?? all[0];
        if (to) lead(to);
    }
</script>

<h4 class="mt-2 text-[11px] font-semibold text-soft">From here, over 2 seconds</h4>
<div class="flex flex-wrap gap-1">
    {#each movesFrom(now) as m (m.title)}
        <button class="rounded border border-line bg-sheet px-1.5 py-0.5 text-[11px] hover:border-tide" onclick={() => lead(now, m.changes)}
            >{m.title}</button
        >
    {/each}
    <button
        class="rounded border border-line bg-sheet px-1.5 py-0.5 text-[11px] hover:border-tide"
        title="Comes from beside, until it is where it is now"
        onclick={reveal}>Reveal</button
    >
</div>
<div class="mt-1 flex flex-col gap-1">
    <select
        class="min-w-0 rounded border-line bg-sheet py-0.5 text-[11px]"
        aria-label="Pull focus to"
        value=""
        onchange={(e) => (lead(now, { focusId: Number(e.currentTarget.value) }), (e.currentTarget.value = ''))}
    >
        <option value="" disabled>Pull focus to…</option>
        {#each others as o (o.id)}<option value={o.id}>{o.name}</option>{/each}
    </select>
    <select
        class="min-w-0 rounded border-line bg-sheet py-0.5 text-[11px]"
        aria-label="Change into camera"
        value=""
        disabled={framed.length === 0}
        onchange={(e) => (change(Number(e.currentTarget.value)), (e.currentTarget.value = ''))}
    >
        <option value="" disabled>Change into…</option>
        {#each framed as c (c.id)}<option value={c.id}>Camera {c.letter}</option>{/each}
    </select>
</div>
