<script lang="ts">
    import { getDesk } from '../context';
    import { framingsOf } from '../cover/setups';
    import type { CameraRowData } from '../rows';
    import FramingFields from './FramingFields.svelte';
    import HandHeldFields from './HandHeldFields.svelte';
    import NumberField from './NumberField.svelte';
    import WallFields from './WallFields.svelte';

    let { camera }: { camera: CameraRowData } = $props();
    const { scene, playhead } = getDesk();
    const framings = $derived(framingsOf(scene.rows.framings, camera.id));
    const key = $derived([...camera.keys].reverse().find((k) => k.frame <= playhead.frame) ?? camera.keys[0]);
    const set = (values: Record<string, unknown>) => scene.edit({ do: 'camera.set', camera: camera.id, ...values });
    const height = (n: number) => {
        if (!key) return undefined;
        const position = [key.position[0], n, key.position[2]];
        return scene.edit({ do: 'camera.key', camera: camera.id, ...key, position });
    };
</script>

<div class="mb-2 flex items-center gap-2">
    <span class="grid h-5 w-5 place-items-center rounded-full border border-tide text-[11px] font-bold text-tide">{camera.letter}</span>
    <input
        class="min-w-0 flex-1 border-0 border-b border-transparent bg-transparent p-0 text-sm font-semibold hover:border-line focus:border-tide focus:ring-0"
        aria-label="Camera name"
        placeholder={`Camera ${camera.letter}`}
        value={camera.name}
        onchange={(e) => set({ name: e.currentTarget.value })}
        onkeydown={(e) => (e.stopPropagation(), e.key === 'Enter' && e.currentTarget.blur())}
    />
    <button
        class={['rounded border px-1.5 py-0.5 text-xs', camera.locked ? 'border-tide bg-desk font-semibold' : 'border-line text-soft']}
        aria-pressed={camera.locked}
        data-testid="lock-camera"
        title={camera.locked ? 'Nothing of it changes: click to unlock' : 'Keep it as it is'}
        onclick={() => set({ locked: !camera.locked })}>{camera.locked ? 'locked' : 'lock'}</button
    >
</div>
{#if framings.length > 0}
    <FramingFields {camera} {framings} />
{:else if key}
    <dl class="grid grid-cols-[60px_1fr] items-center gap-x-2 gap-y-1.5">
        <dt class="text-soft">Lens (mm)</dt>
        <dd><NumberField label="Focal length (mm)" value={key.focalMm} unit="mm" digits={1} save={(n) => set({ focalMm: n })} /></dd>
        <dt class="text-soft">Aperture</dt>
        <dd><NumberField label="Aperture" value={key.fStop} digits={1} save={(n) => set({ fStop: n })} /></dd>
        <dt class="text-soft">Focus</dt>
        <dd class="flex items-center gap-1">
            {#if key.focusMetres === null}
                <span class="flex-1">follows</span><button class="text-tide hover:underline" onclick={() => set({ focusMetres: 4 })}
                    >hold</button
                >
            {:else}
                <NumberField label="Focus (m)" value={key.focusMetres} unit="m" save={(n) => set({ focusMetres: n })} /><button
                    class="text-tide hover:underline"
                    onclick={() => set({ focusMetres: null })}>follow</button
                >
            {/if}
        </dd>
        <dt class="text-soft">Height</dt>
        <dd><NumberField label="Camera height (m)" value={key.position[1]} unit="m" save={height} /></dd>
        <dt class="text-soft">Sensor</dt>
        <dd class="mono">{camera.sensorWidthMm} x {camera.sensorHeightMm}</dd>
        <dt class="text-soft">Keys</dt>
        <dd class="mono">{camera.keys.map((k) => k.frame).join(', ')}</dd>
    </dl>
{/if}
<WallFields {camera} />
<HandHeldFields {camera} />
{#if scene.canEdit}<button
        class="mt-3 text-alarm hover:underline"
        title="Del"
        onclick={() => scene.edit({ do: 'camera.remove', camera: camera.id })}>Remove</button
    >{/if}
