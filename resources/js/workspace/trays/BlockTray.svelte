<script lang="ts">
    import { Button, Input } from 'flowbite-svelte';
    import { Vector3 } from 'three';
    import { getDesk } from '../context';
    import NumberField from '../card/NumberField.svelte';
    import { tapeColour, type ItemRow } from '../rows';
    import CrowdPanel from './CrowdPanel.svelte';

    const { scene, playhead, view } = getDesk();
    let search = $state('');
    const groups = [
        ['performer', 'People'],
        ['prop', 'Props'],
        ['set', 'Sets'],
    ] as const;

    const moods = [
        ['dusk', 'Dusk'],
        ['night', 'Night'],
        ['fog', 'Fog'],
        ['neutral', 'Studio'],
    ] as const;

    function find(item: ItemRow) {
        scene.select('items', item.id);
        const b = scene.manifest?.items.find((i) => i.id === `i${item.id}`)?.bounds;
        const at = view.painter?.stage.footing(`i${item.id}`) ?? new Vector3(...item.position);
        at.y += b ? (b[0][1] + b[1][1]) / 2 : 0.8;
        if (view.source.kind !== 'free') view.leave(view.at(scene.posesAt(playhead.frame), playhead.frame).view);
        view.centre(at, b ? Math.min(4, Math.max(0.6, (b[1][1] - b[0][1]) / 1.6)) : 1);
    }
</script>

<div class="flex h-full flex-col">
    <div class="border-b border-line p-2">
        <Input
            size="sm"
            placeholder="Find on the floor"
            aria-label="Find on the floor"
            bind:value={search}
            onkeydown={(e: KeyboardEvent) => e.stopPropagation()}
        />
    </div>
    <div class="min-h-24 flex-1 overflow-auto p-2">
        {#each groups as [kind, title] (kind)}
            {@const list = scene.rows.items.filter((i) => i.kind === kind && i.name.toLowerCase().includes(search.toLowerCase()))}
            {#if list.length > 0}
                <h3 class="mt-1 mb-1 text-xs font-semibold text-soft">{title}</h3>
                <ul class="mb-2 flex flex-col gap-0.5">
                    {#each list as item (item.id)}
                        <li
                            class={[
                                'flex items-center gap-2 rounded border px-2 py-1',
                                scene.isSelected('items', item.id) ? 'border-tide bg-sheet' : 'border-transparent hover:bg-sheet',
                            ]}
                        >
                            <span class="h-3 w-3 shrink-0 rounded-sm" style:background={kind === 'set' ? '#c9bc9f' : tapeColour(item.tape)}
                            ></span>
                            <button
                                class="min-w-0 flex-1 truncate text-left"
                                data-testid={`floor-${item.name}`}
                                onclick={() => scene.select('items', item.id)}
                                ondblclick={() => find(item)}>{item.name}</button
                            >
                            <button class="text-xs text-tide hover:underline" title="Bring it into view (C)" onclick={() => find(item)}
                                >show</button
                            >
                        </li>
                    {/each}
                </ul>
            {/if}
        {/each}
        {#if scene.rows.items.length === 0}<p class="text-soft">
                Nobody is on the floor yet. Take a set and people from <strong>Cast</strong>.
            </p>{/if}
    </div>
    <div class="max-h-[62%] overflow-auto border-t border-line p-2">
        <h3 class="mb-1 text-xs font-semibold text-soft">Light mood</h3>
        <div class="grid grid-cols-4 gap-1">
            {#each moods as [mood, text] (mood)}
                <Button
                    size="xs"
                    class="px-1"
                    color={scene.mood === mood ? 'primary' : 'alternative'}
                    aria-pressed={scene.mood === mood}
                    onclick={() => scene.edit({ do: 'scene.set', mood })}>{text}</Button
                >
            {/each}
        </div>
        <h3 class="mt-2 mb-1 text-xs font-semibold text-soft">Wind</h3>
        <div class="grid grid-cols-3 gap-1 text-xs">
            <label
                >Speed, m/s<NumberField
                    label="Wind speed (m/s)"
                    value={scene.wind.speed}
                    digits={1}
                    save={(speed) => scene.edit({ do: 'scene.set', wind: { speed } })}
                /></label
            >
            <label
                >Blows to<NumberField
                    label="Wind blows to (deg)"
                    value={scene.wind.towardsDeg}
                    unit="deg"
                    digits={0}
                    save={(towardsDeg) => scene.edit({ do: 'scene.set', wind: { towardsDeg } })}
                /></label
            >
            <label
                >Gusts<NumberField
                    label="Gusts (0 to 1)"
                    value={scene.wind.gusts}
                    digits={2}
                    save={(gusts) => scene.edit({ do: 'scene.set', wind: { gusts } })}
                /></label
            >
        </div>
        {#if scene.canEdit}<CrowdPanel />{/if}
    </div>
</div>
