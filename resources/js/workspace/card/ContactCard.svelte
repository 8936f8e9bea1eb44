<script lang="ts">
    import { getDesk } from '../context';
    import type { ContactRow, Vec3 } from '../rows';
    import NumberField from './NumberField.svelte';
    import SpanFields from './SpanFields.svelte';
    import { effectorName } from './parts';

    let { contact }: { contact: ContactRow } = $props();
    const { scene, view } = getDesk();
    const who = $derived(scene.find('items', contact.itemId));
    const target = $derived(contact.targetId ? scene.find('items', contact.targetId) : null);
    const mounts = $derived(scene.manifest?.items.find((i) => i.id === `i${contact.targetId}`)?.mounts ?? []);
    const set = (values: Record<string, unknown>) => scene.edit({ do: 'contact.set', contact: contact.id, ...values });
    const field = 'w-full rounded border-line bg-sheet py-0.5 text-xs';
    const shift = (k: 0 | 1 | 2) => (n: number) => {
        const offset = [...contact.offset] as Vec3;
        offset[k] = n;
        return set({ offset });
    };
</script>

<p class="mb-2 text-sm font-semibold">
    {who?.name}, {effectorName(contact.effector)}
    <span class="font-normal text-soft">on {target?.name ?? 'a point'}</span>
</p>
<dl class="grid grid-cols-[52px_1fr] items-center gap-x-2 gap-y-1.5">
    <SpanFields span={contact} {set} />
    {#if target}
        <dt class="text-soft">Where</dt>
        <dd>
            <select class={field} aria-label="Where" value={contact.mount} onchange={(e) => set({ mount: e.currentTarget.value })}>
                <option value="">the whole</option>
                {#each mounts as m (m)}<option>{m}</option>{/each}
                {#if target.kind === 'performer'}<option value="handR">right hand</option><option value="handL">left hand</option><option
                        value="upperChest">chest</option
                    ><option value="head">head</option>{/if}
            </select>
        </dd>
    {/if}
    <dt class="text-soft">{target ? 'Off by' : 'Place'}</dt>
    <dd class="grid grid-cols-3 gap-1">
        <NumberField label="x (m)" value={contact.offset[0]} unit="m" save={shift(0)} />
        <NumberField label="y (m)" value={contact.offset[1]} unit="m" save={shift(1)} />
        <NumberField label="z (m)" value={contact.offset[2]} unit="m" save={shift(2)} />
    </dd>
    {#if scene.canEdit}
        <dt></dt>
        <dd>
            <button
                class="text-tide hover:underline"
                data-testid="aim-again"
                onclick={() =>
                    (view.aiming = {
                        what: `the ${effectorName(contact.effector)} of ${who?.name ?? ''}`,
                        take: ({ item, offset }) => (item === contact.itemId ? null : set({ target: item, mount: '', offset })),
                    })}>Click another place in the picture</button
            >
        </dd>
    {/if}
    {#if contact.effector !== 'look'}
        <dt class="text-soft">Turns</dt>
        <dd>
            <select class={field} aria-label="Turns" value={contact.turn} onchange={(e) => set({ turn: e.currentTarget.value })}
                ><option value="follow">with the limb</option><option value="keep">as in the motion</option><option value="match"
                    >as what it holds</option
                ></select
            >
        </dd>
    {/if}
</dl>
{#if scene.canEdit}<button
        class="mt-3 text-alarm hover:underline"
        title="Del"
        onclick={() => scene.edit({ do: 'contact.remove', contact: contact.id })}>Let go</button
    >{/if}
