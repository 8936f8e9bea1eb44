<script lang="ts">
    import { Button, Modal } from 'flowbite-svelte';
    import { ApiError, call } from '../../lib/api';
    import { short } from '../../lib/time';
    import { getDesk } from '../context';
    import { ShotLines, sizeWords, type ShotLine } from './setups';

    /** The reel as a list, to read, to print, or for a spreadsheet. */
    let { open = $bindable() }: { open: boolean } = $props();
    const { scene, playhead } = getDesk();
    let lines = $state.raw<ShotLine[]>([]);
    let failed = $state('');

    $effect(() => {
        if (open) void load(scene.manifest?.state);
    });

    async function load(_state: string | undefined) {
        try {
            lines = (await call(ShotLines, 'GET', `scenes/${scene.id}/shots`)).shots;
            failed = '';
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            failed = e.message;
        }
    }
    const total = $derived(lines.reduce((sum, l) => sum + l.seconds, 0));
</script>

<Modal bind:open title={`Shots of ${scene.name}`} size="xl" class="print-sheet max-w-4xl">
    {#if failed}<p class="text-alarm" role="alert">{failed}</p>{/if}
    <table class="w-full text-xs" data-testid="shot-list">
        <thead class="border-b border-line text-left text-soft">
            <tr
                ><th class="py-1 pr-2">Shot</th><th class="pr-2">Camera</th><th class="pr-2">Size</th><th class="pr-2">Lens</th><th
                    class="pr-2">In</th
                ><th class="pr-2">Seconds</th><th>What is done</th></tr
            >
        </thead>
        <tbody>
            {#each lines as l, n (n)}
                <tr class="border-b border-line/60 align-top">
                    <td class="mono py-1 pr-2"
                        ><button class="text-tide hover:underline" onclick={() => ((open = false), playhead.go(l.in))}>{l.label}</button
                        ></td
                    >
                    <td class="pr-2"><strong>{l.camera}</strong> {l.name}</td>
                    <td class="pr-2">{l.size ? sizeWords(l.size) : ''}</td>
                    <td class="mono pr-2">{short(l.focalMm, 0)} mm</td>
                    <td class="mono pr-2">{l.reelIn}</td>
                    <td class="mono pr-2">{l.seconds.toFixed(2)}</td>
                    <td>{l.action}</td>
                </tr>
            {/each}
        </tbody>
    </table>
    <p class="text-xs text-soft">{lines.length} shots, {total.toFixed(2)} seconds.</p>
    <div class="flex gap-2 print:hidden">
        <Button size="sm" color="alternative" onclick={() => print()}>Print</Button>
        <Button size="sm" color="alternative" href={`/api/scenes/${scene.id}/shots?as=csv`} download data-testid="shots-csv">CSV</Button>
    </div>
</Modal>
