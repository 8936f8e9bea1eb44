<script lang="ts">
    import { getDesk } from '../context';
    import type { ItemRow } from '../rows';
    import { EFFECTORS, effectorName, JOINTS, jointName } from './parts';

    let { item }: { item: ItemRow } = $props();
    const { scene, playhead, view } = getDesk();
    const contacts = $derived(scene.rows.contacts.filter((c) => c.itemId === item.id).sort((a, b) => a.from - b.from));
    const touchUps = $derived(scene.rows.touch_ups.filter((t) => t.itemId === item.id).sort((a, b) => a.from - b.from));
    const others = $derived(scene.rows.items.filter((i) => i.id !== item.id));
    const field = 'w-full rounded border-line bg-sheet py-0.5 text-xs';
    let effector = $state('handR');
    let target = $state(0);
    let joint = $state('head');

    async function hold() {
        const on = others.find((o) => o.id === target) ?? others[0];
        if (!on) return;
        const from = Math.round(playhead.frame);
        const known = new Set(scene.rows.contacts.map((c) => c.id));
        const done = await scene.edit({
            do: 'contact.add',
            item: item.id,
            effector,
            target: on.id,
            mount: likely(on),
            from,
            to: from + 48,
        });
        if (done) select('contacts', known);
    }

    /** The place is clicked in the picture: on a thing it goes with the thing; on a performer it is where one would take hold. */
    function aim() {
        const part = effector;
        view.aiming = {
            what: `the ${effectorName(part)} of ${item.name}`,
            take: async ({ item: hit, offset }) => {
                const on = others.find((o) => o.id === hit);
                const from = Math.round(playhead.frame);
                const known = new Set(scene.rows.contacts.map((c) => c.id));
                const where = !on ? { offset } : on.kind === 'performer' ? { target: on.id, mount: likely(on) } : { target: on.id, offset };
                if (hit === item.id) return;
                if (await scene.edit({ do: 'contact.add', item: item.id, effector: part, from, to: from + 48, ...where }))
                    select('contacts', known);
            },
        };
    }

    /** Where one would take hold: a hand, a face for a look, the first named place of a thing. */
    function likely(on: ItemRow): string {
        if (on.kind === 'performer') return effector === 'look' ? 'head' : effector.startsWith('hand') ? 'handR' : 'upperChest';
        return scene.manifest?.items.find((i) => i.id === `i${on.id}`)?.mounts[0] ?? '';
    }

    async function touchUp() {
        const known = new Set(scene.rows.touch_ups.map((t) => t.id));
        const done = await scene.edit({ do: 'touchUp.key', item: item.id, joint, frame: Math.round(playhead.frame), turnDeg: [0, 0, 0] });
        if (done) select('touch_ups', known);
    }

    function select(table: 'contacts' | 'touch_ups', known: Set<number>) {
        const made = scene.rows[table].find((r) => !known.has(r.id));
        if (made) scene.select(table, made.id);
    }
</script>

<details class="mt-2 border-t border-line pt-2">
    <summary class="cursor-pointer font-semibold"
        >Touches and touch-ups <span class="font-normal text-soft">{contacts.length + touchUps.length || ''}</span></summary
    >
    {#each contacts as c (c.id)}
        <button class="mt-1 block w-full truncate text-left text-tide hover:underline" onclick={() => scene.select('contacts', c.id)}
            >{c.from} {effectorName(c.effector)} on {c.targetId ? scene.find('items', c.targetId)?.name : 'a point'}</button
        >
    {/each}
    {#each touchUps as t (t.id)}
        <button class="mt-1 block w-full truncate text-left text-tide hover:underline" onclick={() => scene.select('touch_ups', t.id)}
            >{t.from} touch-up, {jointName(t.joint)}</button
        >
    {/each}
    {#if scene.canEdit}
        <div class="mt-2 grid grid-cols-[1fr_auto] gap-1">
            <select class={field} aria-label="Part that touches" bind:value={effector}>
                {#each Object.entries(EFFECTORS) as [value, label] (value)}<option {value}>{label}</option>{/each}
            </select>
            <span class="self-center text-soft">on</span>
            <select class={field} aria-label="What it touches" bind:value={target}>
                {#each others as o (o.id)}<option value={o.id}>{o.name}</option>{/each}
            </select>
            <button
                class="rounded border border-line px-1.5 hover:bg-desk"
                data-testid="add-contact"
                title="Keeps that part on it, bending the body as far as it must"
                onclick={hold}>Touch</button
            >
            <button
                class="col-span-2 rounded border border-line px-1.5 hover:bg-desk"
                data-testid="aim-contact"
                title="The place is then clicked in the picture"
                aria-pressed={view.aiming !== null}
                onclick={aim}>Touch a place in the picture</button
            >
            <select class={field} aria-label="Joint to touch up" bind:value={joint}>
                {#each Object.entries(JOINTS) as [value, label] (value)}<option {value}>{label}</option>{/each}
            </select>
            <button class="rounded border border-line px-1.5 hover:bg-desk" data-testid="add-touch-up" onclick={touchUp}>Touch up</button>
        </div>
    {/if}
</details>
