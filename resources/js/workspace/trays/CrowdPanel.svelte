<script lang="ts">
    import { Button } from 'flowbite-svelte';
    import NumberField from '../card/NumberField.svelte';
    import { getDesk } from '../context';

    const { scene, view } = getDesk();
    const MOTIONS = ['idle', 'talk', 'wave', 'walk'];
    let count = $state(8);
    let spacing = $state(0.8);
    let wide = $state(5);
    let deep = $state(3);
    let seed = $state(1);
    let way = $state<'stand' | 'walk'>('stand');
    let left = $state<string[]>([]);
    let doing = $state<string[]>(['idle', 'talk']);

    const people = $derived(scene.assets.filter((a) => a.kind === 'performer'));
    const motions = $derived(MOTIONS.map((slug) => scene.assets.find((a) => a.slug === slug)).filter((a) => a !== undefined));
    const chosen = $derived(people.filter((p) => !left.includes(p.slug)));

    const turned = (list: string[], value: string) => (list.includes(value) ? list.filter((v) => v !== value) : [...list, value]);

    /** Around the middle of the view, turned as the camera sees it: across is to its right, deep is away from it. */
    function corner(across: number, away: number): [number, number] {
        const [at, eye] = [view.target, view.free.position];
        const [dx, dz] = [at.x - eye.x, at.z - eye.z];
        const l = Math.hypot(dx, dz) || 1;
        return [at.x + (across * -dz + away * dx) / l, at.z + (across * dx + away * dz) / l];
    }

    async function add() {
        const eye = view.free.position;
        const where =
            way === 'walk'
                ? { route: [corner(-wide / 2, 0), corner(wide / 2, 0)], width: deep / 2, motions: ['walk'] }
                : {
                      area: [
                          corner(-wide / 2, -deep / 2),
                          corner(wide / 2, -deep / 2),
                          corner(wide / 2, deep / 2),
                          corner(-wide / 2, deep / 2),
                      ],
                      facing: [eye.x, eye.z],
                      motions: doing,
                  };
        const before = scene.rows.items.length;
        const done = await scene.edit({ do: 'crowd.add', assets: chosen.map((p) => p.slug), count, spacing, seed, ...where });
        if (!done) return;
        const made = scene.rows.items.length - before;
        scene.notice = {
            kind: 'info',
            message: made < count ? `${made} of ${count} found room.` : `${made} people are on the floor.`,
            remedy: made < count ? 'Give more width or less spacing.' : '',
        };
        seed++;
    }
</script>

<details class="mt-2 border-t border-line pt-2">
    <summary class="cursor-pointer text-xs font-semibold text-soft">Crowd</summary>
    <div class="mt-1 flex gap-1">
        {#each [['stand', 'Stands around'], ['walk', 'Walks across']] as [value, text] (value)}
            <button
                class={[
                    'flex-1 rounded border px-1 py-0.5 text-xs',
                    way === value ? 'border-tide bg-tide text-white' : 'border-line bg-sheet',
                ]}
                aria-pressed={way === value}
                onclick={() => (way = value === 'walk' ? 'walk' : 'stand')}>{text}</button
            >
        {/each}
    </div>
    <div class="mt-1 grid grid-cols-2 gap-1 text-xs">
        <label>People<NumberField label="People in the crowd" value={count} digits={0} save={async (n) => void (count = n)} /></label>
        <label>Apart<NumberField label="Distance apart (m)" value={spacing} unit="m" save={async (n) => void (spacing = n)} /></label>
        <label
            >Across<NumberField
                label="Width of the crowd (m)"
                value={wide}
                unit="m"
                digits={1}
                save={async (n) => void (wide = n)}
            /></label
        >
        <label
            >Deep<NumberField label="Depth of the crowd (m)" value={deep} unit="m" digits={1} save={async (n) => void (deep = n)} /></label
        >
    </div>
    <div class="mt-1 max-h-24 overflow-auto text-xs">
        {#each people as p (p.slug)}
            <label class="flex items-center gap-1"
                ><input
                    type="checkbox"
                    class="h-3 w-3 rounded-sm border-line text-tide"
                    checked={!left.includes(p.slug)}
                    onchange={() => (left = turned(left, p.slug))}
                />{p.name}</label
            >
        {/each}
        {#if way === 'stand'}
            <div class="mt-1 flex flex-wrap gap-2">
                {#each motions as m (m.slug)}
                    <label class="flex items-center gap-1"
                        ><input
                            type="checkbox"
                            class="h-3 w-3 rounded-sm border-line text-tide"
                            checked={doing.includes(m.slug)}
                            onchange={() => (doing = turned(doing, m.slug))}
                        />{m.name}</label
                    >
                {/each}
            </div>
        {/if}
    </div>
    <Button
        size="xs"
        class="mt-2 w-full"
        data-testid="add-crowd"
        disabled={chosen.length === 0 || (way === 'stand' && doing.length === 0)}
        onclick={add}>Place in the view</Button
    >
</details>
