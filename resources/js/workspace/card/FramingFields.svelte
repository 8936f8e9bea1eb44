<script lang="ts">
    import { parseFrameChange, timecode } from '../../lib/time';
    import { getDesk } from '../context';
    import { HEIGHTS, KEEPS, PARTS, SIZES, aside, framingWords, movesFrom } from '../cover/setups';
    import type { CameraRowData, FramingRow } from '../rows';
    import FramingMoves from './FramingMoves.svelte';
    import NumberField from './NumberField.svelte';

    /** Whom a camera films from a frame on, its moves, and how it is let go of. */
    let { camera, framings }: { camera: CameraRowData; framings: FramingRow[] } = $props();
    const { scene, playhead } = getDesk();
    const name = (id: number) => scene.find('items', id)?.name ?? '?';
    const frame = (t: string, present: number) => parseFrameChange(t, scene.rate, present);
    const now = $derived([...framings].reverse().find((f) => f.frame <= playhead.frame) ?? framings[0]);
    const set = (values: Record<string, unknown>) => now && scene.edit({ do: 'framing.set', framing: now.id, ...values });
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
    {#if scene.canEdit && movesFrom(now).length > 0}<FramingMoves {camera} {framings} {now} />{/if}
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
