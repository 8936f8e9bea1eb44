<script lang="ts">
    import { parseFrameChange, timecode } from '../../lib/time';
    import { getDesk } from '../context';
    import type { BeatRow } from '../rows';
    import { headingTo, placeOf } from './facing';
    import NumberField from './NumberField.svelte';

    let { beat }: { beat: BeatRow } = $props();
    const { scene, view } = getDesk();
    const path = $derived(beat.path);
    const drawing = $derived(view.isPathing('beats', beat.id));
    const span = $derived(scene.manifest?.beats[`b${beat.id}`]);
    const frame = (t: string, present: number) => parseFrameChange(t, scene.rate, present);
    const changes = $derived(path?.changes ?? []);
    const free = $derived((path?.points ?? []).slice(0, -1).flatMap((_, i) => (changes.some((c) => c.after === i + 1) ? [] : [i + 1])));
    const MANNERS = [
        ['speed', 'Speed', 1.25],
        ['age', 'Tired', 0],
        ['mood', 'Mood', 0],
    ] as const;
    let place = $state(1);

    const setChange = (after: number, style: Record<string, number> | null) =>
        set({
            changes: [...changes.filter((c) => c.after !== after), ...(style ? [{ after, style }] : [])].sort((a, b) => a.after - b.after),
        });
    const faceable = $derived(scene.rows.items.filter((i) => i.id !== beat.itemId && i.kind !== 'set'));
    /** The direction from where the path ends to where somebody or something is by then. */
    const towards = (id: number): number => headingTo(path?.points.at(-1) ?? [0, 0], placeOf(scene, id, Math.round(span?.end ?? 0)));
    const faced = (): string => {
        const deg = path?.faceDeg;
        if (deg === undefined || deg === null) return '';
        return String(faceable.find((i) => Math.abs(towards(i.id) - deg) < 0.06)?.id ?? 'deg');
    };
    const face = (to: string) => set({ faceDeg: to === '' ? null : to === 'deg' ? (path?.faceDeg ?? 0) : towards(Number(to)) });
    const set = (values: Record<string, unknown>) =>
        scene.edit({ do: 'beat.set', beat: beat.id, path: path ? { ...path, ...values } : null });
</script>

<div class="mt-2 border-t border-line pt-2">
    <div class="mb-1.5 flex items-center gap-2">
        <span class="font-semibold">Path</span>
        <span class="text-soft">{path ? `${path.points.length} place${path.points.length === 1 ? '' : 's'}` : 'none'}</span>
        <span class="flex-1"></span>
        {#if scene.canEdit}
            <button
                class={['rounded border px-1.5 py-0.5', drawing ? 'border-tide bg-tide text-white' : 'border-line hover:bg-desk']}
                aria-pressed={drawing}
                data-testid="draw-path"
                title="Click places on the plan, one after the other"
                onclick={() => (view.pathing = drawing ? null : { table: 'beats', id: beat.id })}
                >{drawing ? 'Done' : path ? 'Go on' : 'Draw'}</button
            >
        {/if}
    </div>
    {#if drawing}<p class="mb-1.5 text-soft">Click on the plan where the walk leads, place after place.</p>{/if}
    {#if path}
        <dl class="grid grid-cols-[60px_1fr] items-center gap-x-2 gap-y-1.5">
            <dt class="text-soft">Arrives</dt>
            <dd class="grid grid-cols-[1fr_auto] items-center gap-1">
                {#if path.arrive}
                    <NumberField
                        label="Arrives at frame"
                        value={path.arrive}
                        digits={0}
                        parse={frame}
                        save={(n) => set({ arrive: Math.round(n) })}
                    />
                    <button class="text-tide hover:underline" onclick={() => set({ arrive: null })}>free</button>
                {:else}
                    <span class="mono" title={span ? timecode(span.end, scene.rate) : ''}>{Math.round(span?.end ?? 0)}</span>
                    <button class="text-tide hover:underline" onclick={() => set({ arrive: Math.round(span?.end ?? beat.start + 48) })}
                        >fix</button
                    >
                {/if}
            </dd>
            <dt class="text-soft">There</dt>
            <dd>
                <select
                    class="w-full min-w-0 rounded border-line bg-sheet py-0.5 text-xs"
                    aria-label="At its last place"
                    title="A walk that goes on leads into what follows without a stop: a trip, a jump"
                    value={path.goesOn ? 'on' : ''}
                    onchange={(e) => set({ goesOn: e.currentTarget.value === 'on' })}
                    ><option value="">it stops</option><option value="on">it goes on into what follows</option></select
                >
            </dd>
            <dt class="text-soft">Then faces</dt>
            <dd class="grid gap-1">
                <select
                    class="w-full min-w-0 rounded border-line bg-sheet py-0.5 text-xs"
                    aria-label="Then faces whom or what"
                    value={faced()}
                    onchange={(e) => face(e.currentTarget.value)}
                >
                    <option value="">ahead</option>
                    {#each faceable as i (i.id)}<option value={String(i.id)}>{i.name}</option>{/each}
                    <option value="deg">a direction</option>
                </select>
                {#if path.faceDeg !== undefined && path.faceDeg !== null}<NumberField
                        label="Then faces (deg)"
                        value={path.faceDeg}
                        unit="deg"
                        digits={1}
                        save={(n) => set({ faceDeg: n })}
                    />{/if}
            </dd>
        </dl>
        {#each changes as c (c.after)}
            <div class="mt-1.5 flex items-end gap-1 text-xs">
                <span class="w-[58px] text-soft">From {c.after}</span>
                {#each MANNERS as [name, label, usual] (name)}
                    <label class="min-w-0 flex-1"
                        >{label}<NumberField
                            label={`${label} from place ${c.after}`}
                            value={c.style[name] ?? usual}
                            save={(n) => setChange(c.after, { ...c.style, [name]: n })}
                        /></label
                    >
                {/each}
                <button
                    class="pb-1 text-alarm"
                    title="As before"
                    aria-label={`As before from place ${c.after}`}
                    onclick={() => setChange(c.after, null)}>x</button
                >
            </div>
        {/each}
        {#if scene.canEdit && free.length > 0}
            <div class="mt-1.5 flex items-center gap-1">
                <button
                    class="text-tide hover:underline"
                    data-testid="change-walk"
                    onclick={() => setChange(free.includes(place) ? place : (free[0] ?? 1), { speed: 2.8 })}
                    >Change the walk from place</button
                >
                <select class="rounded border-line bg-sheet py-0 pr-6 pl-1 text-xs" aria-label="Place of the change" bind:value={place}>
                    {#each free as n (n)}<option value={n}>{n}</option>{/each}
                </select>
            </div>
        {/if}
        {#if scene.canEdit}<button
                class="mt-1.5 text-tide hover:underline"
                onclick={() => ((view.pathing = null), scene.edit({ do: 'beat.set', beat: beat.id, path: null }))}
                >Take the path away</button
            >{/if}
    {/if}
</div>
