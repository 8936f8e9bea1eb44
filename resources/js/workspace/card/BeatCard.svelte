<script lang="ts">
    import { parseFrameChange, timecode } from '../../lib/time';
    import { getDesk } from '../context';
    import type { BeatRow } from '../rows';
    import MannerFields from './MannerFields.svelte';
    import NumberField from './NumberField.svelte';
    import PathFields from './PathFields.svelte';
    import PlayFields from './PlayFields.svelte';

    let { beat }: { beat: BeatRow } = $props();
    const { scene, playhead, view } = getDesk();
    const motion = $derived(scene.asset(beat.assetId));
    const who = $derived(scene.find('items', beat.itemId));
    const span = $derived(scene.manifest?.beats[`b${beat.id}`]);
    const follows = $derived(scene.rows.beats.some((b) => b.itemId === beat.itemId && b.start < beat.start && !b.play.layer));
    /** Beats of others that it could stand with: those that begin within four seconds. */
    const others = $derived(
        scene.rows.beats.filter(
            (b) => b.itemId !== beat.itemId && !b.play.layer && (Math.abs(b.start - beat.start) < 96 || beat.play.with === `b${b.id}`),
        ),
    );
    const set = (values: Record<string, unknown>) => scene.edit({ do: 'beat.set', beat: beat.id, ...values });
    const frame = (t: string, present: number) => parseFrameChange(t, scene.rate, present);
    const isCut = $derived(Boolean(beat.play.skip) || (beat.play.length ?? null) !== null);
    const cutAt = $derived(beat.play.skip && beat.play.length ? 'both ends' : beat.play.skip ? 'its start' : 'its end');
    const uncut = () =>
        scene.edit(
            { do: 'beat.set', beat: beat.id, play: { length: null } },
            ...(beat.play.skip ? [{ do: 'beat.trim', beat: beat.id, edge: 'in', frame: Math.max(0, beat.start - beat.play.skip) }] : []),
        );
    /** What a generated motion can be told, by its model: in numbers, and its manner by sliders. */
    const NUMBERS: Record<string, [string, number][]> = {
        walkToMark: [
            ['metres', 3],
            ['speed', 1.2],
        ],
        walk: [['speed', 1.25]],
        talk: [
            ['seconds', 6],
            ['seed', 5],
            ['energy', 1],
        ],
        idle: [['seed', 3]],
    };
    const recipe = $derived(motion?.facts.recipe as { model: string; settings: Record<string, number | string> } | undefined);
    const LABELS: Record<string, string> = { speed: 'Walking speed (m/s)' };
    const walks = $derived(recipe?.model === 'walk' || recipe?.model === 'walkToMark');
    const sliders = $derived(NUMBERS[recipe?.model ?? ''] ?? []);
    const usually = (name: string, otherwise: number) => Number(beat.settings[name] ?? recipe?.settings[name] ?? otherwise);
    const field = 'w-full rounded border-line bg-sheet py-0.5 text-xs';
</script>

