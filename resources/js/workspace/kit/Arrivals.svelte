<script lang="ts">
    import { Button } from 'flowbite-svelte';
    import { getDesk } from '../context';
    import { megabytes } from './facts';
    import Slip from './Slip.svelte';

    const { kit } = getDesk();
    const chosen = $derived(kit.arrivals.find((a) => a.id === kit.arrival) ?? kit.arrivals[0] ?? null);
    const STATUS = { waiting: 'waits', reading: 'is read', ready: '', known: 'was here already', refused: 'refused' } as const;

    function told(a: (typeof kit.arrivals)[number]): string {
        const open = a.findings.filter((f) => !f.mended && f.severity === 'harms').length;
        const mended = a.findings.filter((f) => f.mended).length;
        if (STATUS[a.status]) return STATUS[a.status];
        return open > 0 ? `${open} to mend` : mended > 0 ? `${mended} mended` : 'all well';
    }
</script>

<div class="flex min-h-0 flex-1">
    <div class="flex w-[250px] shrink-0 flex-col overflow-auto border-r border-line">
        {#each kit.work as w (w.drop)}
            <div class="border-b border-line bg-sheet p-3" role="status" data-testid="work">
                <p class="font-semibold">Reading {w.files === 1 ? 'a file' : `${w.done} of ${w.files} files`}</p>
                <div class="my-1 h-1.5 overflow-hidden rounded bg-line">
                    <div class="h-full bg-tide" style:width={`${Math.max(4, (100 * w.done) / w.files)}%`}></div>
                </div>
                <p class="text-xs text-soft">
                    {w.megabytes} MB left{w.secondsLeft !== null ? `, about ${w.secondsLeft} s` : ''}. You can go on working.
                </p>
            </div>
        {/each}
        {#if kit.toMend.length > 1 || kit.mending}
            <div class="border-b border-line p-2">
                <Button size="xs" class="w-full" disabled={kit.mending !== ''} data-testid="mend-every" onclick={() => kit.mendAll()}
                    >{kit.mending ? `Mending ${kit.mending}…` : `Mend all ${kit.toMend.length} of them`}</Button
                >
            </div>
        {/if}
        {#each kit.arrivals as a (a.id)}
            <button
                class={[
                    'flex items-center gap-2 border-b border-line p-2 text-left',
                    chosen?.id === a.id ? 'bg-sheet' : 'hover:bg-sheet/60',
                ]}
                onclick={() => kit.look(a.id)}
                aria-pressed={chosen?.id === a.id}
                data-testid={`arrival-${a.id}`}
            >
                <span class="grid h-10 w-14 shrink-0 place-items-center overflow-hidden rounded bg-[#d8cfbd] font-bold text-soft/60">
                    {#if a.picture}<img src={`/api/blobs/${a.picture}`} alt="" class="h-full w-full object-cover" />{:else}{a.format}{/if}
                </span>
                <span class="min-w-0 flex-1">
                    <span class="block truncate font-semibold">{a.name}</span>
                    <span class="block truncate text-xs text-soft" title={kit.brings[a.format] ?? ''}
                        >{a.format.toUpperCase()}, {megabytes(a.bytes)}</span
                    >
                    {#if a.status === 'waiting' || a.status === 'reading'}<span class="block text-xs text-soft"
                            >{kit.brings[a.format] ?? ''}</span
                        >{/if}
                </span>
                <span
                    class={[
                        'shrink-0 text-xs font-medium',
                        a.status === 'refused' ? 'text-alarm' : told(a).endsWith('to mend') ? 'text-buoy' : 'text-tide',
                    ]}>{told(a)}</span
                >
            </button>
        {:else}
            <p class="p-4 text-soft">
                Nothing has come in yet. Drop models, motions, sounds or pictures anywhere in the kit room: single files, a folder, or a
                zip.
            </p>
        {/each}
        {#if Object.keys(kit.unused).length > 0}
            <details class="border-b border-line p-3 text-xs text-soft">
                <summary class="cursor-pointer font-medium">{Object.keys(kit.unused).length} files were not used</summary>
                <ul class="mt-1 flex flex-col gap-1">
                    {#each Object.entries(kit.unused) as [path, why] (path)}<li><strong>{path}</strong>: {why}</li>{/each}
                </ul>
            </details>
        {/if}
    </div>
    {#if chosen}
        {#key chosen.id}<Slip arrival={chosen} />{/key}
    {:else}
        <div class="grid flex-1 content-center justify-items-center gap-6 p-8 text-center text-soft">
            <p class="max-w-md">
                A slip for each file says what arrived, what is wrong with it, and mends it. The file itself is always kept.
            </p>
            <dl class="grid max-w-xl grid-cols-[60px_1fr] gap-x-3 gap-y-1 text-left text-xs">
                {#each Object.entries(kit.brings) as [kind, text] (kind)}<dt class="mono text-right">{kind}</dt>
                    <dd>{text}</dd>{/each}
            </dl>
        </div>
    {/if}
</div>
