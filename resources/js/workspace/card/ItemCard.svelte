<script lang="ts">
    import { tell } from '../../lib/api';
    import { getDesk } from '../context';
    import { TAPE, tapeColour, type ItemRow } from '../rows';
    import ClothFields from './ClothFields.svelte';
    import FaceFields from './FaceFields.svelte';
    import GiveFields from './GiveFields.svelte';
    import HoldsList from './HoldsList.svelte';
    import LifeFields from './LifeFields.svelte';
    import NumberField from './NumberField.svelte';
    import RouteFields from './RouteFields.svelte';
    import SurfaceFields from './SurfaceFields.svelte';
    import UnderfootField from './UnderfootField.svelte';

    let { item }: { item: ItemRow } = $props();
    const { scene, playhead, view } = getDesk();

    const doing = $derived.by(() => {
        const now = scene.rows.beats.filter((b) => b.itemId === item.id && b.start <= playhead.frame).sort((a, b) => b.start - a.start)[0];
        const span = now ? scene.manifest?.beats[`b${now.id}`] : null;
        if (!now || !span) return item.kind === 'performer' ? 'stands' : '';
        return `${scene.asset(now.assetId)?.name ?? ''}${playhead.frame >= span.end ? ', holds' : ''}`;
    });
    const carried = $derived(
        scene.rows.links.find((l) => l.childId === item.id && l.from <= playhead.frame && (l.to === null || playhead.frame < l.to)),
    );
    const carries = $derived(
        scene.rows.links.filter((l) => l.parentId === item.id && l.from <= playhead.frame && (l.to === null || playhead.frame < l.to)),
    );

    const versions = $derived(scene.asset(item.assetId)?.version ?? 1);
    const isCloth = $derived(scene.manifest?.items.find((i) => i.id === `i${item.id}`)?.extras.cloth !== undefined);
    const isLayered = $derived(scene.manifest?.items.find((i) => i.id === `i${item.id}`)?.extras.layers === true);
    const wearable = $derived(scene.manifest?.items.find((i) => i.id === `i${item.id}`)?.extras.cloth?.worn !== undefined);
    const people = $derived(scene.rows.items.filter((i) => i.kind === 'performer'));
    let wearer = $state(0);

    // Only what was typed: the other two may be on their way themselves.
    const place = (k: 'x' | 'y' | 'z') => (n: number) => scene.edit({ do: 'item.place', item: item.id, [k]: n });
    async function collect() {
        await tell('POST', `productions/${scene.production.id}/kit/${item.assetId}/keep`, { keep: true });
        scene.notice = {
            kind: 'info',
            message: `${scene.asset(item.assetId)?.name ?? item.name} is in your collection.`,
            remedy: 'The kit room lists it under "my collection", in all of your productions.',
        };
    }
    /** A walk after what there is to do, and the pencil for its way. */
    async function walk() {
        const known = scene.rows.beats.map((b) => b.id);
        if (!(await scene.edit({ do: 'beat.add', item: item.id, motion: 'walk' }))) return;
        const made = scene.rows.beats.find((b) => !known.includes(b.id));
        if (!made) return;
        scene.select('beats', made.id);
        view.pathing = { table: 'beats', id: made.id };
    }
    const named = (id: number) => scene.find('items', id)?.name ?? '';
</script>

<div class="mb-2 flex items-center gap-2">
    <input
        class="min-w-0 flex-1 border-0 border-b border-transparent bg-transparent p-0 text-sm font-semibold hover:border-line focus:border-tide focus:ring-0"
        aria-label="Name"
        value={item.name}
        onchange={(e) => scene.edit({ do: 'item.set', item: item.id, name: e.currentTarget.value })}
        onkeydown={(e) => (e.stopPropagation(), e.key === 'Enter' && e.currentTarget.blur())}
    />
    <button
        class={['rounded border px-1.5 py-0.5 text-xs', item.locked ? 'border-tide bg-desk font-semibold' : 'border-line text-soft']}
        aria-pressed={item.locked}
        disabled={!scene.canEdit}
        title={item.locked ? 'No hand moves it: click to unlock' : 'Keep hands from moving it'}
        data-testid="lock"
        onclick={() => scene.edit({ do: 'item.set', item: item.id, locked: !item.locked })}>{item.locked ? 'locked' : 'lock'}</button
    >
    <span class="h-3 w-3 shrink-0 rounded-sm" style:background={tapeColour(item.tape)}></span>
