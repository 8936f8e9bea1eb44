<script lang="ts">
    import { getDesk } from '../context';
    import { HANDS, handsOf } from '../cover/setups';
    import type { CameraRowData } from '../rows';
    import SliderRow from './SliderRow.svelte';

    /** How a camera trembles in somebody's hands. */
    let { camera }: { camera: CameraRowData } = $props();
    const { scene } = getDesk();
    const shake = $derived(camera.shake);
    const set = (values: Record<string, number> | null) => scene.edit({ do: 'camera.set', camera: camera.id, shake: values });
    const SLIDERS = [
        ['degrees', 'Turns', 0, 5, 'Degrees that it turns at most'],
        ['hertz', 'Pace', 0.1, 6, 'How often a second'],
        ['metres', 'Sways', 0, 0.12, 'Metres that it moves at most'],
    ] as const;
</script>

<dl class="mt-2 grid grid-cols-[60px_1fr_36px] items-center gap-x-2 gap-y-1 border-t border-line pt-2">
    <dt class="text-soft">In hand</dt>
    <dd class="col-span-2">
        <select
            class="w-full rounded border-line bg-sheet py-0.5 text-xs"
            aria-label="In hand"
            value={handsOf(shake)}
            onchange={(e) => set(HANDS.find((h) => h.name === e.currentTarget.value)?.shake ?? null)}
        >
            {#each HANDS as h (h.name)}<option value={h.name}>{h.name}</option>{/each}
            {#if handsOf(shake) === 'As set'}<option value="As set">As set</option>{/if}
        </select>
    </dd>
    {#if shake}
        {#each SLIDERS as [name, word, least, most, help] (name)}
            <SliderRow
                {word}
                {help}
                {least}
                {most}
                step={(most - least) / 50}
                value={shake[name] ?? 0}
                save={(n) => set({ ...shake, [name]: n })}
            />
        {/each}
    {/if}
</dl>
