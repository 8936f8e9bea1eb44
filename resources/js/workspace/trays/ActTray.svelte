<script lang="ts">
    import { Button, Input } from 'flowbite-svelte';
    import { getDesk } from '../context';
    import type { AssetRow } from '../rows';
    import DialoguePage from '../speech/DialoguePage.svelte';
    import SoundShelf from '../speech/SoundShelf.svelte';
    import AssetTile from './AssetTile.svelte';

    const { scene, playhead, view } = getDesk();
    let search = $state('');
    const TABS = [
        ['motions', 'Motions'],
        ['lines', 'Lines'],
        ['sounds', 'Sounds'],
    ] as const;
    const counts = $derived({ motions: 0, lines: scene.rows.lines.length, sounds: scene.rows.sounds.length });

    const who = $derived.by(() => {
        const s = scene.selection;
        const id = s?.table === 'items' ? s.id : s?.table === 'beats' ? scene.find('beats', s.id)?.itemId : null;
        const item = id ? scene.find('items', id) : null;
        return item?.kind === 'performer' ? item : null;
    });
    const thing = $derived.by(() => {
        const s = scene.selection;
        const item = s?.table === 'items' ? scene.find('items', s.id) : null;
        return item && item.kind !== 'performer' ? item : null;
    });
    const people = $derived(scene.rows.items.filter((i) => i.kind === 'performer'));
    const motions = $derived(
        scene.assets.filter(
            (a) =>
                a.kind === 'motion' &&
                search
                    .toLowerCase()
                    .split(/\s+/)
                    .every((w) => `${a.name} ${a.tags.join(' ')}`.toLowerCase().includes(w)),
        ),
    );
    let carrier = $state<number | null>(null);
    let hand = $state('handR');
    let keep = $state<'grip' | 'place'>('grip');

    async function use(a: AssetRow) {
        if (!who) {
            scene.notice = {
                kind: 'info',
                message: 'For whom?',
                remedy: 'Select a performer first: in the picture, on the plan or on a lane.',
            };
            return;
        }
        await scene.edit({ do: 'beat.add', item: who.id, motion: a.id, partner: 'near' });
    }

    async function carry() {
        const parent = carrier ?? people[0]?.id;
        if (!thing || !parent) return;
        await scene.edit({ do: 'link.add', child: thing.id, parent, mount: hand, from: playhead.frame, keep });
    }
</script>

<div class="flex h-full flex-col">
    <div class="flex border-b border-line text-xs" role="tablist" aria-label="What they do">
        {#each TABS as [tab, word] (tab)}
            <button
                class={['flex-1 px-1 py-1.5', view.acting === tab ? 'border-b-2 border-tide font-semibold' : 'text-soft hover:text-ink']}
                role="tab"
                aria-selected={view.acting === tab}
                data-testid={`act-${tab}`}
                onclick={() => (view.acting = tab)}
                >{word}{#if counts[tab] > 0}<span class="mono ml-1 text-soft">{counts[tab]}</span>{/if}</button
            >
        {/each}
    </div>
    {#if view.acting === 'lines'}
        <div class="min-h-0 flex-1"><DialoguePage /></div>
    {:else if view.acting === 'sounds'}
        <div class="min-h-0 flex-1"><SoundShelf /></div>
    {:else}
        {#if thing}
            <div class="flex flex-col gap-2 border-b border-line p-2">
                <p class="font-semibold">{thing.name} goes with</p>
                {#if people.length === 0}
                    <p class="text-soft">There is nobody in the scene to carry it.</p>
                {:else}
                    <select
                        class="rounded border-line bg-sheet py-1 text-sm"
                        aria-label="Carrier"
                        value={carrier ?? people[0]?.id}
                        onchange={(e) => (carrier = Number(e.currentTarget.value))}
                    >
                        {#each people as p (p.id)}<option value={p.id}>{p.name}</option>{/each}
                    </select>
                    <select class="rounded border-line bg-sheet py-1 text-sm" aria-label="Where" bind:value={hand}>
                        <option value="handR">right hand</option>
                        <option value="handL">left hand</option>
                        <option value="head">head</option>
                        <option value="">the whole figure</option>
                    </select>
                    <select class="rounded border-line bg-sheet py-1 text-sm" aria-label="How" bind:value={keep}>
                        <option value="grip">in the grip, fingers closed</option>
                        <option value="place">as it lies now</option>
                    </select>
                    <Button size="xs" onclick={carry} data-testid="carry">Carry from here on</Button>
                {/if}
            </div>
        {/if}
        <div class="border-b border-line p-2">
            <Input
                size="sm"
                placeholder="Search motions"
                aria-label="Search motions"
                bind:value={search}
                onkeydown={(e: KeyboardEvent) => e.stopPropagation()}
            />
            <p class="mt-1 text-xs text-soft">
                {#if who}A click puts a motion after {who.name}'s last beat; drag one on to a lane to place it.{:else}Select a performer,
                    then choose a motion.{/if}
            </p>
        </div>
        <div class="grid min-h-0 flex-1 auto-rows-min grid-cols-2 gap-2 overflow-auto p-2">
            {#each motions as a (a.id)}
                <AssetTile asset={a} hint={who ? `Put it on ${who.name}'s lane` : 'Select a performer first'} pick={() => use(a)} />
            {/each}
        </div>
    {/if}
</div>
