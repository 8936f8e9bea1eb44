<script lang="ts">
    import { onMount } from 'svelte';
    import { call } from '../../lib/api';
    import { Preview } from '../answers';
    import { Turntable } from './turntable';

    let { arrival, code, stamp }: { arrival: number; code: string; stamp: number } = $props();
    let pictures = $state<string[]>([]);
    let failed = $state(false);

    onMount(() => {
        const canvas = document.createElement('canvas');
        const table = new Turntable(canvas);
        table.turning = table.playing = false;
        table.angle = 28;
        table.resize(320, 240);
        const stop = new AbortController();
        void (async () => {
            try {
                for (const as of ['before', 'after']) {
                    const got = await call(
                        Preview,
                        'GET',
                        `arrivals/${arrival}/preview?code=${code}&as=${as}&t=${stamp}`,
                        undefined,
                        stop.signal,
                    );
                    await table.show(got.manifest);
                    // A motion is looked at where it ends: what does not go along is left behind.
                    table.frame = got.manifest.frames - 1;
                    table.paint(performance.now());
                    pictures = [...pictures, table.still()];
                }
            } catch {
                failed = true;
            } finally {
                table.dispose();
            }
        })();
        return () => stop.abort();
    });
</script>

<div class="mt-2 grid grid-cols-2 gap-2" data-testid="before-after">
    {#each ['before', 'after'] as as, n (as)}
        <figure class="m-0">
            {#if pictures[n]}<img src={pictures[n]} alt={`${as} the repair`} class="w-full rounded" />{:else}
                <div class="grid aspect-[4/3] place-items-center rounded bg-surround text-xs text-white">
                    {failed ? 'cannot be drawn' : '…'}
                </div>
            {/if}
            <figcaption class="text-xs text-soft">{as}</figcaption>
        </figure>
    {/each}
</div>
