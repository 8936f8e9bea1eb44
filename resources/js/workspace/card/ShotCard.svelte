<script lang="ts">
    import { parseFrameChange, timecode } from '../../lib/time';
    import { getDesk } from '../context';
    import type { ShotRow } from '../rows';
    import NumberField from './NumberField.svelte';

    let { shot }: { shot: ShotRow } = $props();
    const { scene } = getDesk();
    const settled = $derived(scene.manifest?.shots.find((s) => s.id === `s${shot.id}`));
    const frame = (t: string, present: number) => parseFrameChange(t, scene.rate, present);
    const order = $derived(scene.manifest?.shots.map((s) => s.id) ?? []);
    const isFirst = $derived(order[0] === `s${shot.id}`);
    const isLast = $derived(order[order.length - 1] === `s${shot.id}`);
</script>

{#snippet over(label: string, value: number, field: 'beginsOver' | 'endsOver')}
    <NumberField
        {label}
        {value}
        digits={0}
        parse={frame}
        save={(n) => scene.edit({ do: 'shot.set', shot: shot.id, [field]: Math.max(1, Math.round(n)) })}
    />
{/snippet}

<p class="mb-2 text-sm font-semibold">Shot <span class="mono">{settled?.label}</span></p>
<dl class="grid grid-cols-[52px_1fr] items-center gap-x-2 gap-y-1.5">
    <dt class="text-soft">Camera</dt>
    <dd>
        <select
            class="w-full rounded border-line bg-sheet py-0.5 text-xs"
            aria-label="Camera of the shot"
            value={shot.cameraId}
            onchange={(e) => scene.edit({ do: 'shot.set', shot: shot.id, camera: Number(e.currentTarget.value) })}
        >
            {#each scene.rows.cameras as c (c.id)}<option value={c.id}>{c.letter} {c.name}</option>{/each}
        </select>
    </dd>
    <dt class="text-soft">In</dt>
    <dd>
        <NumberField
            label="Shot in"
            value={shot.in}
            digits={0}
            parse={frame}
            save={(n) => scene.edit({ do: 'shot.move', shot: shot.id, frame: Math.round(n) })}
        />
    </dd>
    <dt class="text-soft">Begins</dt>
    <dd class="flex items-center gap-1">
        <select
            class="min-w-0 flex-1 rounded border-line bg-sheet py-0.5 text-xs"
            aria-label="How the shot begins"
            data-testid="shot-begins"
            value={shot.begins}
            disabled={!scene.canEdit}
            onchange={(e) => scene.edit({ do: 'shot.set', shot: shot.id, begins: e.currentTarget.value })}
        >
            <option value="cut">with a cut</option>
            {#if !isFirst}<option value="dissolve">with a dissolve</option>{/if}
            <option value="black">{isFirst ? 'out of black' : 'through black'}</option>
            <option value="white">{isFirst ? 'out of white' : 'through white'}</option>
        </select>
    </dd>
    {#if shot.begins !== 'cut'}
        <dt class="text-soft">over</dt>
        <dd>{@render over('Frames over which the shot begins', shot.beginsOver, 'beginsOver')}</dd>
    {/if}
    {#if isLast}
        <dt class="text-soft">Ends</dt>
        <dd>
            <select
                class="w-full rounded border-line bg-sheet py-0.5 text-xs"
                aria-label="How the reel ends"
                data-testid="shot-ends"
                value={shot.ends}
                disabled={!scene.canEdit}
                onchange={(e) => scene.edit({ do: 'shot.set', shot: shot.id, ends: e.currentTarget.value })}
            >
                <option value="cut">at once</option><option value="black">into black</option><option value="white">into white</option>
            </select>
        </dd>
        {#if shot.ends !== 'cut'}
            <dt class="text-soft">over</dt>
            <dd>{@render over('Frames over which the reel ends', shot.endsOver, 'endsOver')}</dd>
        {/if}
    {/if}
    {#if settled}<dt class="text-soft">Length</dt>
        <dd class="mono">{timecode(settled.out - settled.in, scene.rate)}</dd>{/if}
</dl>
<label class="mt-2 flex items-center gap-2" title="A first cut leaves it as it is and cuts around it">
    <input
        type="checkbox"
        class="rounded border-line text-tide"
        data-testid="shot-kept"
        checked={shot.kept}
        disabled={!scene.canEdit}
        onchange={(e) => scene.edit({ do: 'shot.set', shot: shot.id, kept: e.currentTarget.checked })}
    />Keep in a first cut</label
>
{#if scene.canEdit && scene.rows.shots.length > 1}<button
        class="mt-3 text-alarm hover:underline"
        title="Del"
        onclick={() => scene.edit({ do: 'shot.remove', shot: shot.id })}>Remove</button
    >{/if}
