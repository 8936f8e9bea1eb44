<script lang="ts">
    import { Button } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import { ApiError, call } from '../../lib/api';
    import { getDesk } from '../context';
    import { factsOf, megabytes } from './facts';
    import Findings from './Findings.svelte';
    import { ArrivalRow } from './answers';
    import MarkerStage from './MarkerStage.svelte';
    import ModelTools from './ModelTools.svelte';
    import RolesPanel from './RolesPanel.svelte';
    import SoundPlayer from './SoundPlayer.svelte';
    import Turntable from './Turntable.svelte';

    let { arrival }: { arrival: ArrivalRow } = $props();
    const { scene, view, kit } = getDesk();
    let busy = $state('');
    let beside = $state(false);
    let pivoting = $state(false);
    let marking = $state(false);
    let matching = $state(false);
    let stamp = $state(0);

    const drawn = $derived(arrival.assetId !== null && arrival.kind !== 'sound' && arrival.kind !== 'picture');
    const path = $derived(drawn ? `arrivals/${arrival.id}/preview?beside=${beside ? 1 : 0}&t=${stamp}` : null);
    const facts = $derived(factsOf(arrival.kind, arrival.facts, scene.rate));
    const isModel = $derived(arrival.kind === 'performer' || arrival.kind === 'set' || arrival.kind === 'prop');
    const manual = $derived(
        ['pivot', 'turn', 'grow', 'skeleton'].filter((c) => arrival.choices[c] && !arrival.findings.some((f) => f.code === c)),
    );
    onMount(() => {
        if (!arrival.seen) void call(ArrivalRow, 'POST', `arrivals/${arrival.id}/seen`).then((a) => kit.take(a));
    });

    async function mend(body: Record<string, unknown>, what: string) {
        busy = what;
        try {
            kit.take(await call(ArrivalRow, 'POST', `arrivals/${arrival.id}/mend`, body));
            stamp++;
            kit.version++;
            void scene.refreshAssets();
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            scene.notice = { kind: 'error', message: e.message, remedy: e.remedy };
        }
        busy = '';
    }
    const set = (code: string, value: unknown, what: string) => mend({ choices: { [code]: value } }, what);
    const fitted = $derived(typeof arrival.choices.skeleton === 'object');
    /** A body without joints can be given some, also one that does not look like a person. */
    const stiff = $derived(isModel && arrival.status !== 'refused' && (arrival.kind !== 'performer' || fitted));

    const people = $derived(scene.rows.items.filter((i) => i.kind === 'performer'));
    const selected = $derived(people.find((p) => scene.isSelected('items', p.id)) ?? people[0]);
    let doer = $derived(selected?.id ?? 0);

    async function use() {
        if (arrival.assetId === null || !(await scene.edit({ do: 'beat.add', item: doer, motion: arrival.assetId }))) return;
        scene.select('items', doer);
        kit.close();
    }

    async function take() {
        if (arrival.assetId === null) return;
        const at = view.target;
        const eye = view.free.position;
        const ok = await scene.edit({
            do: 'item.add',
            asset: arrival.assetId,
            near: [at.x, at.z],
            facing: [eye.x, eye.z],
        });
        if (!ok) return;
        const last = scene.rows.items[scene.rows.items.length - 1];
        if (last) scene.select('items', last.id);
        kit.close();
    }
</script>

