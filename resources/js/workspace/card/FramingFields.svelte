<script lang="ts">
    import { parseFrameChange, timecode } from '../../lib/time';
    import { getDesk } from '../context';
    import { HEIGHTS, KEEPS, PARTS, SIZES, aside, framingFields, framingWords, framingsOf, hiddenAside, movesFrom } from '../cover/setups';
    import type { CameraRowData, FramingRow } from '../rows';
    import NumberField from './NumberField.svelte';

    /** Whom a camera films from a frame on, its moves, and how it is let go of. */
    let { camera, framings }: { camera: CameraRowData; framings: FramingRow[] } = $props();
    const { scene, playhead } = getDesk();
    const name = (id: number) => scene.find('items', id)?.name ?? '?';
    const frame = (t: string, present: number) => parseFrameChange(t, scene.rate, present);
    const now = $derived([...framings].reverse().find((f) => f.frame <= playhead.frame) ?? framings[0]);
    const set = (values: Record<string, unknown>) => now && scene.edit({ do: 'framing.set', framing: now.id, ...values });
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
        if (!now) return;
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

{#if now}
    <p class="mb-1 font-semibold">{framingWords(now, name)}</p>
    <dl class="grid grid-cols-[60px_1fr] items-center gap-x-2 gap-y-1.5">
        {#if now.kind !== 'overShoulder'}
            <dt class="text-soft">Size</dt>
            <dd>
                <select
                    class="w-full rounded border-line bg-sheet py-0.5 text-xs"
                    aria-label="Shot size"
                    value={now.size}
                    onchange={(e) => set({ size: e.currentTarget.value })}
                >
                    {#each SIZES as [id, word] (id)}<option value={id}>{word}</option>{/each}
                </select>
            </dd>
            <dt class="text-soft">Side</dt>
            <dd><NumberField label="Side (deg)" value={now.sideDeg} unit="deg" digits={0} save={(n) => set({ sideDeg: n })} /></dd>
            <dt class="text-soft">Height</dt>
            <dd>
                <select
                    class="w-full rounded border-line bg-sheet py-0.5 text-xs"
                    aria-label="Height of the lens"
                    value={now.height}
                    onchange={(e) => set({ height: e.currentTarget.value })}
                >
                    {#each HEIGHTS as [id, word] (id)}<option value={id}>{word}</option>{/each}
                </select>
            </dd>
        {/if}
        {#if now.kind === 'single' && scene.find('items', now.subjectId)?.kind === 'performer'}
            <dt class="text-soft">Keeps in</dt>
            <dd>
                <select
                    class="w-full rounded border-line bg-sheet py-0.5 text-xs"
                    aria-label="What stays in the picture"
                    value={now.part}
                    onchange={(e) => set({ part: e.currentTarget.value })}
                >
                    {#each PARTS as [id, word] (id)}<option value={id}>{word}</option>{/each}
                </select>
            </dd>
        {/if}
        <dt class="text-soft">Lens (mm)</dt>
        <dd><NumberField label="Focal length (mm)" value={now.focalMm} unit="mm" digits={1} save={(n) => set({ focalMm: n })} /></dd>
        <dt class="text-soft">Aperture</dt>
        <dd><NumberField label="Aperture" value={now.fStop} digits={1} save={(n) => set({ fStop: n })} /></dd>
        <dt class="text-soft">Sharp on</dt>
        <dd>
            <select
                class="w-full rounded border-line bg-sheet py-0.5 text-xs"
                aria-label="Who is sharp"
                value={String(now.focusId ?? '')}
                onchange={(e) => set({ focus: e.currentTarget.value ? Number(e.currentTarget.value) : null })}
            >
                <option value="">{name(now.subjectId)}</option>
                {#each scene.rows.items.filter((i) => i.kind !== 'set' && i.id !== now.subjectId) as i (i.id)}<option value={String(i.id)}
                        >{i.name}</option
                    >{/each}
            </select>
        </dd>
        <dt class="text-soft">Aside</dt>
        <dd>
            <NumberField label="Aside (m)" value={now.shift[0]} unit="m" digits={2} save={(n) => set(aside(now, n - now.shift[0]))} />
        </dd>
        <dt class="text-soft">Keeps</dt>
        <dd>
            <select
                class="w-full rounded border-line bg-sheet py-0.5 text-xs"
                aria-label="How it keeps its subject"
                value={now.keep}
                onchange={(e) => set({ keep: e.currentTarget.value })}
            >
                {#each KEEPS as [id, word] (id)}<option value={id}>{word}</option>{/each}
            </select>
        </dd>
        {#if now.kind === 'single' && now.sideDeg !== 0}
            <dt class="text-soft">Mirror</dt>
            <dd>
                <button class="text-tide hover:underline" onclick={() => set({ sideDeg: -now.sideDeg })}>See it from the other side</button>
            </dd>
        {/if}
    </dl>
    {#if framings.length > 1}
        <h4 class="mt-2 text-[11px] font-semibold text-soft">Moves</h4>
        {#each framings.slice(1) as f (f.id)}
            <div class="flex items-center gap-1 py-0.5">
                <button class="min-w-0 flex-1 truncate text-left text-tide hover:underline" onclick={() => playhead.go(f.frame)}
                    >{timecode(f.frame, scene.rate)} {framingWords(f, name)}</button
                >
                <span class="w-12"
                    ><NumberField
                        label="Length of the move"
                        value={f.over}
                        digits={0}
                        parse={frame}
                        save={(n) => scene.edit({ do: 'framing.set', framing: f.id, over: Math.max(0, Math.round(n)) })}
                    /></span
                >
                <button
                    class="text-alarm"
                    aria-label="Take this move away"
                    onclick={() => scene.edit({ do: 'framing.remove', framing: f.id })}>x</button
                >
            </div>
        {/each}
    {/if}
    {#if scene.canEdit && movesFrom(now).length > 0}
        <h4 class="mt-2 text-[11px] font-semibold text-soft">From here, over 2 seconds</h4>
        <div class="flex flex-wrap gap-1">
            {#each movesFrom(now) as m (m.title)}
                <button
                    class="rounded border border-line bg-sheet px-1.5 py-0.5 text-[11px] hover:border-tide"
                    onclick={() => lead(now, m.changes)}>{m.title}</button
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
    {/if}
    {#if scene.canEdit}
        <div class="mt-2 flex gap-3">
            <button
                class="text-tide hover:underline"
                title="Plain keys that lead it the same way, to be changed by hand"
                onclick={() => scene.edit({ do: 'camera.loosen', camera: camera.id })}>Loosen to keys</button
            >
            <button
                class="text-tide hover:underline"
                title="It stands as it does at the playhead, whatever people do"
                onclick={() => scene.edit({ do: 'camera.loosen', camera: camera.id, hold: playhead.frame })}>Hold here</button
            >
        </div>
    {/if}
{/if}
