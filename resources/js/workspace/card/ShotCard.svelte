<script lang="ts">
    import { parseFrameChange, timecode } from '../../lib/time';
    import { getDesk } from '../context';
    import type { ShotRow } from '../rows';
    import NumberField from './NumberField.svelte';

    let { shot }: { shot: ShotRow } = $props();
    const { scene } = getDesk();
    const settled = $derived(scene.manifest?.shots.find((s) => s.id === `s${shot.id}`));
    const frame = (t: string, present: number) => parseFrameChange(t, scene.rate, present);
</script>

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
    {#if settled}<dt class="text-soft">Length</dt>
        <dd class="mono">{timecode(settled.out - settled.in, scene.rate)}</dd>{/if}
</dl>
{#if scene.canEdit && scene.rows.shots.length > 1}<button
        class="mt-3 text-alarm hover:underline"
        title="Del"
        onclick={() => scene.edit({ do: 'shot.remove', shot: shot.id })}>Remove</button
    >{/if}