<p class="mb-2 text-sm font-semibold">{motion?.name} <span class="font-normal text-soft">for {who?.name}</span></p>
<!-- The card lies over the plan: what is set once and rarely is folded away, and while a path is drawn all of it is. -->
{#if !view.isPathing('beats', beat.id)}
    <dl class="grid grid-cols-[60px_1fr] items-center gap-x-2 gap-y-1.5">
        <dt class="text-soft">Starts</dt>
        <dd><NumberField label="Start frame" value={beat.start} digits={0} parse={frame} save={(n) => set({ start: Math.round(n) })} /></dd>
        {#if span}<dt class="text-soft">Ends</dt>
            <dd class="grid grid-cols-[46px_1fr] items-center gap-1">
                <NumberField
                    label="End frame"
                    value={Math.round(span.end)}
                    digits={0}
                    parse={frame}
                    save={(n) => scene.edit({ do: 'beat.trim', beat: beat.id, edge: 'out', frame: Math.round(n) })}
                /><span class="mono text-[10px] whitespace-nowrap text-soft">{timecode(span.end, scene.rate)}</span>
            </dd>{/if}
        {#if isCut}<dt class="text-soft">Cut</dt>
            <dd class="flex items-baseline justify-between gap-2" data-testid="cut">
                <span title={beat.play.skip ? `The first ${beat.play.skip} frames are not shown` : undefined}>{cutAt}</span>
                <button class="whitespace-nowrap text-tide hover:underline" onclick={uncut} disabled={!scene.canEdit}>Show all</button>
            </dd>{/if}
        {#each sliders as [name, usual] (name)}
            <dt class="text-soft capitalize">{name}</dt>
            <dd>
                <NumberField label={LABELS[name] ?? name} value={usually(name, usual)} save={(n) => set({ settings: { [name]: n } })} />
            </dd>
        {/each}
        {#if recipe?.model === 'talk'}
            <dt class="text-soft">Line</dt>
            <dd></dd>
            <dd class="col-span-2">
                <textarea
                    class={[field, 'px-2']}
                    rows="3"
                    maxlength="400"
                    aria-label="Line"
                    placeholder="What is said; *stressed* words get a stroke"
                    value={beat.settings.line ?? ''}
                    onchange={(e) => set({ settings: { line: e.currentTarget.value } })}
                    onkeydown={(e) => e.stopPropagation()}></textarea>
            </dd>
        {/if}
    </dl>
{/if}
{#if recipe && !view.isPathing('beats', beat.id)}<MannerFields {beat} model={recipe.model} {usually} />{/if}
{#if walks}<PathFields {beat} />{/if}
{#if !view.isPathing('beats', beat.id)}
    <details class="mt-2 border-t border-line pt-2" open={beat.path === null}>
        <summary class="cursor-pointer font-semibold">Cut and join</summary>
        <dl class="mt-1.5 grid grid-cols-[60px_1fr] items-center gap-x-2 gap-y-1.5">
            <dt class="text-soft">From (s)</dt>
            <dd><NumberField label="Source in (seconds)" value={beat.sourceIn} save={(n) => set({ sourceIn: n })} /></dd>
            <dt class="text-soft">To (s)</dt>
            <dd>
                <NumberField
                    label="Source out (seconds)"
                    value={beat.sourceOut ?? span?.seconds ?? 0}
                    save={(n) => set({ sourceOut: n })}
                />
            </dd>
            <dt class="text-soft">Factor</dt>
            <dd><NumberField label="Speed factor" value={beat.speed} save={(n) => set({ speed: n })} /></dd>
            <dt class="text-soft">Times</dt>
            <dd><NumberField label="Times" value={beat.loops} digits={0} save={(n) => set({ loops: Math.round(n) })} /></dd>
            <dt class="text-soft">Goes</dt>
            <dd>
                <select class={field} aria-label="Goes" value={beat.root} onchange={(e) => set({ root: e.currentTarget.value })}
                    ><option value="travel">travelling</option><option value="spot">on the spot</option></select
                >
            </dd>
            <dt class="text-soft">Join</dt>
            <dd class="grid grid-cols-[1fr_36px] gap-1">
                <select class={field} aria-label="Join" value={beat.join} onchange={(e) => set({ join: e.currentTarget.value })}
                    ><option value="carryOn">carry on</option><option value="blend">blend</option><option value="cut">cut</option></select
                >
                <NumberField label="Join frames" value={beat.joinFrames} digits={0} save={(n) => set({ joinFrames: Math.round(n) })} />
            </dd>
            {#if others.length > 0}
                <dt class="text-soft">With</dt>
                <dd>
                    <select
                        class={field}
                        aria-label="Stands with"
                        title="Stands to the other performer as the two motions were made"
                        value={beat.play.with ?? ''}
                        onchange={(e) => scene.edit({ do: 'beat.pair', beat: beat.id, with: e.currentTarget.value || null })}
                        ><option value="">nobody</option>
                        {#each others as o (o.id)}<option value={`b${o.id}`}
                                >{scene.find('items', o.itemId)?.name}: {scene.asset(o.assetId)?.name} at {o.start}</option
                            >{/each}
                    </select>
                </dd>
            {/if}
        </dl>
    </details>
    <PlayFields {beat} />
{/if}
{#if scene.canEdit && !view.isPathing('beats', beat.id)}
    <div class="mt-3 flex gap-3">
        <button
            class="text-tide hover:underline disabled:text-soft disabled:no-underline"
            disabled={!span || playhead.frame <= beat.start || playhead.frame >= span.end}
            title="At the playhead"
            onclick={() => scene.edit({ do: 'beat.split', beat: beat.id, frame: Math.round(playhead.frame) })}>Split here</button
        >
        {#if follows}<button
                class="text-tide hover:underline"
                title="Trims both to where their poses fit best"
                onclick={() => scene.edit({ do: 'beat.bestJoin', beat: beat.id })}>Best join</button
            >{/if}
        <button class="text-alarm hover:underline" title="Del" onclick={() => scene.edit({ do: 'beat.remove', beat: beat.id })}
            >Remove</button
        >
    </div>
{/if}
