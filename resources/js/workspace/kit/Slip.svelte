<script lang="ts">
    import { Button, Input } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import { ApiError, call } from '../../lib/api';
    import { getDesk } from '../context';
    import BeforeAfter from './BeforeAfter.svelte';
    import { factsOf, megabytes } from './facts';
    import type { ArrivalRow, Finding } from './kit.svelte';
    import MarkerStage from './MarkerStage.svelte';
    import RolesPanel from './RolesPanel.svelte';
    import Turntable from './Turntable.svelte';

    let { arrival }: { arrival: ArrivalRow } = $props();
    const { scene, view, kit } = getDesk();
    let busy = $state('');
    let beside = $state(false);
    let pivoting = $state(false);
    let marking = $state(false);
    let matching = $state(false);
    let height = $state('');
    let stamp = $state(0);
    let opened = $state('');

    const drawn = $derived(arrival.assetId !== null && arrival.kind !== 'sound' && arrival.kind !== 'picture');
    const path = $derived(drawn ? `arrivals/${arrival.id}/preview?beside=${beside ? 1 : 0}&t=${stamp}` : null);
    const facts = $derived(factsOf(arrival.kind, arrival.facts));
    const toMend = $derived(arrival.findings.filter((f) => f.safe && !f.mended));
    const isModel = $derived(arrival.kind === 'performer' || arrival.kind === 'set' || arrival.kind === 'prop');
    const rank = (f: Finding) => order[f.severity] + (f.mended ? 1.5 : 0);
    const order = { harms: 0, look: 1, fyi: 2 } as const;
    const findings = $derived([...arrival.findings].sort((a, b) => rank(a) - rank(b)));
    const MARK = { harms: ['!', 'bg-buoy text-white'], look: ['?', 'bg-line text-ink'], fyi: ['i', 'bg-desk text-soft'] } as const;
    const manual = $derived(
        ['pivot', 'turn', 'grow', 'skeleton'].filter((c) => arrival.choices[c] && !arrival.findings.some((f) => f.code === c)),
    );
    const NAMES: Record<string, string> = {
        pivot: 'the point it is moved by',
        turn: 'the turn',
        grow: 'the height',
        skeleton: 'a skeleton',
    };

    onMount(() => {
        if (!arrival.seen) void call<ArrivalRow>('POST', `arrivals/${arrival.id}/seen`).then((a) => kit.take(a));
    });

    async function mend(body: Record<string, unknown>, what: string) {
        busy = what;
        try {
            kit.take(await call<ArrivalRow>('POST', `arrivals/${arrival.id}/mend`, body));
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
    const undo = (f: Finding) => set(f.code, false, f.code);
    const redo = (f: Finding) => (f.code === 'skeleton' ? (marking = true) : set(f.code, f.repair ?? {}, f.code));
    const fitted = $derived(typeof arrival.choices.skeleton === 'object');
    /** A body without joints can be given some, also one that does not look like a person. */
    const stiff = $derived(isModel && arrival.status !== 'refused' && (arrival.kind !== 'performer' || fitted));

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
            </div>
            {#if isModel}<Button size="sm" onclick={take} data-testid="take">Put into the scene</Button>{/if}
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
                    pick={pivoting
                        ? (point) => {
                              pivoting = false;
                              void set('pivot', { to: 'point', point }, 'pivot');
                          }
                        : null}
                />
            </div>
            {#if isModel}
                <div class="flex flex-wrap items-center gap-2 text-xs">
                    <label class="flex items-center gap-1.5"
                        ><input type="checkbox" class="rounded border-line text-tide" bind:checked={beside} /> a person beside it</label
                    >
                    {#if stiff}<Button size="xs" color="alternative" onclick={() => (marking = true)} data-testid="mark"
                            >{fitted ? 'Its skeleton…' : 'Give it a skeleton…'}</Button
                        >{/if}
                    <span class="ml-auto text-soft">Moved by its</span>
                    <Button size="xs" color="alternative" onclick={() => set('pivot', { to: 'base' }, 'pivot')}>base</Button>
                    <Button size="xs" color="alternative" onclick={() => set('pivot', { to: 'centre' }, 'pivot')}>centre</Button>
                    <Button size="xs" color={pivoting ? 'primary' : 'alternative'} onclick={() => (pivoting = !pivoting)}
                        >{pivoting ? 'click the point…' : 'a point'}</Button
                    >
                    <Button
                        size="xs"
                        color="alternative"
                        onclick={() =>
                            set(
                                'turn',
                                {
                                    about: 'y',
                                    degrees: (Number((arrival.choices.turn as { degrees?: number } | undefined)?.degrees ?? 0) + 90) % 360,
                                },
                                'turn',
                            )}>turn by 90°</Button
                    >
                    <form
                        class="flex items-center gap-1"
                        onsubmit={(e) => {
                            e.preventDefault();
                            const v = Number.parseFloat(height.replace(',', '.')) * (height.trim().endsWith('cm') ? 0.01 : 1);
                            if (Number.isFinite(v) && v > 0) void set('grow', { height: v }, 'grow');
                        }}
                    >
                        <Input
                            size="sm"
                            class="w-20 py-1 text-xs"
                            placeholder="1.75 m"
                            aria-label="Height in metres"
                            bind:value={height}
                            onkeydown={(e: KeyboardEvent) => e.stopPropagation()}
                        />
                        <Button size="xs" color="alternative" type="submit">tall</Button>
                    </form>
                </div>
            {/if}
        {/if}
    </div>
    <div class="flex w-[390px] shrink-0 flex-col gap-4 overflow-auto border-l border-line bg-paper p-4">
        {#if arrival.status === 'known'}
            <p class="rounded border border-tide bg-sheet p-3">The same file was here already. It is not brought in twice.</p>
        {/if}
        {#if findings.length > 0}
            <section>
                <div class="mb-2 flex items-center">
                    <h3 class="flex-1 font-semibold">What was found</h3>
                    {#if toMend.length > 0}
                        <Button size="xs" disabled={busy !== ''} onclick={() => mend({ all: true }, 'all')} data-testid="mend-all"
                            >Mend all {toMend.length > 1 ? toMend.length : ''}</Button
                        >
                    {/if}
                </div>
                <ul class="flex flex-col gap-2">
                    {#each findings as f (f.code + f.text)}
                        <li
                            class={[
                                'rounded border bg-sheet p-2.5',
                                f.mended || f.severity === 'fyi' ? 'border-line' : f.severity === 'harms' ? 'border-buoy' : 'border-line',
                            ]}
                            data-testid={`finding-${f.code}`}
                            data-mended={f.mended}
                        >
                            <div class="flex gap-2">
                                <span
                                    class={[
                                        'grid h-5 w-5 shrink-0 place-items-center rounded-full text-xs font-bold',
                                        f.mended ? 'bg-tide text-white' : MARK[f.severity][1],
                                    ]}
                                    aria-hidden="true">{f.mended ? '✓' : MARK[f.severity][0]}</span
                                >
                                <div class="min-w-0 flex-1">
                                    <p class={['font-medium', f.mended ? 'text-soft' : '']}>{f.text}</p>
                                    <p class="text-xs text-soft">{f.mended ? 'Mended.' : f.effect}</p>
                                    {#if f.names.length > 0}
                                        <p class="mt-0.5 text-xs break-words text-soft">
                                            {f.names.slice(0, 8).join(', ')}{f.names.length > 8 ? ` and ${f.names.length - 8} more` : ''}
                                        </p>
                                    {/if}
                                    {#if f.repair !== null}
                                        <div class="mt-1.5 flex items-center gap-2">
                                            {#if f.mended}
                                                <Button size="xs" color="alternative" disabled={busy !== ''} onclick={() => undo(f)}
                                                    >Undo</Button
                                                >
                                            {:else}
                                                <Button size="xs" disabled={busy !== ''} onclick={() => redo(f)}>{f.label}</Button>
                                            {/if}
                                            {#if isModel}
                                                <button
                                                    class="text-xs text-tide hover:underline"
                                                    aria-expanded={opened === f.code}
                                                    onclick={() => (opened = opened === f.code ? '' : f.code)}>before and after</button
                                                >
                                            {/if}
                                        </div>
                                        {#if opened === f.code}<BeforeAfter arrival={arrival.id} code={f.code} {stamp} />{/if}
                                    {/if}
                                </div>
                            </div>
                        </li>
                    {/each}
                    {#each manual as code (code)}
                        <li class="flex items-center gap-2 rounded border border-line bg-sheet p-2.5">
                            <p class="flex-1">You {code === 'skeleton' ? 'gave it' : 'set'} {NAMES[code]}.</p>
                            <Button size="xs" color="alternative" onclick={() => set(code, null, code)}>Undo</Button>
                        </li>
                    {/each}
                </ul>
            </section>
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