</div>
<dl class="grid grid-cols-[52px_1fr] items-center gap-x-2 gap-y-1.5">
    {#if doing}<dt class="text-soft">Doing</dt>
        <dd>{doing}</dd>{/if}
    <dt class="col-span-2 -mb-1 grid grid-cols-3 gap-1 text-soft"><span>Place x</span><span>height</span><span>z (m)</span></dt>
    <dd class="col-span-2 grid grid-cols-3 gap-1">
        <NumberField label="Place x (m)" value={item.position[0]} unit="m" digits={3} save={place('x')} />
        <NumberField label="Height (m)" value={item.position[1]} unit="m" digits={3} save={place('y')} />
        <NumberField label="Place z (m)" value={item.position[2]} unit="m" digits={3} save={place('z')} />
    </dd>
    <dt class="text-soft">Facing</dt>
    <dd>
        <NumberField
            label="Facing (deg)"
            value={item.headingDeg}
            unit="deg"
            digits={1}
            save={(n) => scene.edit({ do: 'item.place', item: item.id, headingDeg: n })}
        />
    </dd>
    <dt class="text-soft">Scale</dt>
    <dd>
        <NumberField label="Scale" value={item.scale} digits={3} save={(n) => scene.edit({ do: 'item.place', item: item.id, scale: n })} />
    </dd>
    {#if item.kind === 'performer'}<LifeFields {item} /><FaceFields {item} />{/if}
    {#if item.kind !== 'performer' && scene.mix.happens}<UnderfootField {item} />{/if}
    {#if isLayered}<dt class="text-soft">Bare, full</dt>
        <dd>
            <input
                type="range"
                class="w-full accent-tide"
                min="0"
                max="1"
                step="0.05"
                aria-label="How much of it is there"
                data-testid="fullness"
                disabled={!scene.canEdit}
                value={item.fullness}
                onchange={(e) => scene.edit({ do: 'item.set', item: item.id, fullness: e.currentTarget.valueAsNumber })}
            />
        </dd>{/if}
    {#if versions > 1}<dt class="text-soft">Version</dt>
        <dd>
            <select
                class="w-full rounded border-line bg-sheet py-0.5 text-xs"
                aria-label="Version of its asset"
                data-testid="pin"
                value={String(item.pinned ?? '')}
                onchange={(e) =>
                    scene.edit({ do: 'item.set', item: item.id, version: e.currentTarget.value ? Number(e.currentTarget.value) : null })}
                ><option value="">follows the newest ({versions})</option
                >{#each Array.from({ length: versions }, (_, n) => versions - n) as n (n)}<option value={String(n)}>stays at {n}</option
                    >{/each}</select
            >
        </dd>{/if}
    {#if carried}<dt class="text-soft">Goes with</dt>
        <dd>
            <button class="text-tide hover:underline" onclick={() => scene.select('links', carried.id)}>{named(carried.parentId)}</button>
        </dd>{/if}
    {#if carries.length > 0}<dt class="text-soft">Carries</dt>
        <dd>{carries.map((l) => named(l.childId)).join(', ')}</dd>{/if}
</dl>
{#if item.kind === 'performer' && scene.canEdit}
    <div class="mt-2 grid grid-cols-2 gap-1 border-t border-line pt-2">
        <button class="rounded border border-line px-1.5 py-0.5 hover:bg-desk" data-testid="to-motions" onclick={() => (view.step = 'Act')}
            >Motions…</button
        >
        <button
            class="rounded border border-line px-1.5 py-0.5 hover:bg-desk"
            data-testid="walk-there"
            title="Gives a walk, and draws its way on the plan click by click"
            onclick={walk}>Draw a way</button
        >
    </div>
{/if}
{#if wearable && !carried && scene.canEdit}
    <div class="mt-2 flex items-center gap-2 border-t border-line pt-2">
        <select class="min-w-0 flex-1 rounded border-line bg-sheet py-0.5 text-xs" aria-label="Who wears it" bind:value={wearer}>
            <option value={0}>Worn by nobody</option>
            {#each people as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
        </select>
        <button
            class="rounded border border-line px-1.5 hover:bg-desk disabled:opacity-50"
            data-testid="put-on"
            disabled={wearer === 0}
            onclick={() => scene.edit({ do: 'item.wear', item: wearer, cloth: item.id })}>Put on</button
        >
    </div>
{/if}
{#if item.kind === 'performer' || (item.kind === 'prop' && !wearable)}<GiveFields {item} />{/if}
{#if item.kind === 'performer'}<HoldsList {item} />{:else if item.kind === 'prop' && !carried}<RouteFields {item} />{/if}
{#if isCloth && scene.canEdit}<ClothFields {item} />{/if}
{#if scene.canEdit}<SurfaceFields {item} />{/if}
{#if item.kind !== 'set'}
    <div class="mt-2 flex gap-1" role="group" aria-label="Tape colour">
        {#each TAPE as c, i (c)}
            <button
                class={['h-4 w-4 rounded-sm', item.tape === i && 'ring-2 ring-ink ring-offset-1']}
                style:background={c}
                aria-label={`Tape colour ${i + 1}`}
                aria-pressed={item.tape === i}
                onclick={() => scene.edit({ do: 'item.set', item: item.id, tape: i })}
            ></button>
        {/each}
    </div>
{/if}
{#if scene.canEdit}
    <div class="mt-3 flex flex-wrap gap-x-3 gap-y-1">
        <button class="text-tide hover:underline" onclick={() => scene.edit({ do: 'item.place', item: item.id, land: true })}
            >To the ground</button
        >
        <button class="text-tide hover:underline" title="D" onclick={() => scene.edit({ do: 'item.duplicate', item: item.id })}
            >Duplicate</button
        >
        <button class="text-tide hover:underline" title="Keep it at hand for all of your productions" onclick={collect}>Collect</button>
        <button class="text-alarm hover:underline" title="Del" onclick={() => scene.edit({ do: 'item.remove', item: item.id })}
            >Remove</button
        >
    </div>
{/if}
