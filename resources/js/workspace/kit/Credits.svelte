<script lang="ts">
    import { Button } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import { call } from '../../lib/api';
    import { getDesk } from '../context';
    import { Credits, type Credit } from './answers';

    const { scene } = getDesk();
    let credits = $state<Credit[]>([]);
    let read = $state(false);
    let copied = $state(false);
    onMount(async () => {
        credits = (await call(Credits, 'GET', `productions/${scene.production.id}/credits`)).credits;
        read = true;
    });
    const text = $derived(credits.map((c) => `${c.credit} (${c.licence})\n${c.names.join(', ')}`).join('\n\n'));

    async function copy() {
        await navigator.clipboard.writeText(text);
        copied = true;
    }
</script>

<div class="mx-auto w-full max-w-2xl flex-1 overflow-auto p-8" data-testid="credits">
    <div class="mb-4 flex items-center">
        <h2 class="flex-1 text-lg font-semibold">Credits of {scene.production.name}</h2>
        <Button size="xs" color="alternative" onclick={copy}>{copied ? 'Copied' : 'Copy for the end titles'}</Button>
    </div>
    <p class="mb-6 text-soft">Everything that the scenes of this production use, by who made it and under which licence.</p>
    {#each credits as c (c.credit + c.licence)}
        <section class="mb-5">
            <h3 class="font-semibold">
                {c.credit}
                <span class={['font-normal', c.licence === 'unknown' ? 'text-buoy' : 'text-soft']}
                    >({c.licence === 'unknown' ? 'licence not known: set it on the shelf' : c.licence})</span
                >
            </h3>
            <p>{c.names.join(', ')}</p>
        </section>
    {:else}<p class="text-soft">{read ? 'No scene uses anything yet.' : '…'}</p>{/each}
</div>
