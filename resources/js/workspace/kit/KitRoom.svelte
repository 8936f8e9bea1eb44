<script lang="ts">
    import { getDesk } from '../context';
    import Arrivals from './Arrivals.svelte';
    import Credits from './Credits.svelte';
    import FigureRoom from './FigureRoom.svelte';
    import { filesOf } from './kit.svelte';
    import Shelves from './Shelves.svelte';
    import StoryRoom from './StoryRoom.svelte';

    const { scene, kit } = getDesk();
    let over = $state(false);
    let input = $state<HTMLInputElement>();
    const ROOMS = [
        ['shelves', 'Shelves'],
        ['arrivals', 'Arrivals'],
        ['figure', 'New figure'],
        ['story', 'Parts list'],
        ['credits', 'Credits'],
    ] as const;

    async function drop(e: DragEvent) {
        over = false;
        if (!e.dataTransfer?.types.includes('Files')) return;
        e.preventDefault();
        await kit.bring(await filesOf(e.dataTransfer));
    }
</script>

<div
    class="fixed inset-x-0 top-[41px] bottom-0 z-40 flex flex-col bg-paper"
    role="dialog"
    aria-label="Kit room"
    tabindex="-1"
    data-testid="kit-room"
    onkeydown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape') kit.close();
    }}
    ondragover={(e) => {
        if (e.dataTransfer?.types.includes('Files')) {
            e.preventDefault();
            over = true;
        }
    }}
    ondragleave={(e) => e.target === e.currentTarget && (over = false)}
    ondrop={drop}
>
    <div class="flex items-center gap-1 border-b border-line bg-desk px-3 py-1.5">
        <p class="mr-3 font-semibold">Kit room</p>
        {#each ROOMS as [room, text] (room)}
            <button
                class={['rounded px-3 py-1 font-medium', kit.room === room ? 'bg-tide text-white' : 'hover:bg-sheet']}
                aria-pressed={kit.room === room}
                onclick={() => kit.open(room)}
                >{text}{#if room === 'arrivals' && kit.unseen > 0}<span class="ml-1.5 rounded-full bg-buoy px-1.5 text-xs text-white"
                        >{kit.unseen}</span
                    >{/if}</button
            >
        {/each}
        {#if kit.sending}<p class="ml-3 text-xs text-soft" role="status">{kit.sending}</p>{/if}
        <label class="ml-auto cursor-pointer rounded border border-dashed border-line bg-sheet px-3 py-1 text-xs hover:border-tide">
            Drop files, a folder or a zip anywhere here, or choose
            <input
                bind:this={input}
                type="file"
                multiple
                class="sr-only"
                data-testid="kit-files"
                onchange={async (e) => {
                    await kit.bring([...(e.currentTarget.files ?? [])].map((file) => ({ path: file.name, file })));
                    if (input) input.value = '';
                }}
            />
        </label>
        <button class="ml-2 rounded px-2 py-1 hover:bg-sheet" onclick={() => kit.close()} aria-label="Close the kit room"
            >Back to {scene.name}</button
        >
    </div>
    {#if kit.room === 'shelves'}<Shelves />{:else if kit.room === 'arrivals'}<Arrivals />{:else if kit.room === 'figure'}<FigureRoom
        />{:else if kit.room === 'story'}<StoryRoom />{:else if kit.room === 'credits'}<Credits />{/if}
    {#if over}
        <div
            class="pointer-events-none absolute inset-2 grid place-items-center rounded border-2 border-dashed border-tide bg-paper/80 text-lg font-semibold text-tide"
        >
            Let go: each file gets a slip
        </div>
    {/if}
</div>