<div class="flex min-w-0 flex-1" data-testid="slip">
    <div class="flex min-w-0 flex-1 flex-col gap-3 overflow-auto p-4">
        <div class="flex items-start gap-3">
            <div class="min-w-0 flex-1">
                <h2 class="truncate text-lg font-semibold">{arrival.name}</h2>
                <p class="truncate text-xs text-soft">
                    {arrival.path}, {megabytes(arrival.bytes)}{arrival.seconds ? `, read in ${arrival.seconds.toFixed(1)} s` : ''}. The file
                    is kept as it came.
                </p>
                {#if kit.brings[arrival.format] && arrival.status !== 'refused'}
                    <p class="text-xs text-soft" data-testid="brings">{kit.brings[arrival.format]}</p>
                {/if}
            </div>
            {#if isModel}<Button size="sm" onclick={take} data-testid="take">Put into the scene</Button>{/if}
            {#if arrival.kind === 'motion' && arrival.assetId !== null && people.length > 0 && scene.canEdit}
                <div class="flex shrink-0 items-center gap-1">
                    <select class="rounded border-line bg-sheet py-1 text-xs" aria-label="Who does it" bind:value={doer}>
                        {#each people as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
                    </select>
                    <Button size="sm" onclick={use} data-testid="use">Use it</Button>
                </div>
            {/if}
        </div>
        {#if arrival.status === 'refused'}
            <div class="rounded border border-alarm bg-sheet p-4" role="alert" data-testid="refused">
                <p class="font-semibold text-alarm">{arrival.error?.message}</p>
                <p>{arrival.error?.remedy}</p>
            </div>
        {:else if arrival.kind === 'picture'}
            <img
                src={`/api/blobs/${arrival.picture}`}
                alt={arrival.name}
                class="min-h-0 max-w-full self-start rounded bg-surround object-contain"
            />
        {:else if arrival.kind === 'sound' && arrival.blob}
            <SoundPlayer blob={arrival.blob} picture={arrival.picture} name={arrival.name} />
        {:else if marking}
            <MarkerStage
                arrival={arrival.id}
                name={arrival.name}
                busy={busy !== ''}
                fit={(values) => {
                    void set('skeleton', values, 'skeleton').then(() => (marking = false));
                }}
                cancel={() => (marking = false)}
            />
        {:else if path}
            <div class="min-h-[240px] flex-1">
                <Turntable
                    {path}
                    label={`${arrival.name} on a turntable; arrow keys turn it`}
                    keep={`${arrival.id}`}
                    pivot={isModel && (pivoting || arrival.choices.pivot !== undefined)}
                    pick={pivoting
                        ? (point) => {
                              pivoting = false;
                              void set('pivot', { to: 'point', point }, 'pivot');
                          }
                        : null}
                />
            </div>
            {#if isModel}
                <ModelTools
                    {arrival}
                    {fitted}
                    {stiff}
                    {pivoting}
                    bind:beside
                    mark={() => (marking = true)}
                    point={() => (pivoting = !pivoting)}
                    {set}
                />
            {/if}
        {/if}
    </div>
    <div class="flex w-[390px] shrink-0 flex-col gap-4 overflow-auto border-l border-line bg-paper p-4">
        {#if arrival.status === 'known'}
            <p class="rounded border border-tide bg-sheet p-3">The same file was here already. It is not brought in twice.</p>
        {/if}
        {#if arrival.findings.length > 0 || manual.length > 0}
            <Findings
                {arrival}
                {busy}
                {stamp}
                {isModel}
                {manual}
                {set}
                mark={() => (marking = true)}
                mendAll={() => mend({ all: true }, 'all')}
            />
        {:else if arrival.status === 'waiting' || arrival.status === 'reading'}
            <p class="rounded border border-line bg-sheet p-3 text-soft" role="status">It is being read; what is found stands here.</p>
        {:else if arrival.status !== 'refused'}
            <p class="rounded border border-line bg-sheet p-3">Nothing is wrong with it.</p>
        {/if}
        {#if facts.length > 0}
            <section>
                <h3 class="mb-1 font-semibold">What it is</h3>
                <dl class="grid grid-cols-[90px_1fr] gap-x-3 gap-y-0.5 text-xs">
                    {#each facts as [name, value] (name)}<dt class="text-soft">{name}</dt>
                        <dd>{value}</dd>{/each}
                </dl>
            </section>
        {/if}
        {#if arrival.assetId !== null && arrival.status !== 'refused' && (arrival.kind === 'performer' || arrival.kind === 'motion')}
            <section>
                <button class="font-semibold text-tide hover:underline" aria-expanded={matching} onclick={() => (matching = !matching)}
                    >{matching ? 'Joints and what they play' : 'Which joint plays what…'}</button
                >
                {#if matching}{#key arrival.assetId}<RolesPanel
                            asset={arrival.assetId}
                            own={scene.canEdit}
                            changed={() => {
                                stamp++;
                                kit.version++;
                            }}
                        />{/key}{/if}
            </section>
        {/if}
        {#if arrival.parts && isModel}
            <section data-testid="parts">
                <h3 class="mb-1 font-semibold">What arrived</h3>
                <p class="text-xs">
                    {arrival.parts.inFile} object{arrival.parts.inFile === 1 ? '' : 's'} in the file: {arrival.parts.made.length} made, {Object.keys(
                        arrival.parts.skipped,
                    ).length} skipped.
                </p>
                <p class="mt-1 text-xs break-words text-soft">
                    {arrival.parts.made.slice(0, 30).join(', ')}{arrival.parts.made.length > 30 ? ' …' : ''}
                </p>
                {#each Object.entries(arrival.parts.skipped).slice(0, 12) as [name, why] (name)}<p class="text-xs text-soft">
                        Skipped {name}: {why}.
                    </p>{/each}
            </section>
        {/if}
        {#if Object.keys(arrival.motions).length > 0 && arrival.kind !== 'motion'}
            <section>
                <h3 class="mb-1 font-semibold">Motions that came with it</h3>
                <p class="text-xs text-soft">{Object.keys(arrival.motions).join(', ')}</p>
            </section>
        {/if}
        {#if busy !== ''}<p class="text-xs text-soft" role="status">Mending…</p>{/if}
    </div>
</div>
