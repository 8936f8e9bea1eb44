<script lang="ts">
    import { Button } from 'flowbite-svelte';
    import BeforeAfter from './BeforeAfter.svelte';
    import { isToMend, type ArrivalRow, type Finding } from './answers';

    interface Props {
        arrival: ArrivalRow;
        /** What is being mended; empty: nothing. */
        busy: string;
        stamp: number;
        isModel: boolean;
        /** Codes of what was set by hand and is no finding. */
        manual: string[];
        set: (code: string, value: unknown, what: string) => void;
        mark: () => void;
        mendAll: () => void;
    }
    let { arrival, busy, stamp, isModel, manual, set, mark, mendAll }: Props = $props();
    let opened = $state('');

    const ORDER = { harms: 0, look: 1, fyi: 2 } as const;
    const MARK = { harms: ['!', 'bg-buoy text-white'], look: ['?', 'bg-line text-ink'], fyi: ['i', 'bg-desk text-soft'] } as const;
    const NAMES: Record<string, string> = {
        pivot: 'the point it is moved by',
        turn: 'the turn',
        grow: 'the height',
        skeleton: 'a skeleton',
    };
    const toMend = $derived(arrival.findings.filter(isToMend));
    const rank = (f: Finding) => ORDER[f.severity] + (f.mended ? 1.5 : 0);
    const findings = $derived([...arrival.findings].sort((a, b) => rank(a) - rank(b)));
    const undo = (f: Finding) => set(f.code, false, f.code);
    const redo = (f: Finding) => (f.code === 'skeleton' ? mark() : set(f.code, f.mends[0]?.commands[0]?.with ?? {}, f.code));
</script>

<section>
    <div class="mb-2 flex items-center">
        <h3 class="flex-1 font-semibold">{findings.length > 0 ? 'What was found' : 'What was changed'}</h3>
        {#if toMend.length > 0}
            <Button size="xs" disabled={busy !== ''} onclick={mendAll} data-testid="mend-all"
                >Mend all {toMend.length > 1 ? toMend.length : ''}</Button
            >
        {/if}
    </div>
    <ul class="flex flex-col gap-2">
        {#each findings as f (f.code + f.sentence)}
            <li
                class={[
                    'rounded border bg-sheet p-2.5',
                    f.mended || f.severity === 'fyi' ? 'border-line' : f.severity === 'harms' ? 'border-buoy' : 'border-line',
                ]}
                data-testid={`finding-${f.code}`}
                data-mended={f.mended}
            >
                <div class="flex gap-2">
                    <span
                        class={[
                            'grid h-5 w-5 shrink-0 place-items-center rounded-full text-xs font-bold',
                            f.mended ? 'bg-tide text-white' : MARK[f.severity][1],
                        ]}
                        aria-hidden="true">{f.mended ? '✓' : MARK[f.severity][0]}</span
                    >
                    <div class="min-w-0 flex-1">
                        <p class={['font-medium', f.mended ? 'text-soft' : '']}>{f.sentence}</p>
                        <p class="text-xs text-soft">{f.mended ? 'Mended.' : f.effect}</p>
                        {#if f.about.length > 0}
                            <p class="mt-0.5 text-xs break-words text-soft">
                                {f.about.slice(0, 8).join(', ')}{f.about.length > 8 ? ` and ${f.about.length - 8} more` : ''}
                            </p>
                        {/if}
                        {#if f.mends[0]}
                            <div class="mt-1.5 flex items-center gap-2">
                                {#if f.mended}
                                    <Button size="xs" color="alternative" disabled={busy !== ''} onclick={() => undo(f)}>Undo</Button>
                                {:else}
                                    <Button size="xs" disabled={busy !== ''} onclick={() => redo(f)}>{f.mends[0].words}</Button>
                                {/if}
                                {#if isModel}
                                    <button
                                        class="text-xs text-tide hover:underline"
                                        aria-expanded={opened === f.code}
                                        onclick={() => (opened = opened === f.code ? '' : f.code)}>before and after</button
                                    >
                                {/if}
                            </div>
                            {#if opened === f.code}<BeforeAfter arrival={arrival.id} code={f.code} {stamp} />{/if}
                        {/if}
                    </div>
                </div>
            </li>
        {/each}
        {#each manual as code (code)}
            <li class="flex items-center gap-2 rounded border border-line bg-sheet p-2.5" data-testid={`manual-${code}`}>
                <p class="flex-1">You {code === 'skeleton' ? 'gave it' : 'set'} {NAMES[code]}.</p>
                <Button size="xs" color="alternative" onclick={() => set(code, null, code)}>Undo</Button>
            </li>
        {/each}
    </ul>
</section>
