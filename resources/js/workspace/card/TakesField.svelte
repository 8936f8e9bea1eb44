<script lang="ts">
    import { short } from '../../lib/time';
    import { getDesk } from '../context';
    import type { LineRow, TakeRow } from '../rows';
    import WaveStrip from './WaveStrip.svelte';

    /** Recordings of a line: which one is heard, or the voice; another one; and what of it is heard. */
    let { line }: { line: LineRow } = $props();
    const { scene, recorder, sound } = getDesk();
    const takes = $derived(scene.rows.takes.filter((t) => t.lineId === line.id));
    const chosen = $derived(takes.find((t) => t.chosen));
    const recording = $derived(recorder.isOf(line.id));
    const set = (t: TakeRow, values: Record<string, unknown>) => scene.edit({ do: 'take.set', take: t.id, ...values });
    const voice = () => (chosen ? set(chosen, { chosen: false }) : null);
</script>

{#snippet choice(word: string, is: boolean, disabled: boolean, id: string, choose: () => unknown)}
    <button
        class="flex items-center gap-1.5 disabled:opacity-50"
        role="radio"
        aria-checked={is}
        disabled={disabled || !scene.canEdit}
        data-testid={id}
        onclick={choose}
        ><span class={['h-3 w-3 rounded-full border', is ? 'border-[4px] border-tide' : 'border-soft']}></span>{word}</button
    >
{/snippet}

<section class="mt-2 border-t border-line pt-2" aria-label="Recordings">
    {#if scene.canEdit}
        {#if recording}
            <div class="flex items-center gap-2" data-testid="recording">
                <button
                    class="rounded bg-alarm px-2 py-0.5 font-semibold text-white disabled:opacity-50"
                    disabled={recorder.sending}
                    data-testid="record-stop"
                    onclick={() => recorder.end()}>{recorder.sending ? 'Keeping…' : 'Stop'}</button
                >
                <meter class="h-2 flex-1" min="0" max="1" value={Math.sqrt(recorder.level)} aria-label="Loudness"></meter>
                <span class="mono text-[11px]">{short(recorder.seconds, 1)} s</span>
                <button class="text-tide hover:underline" onclick={() => recorder.drop()}>Leave it</button>
            </div>
        {:else}
            <button
                class="flex items-center gap-1.5 rounded border border-line px-2 py-0.5 hover:bg-desk disabled:opacity-50"
                disabled={recorder.aim !== null}
                title="Plays from shortly before the line and listens to the microphone; wear headphones"
                data-testid="record"
                onclick={() => recorder.begin({ line: line.id })}
                ><span class="h-2 w-2 rounded-full bg-alarm"></span>{takes.length > 0 ? 'Record again' : 'Record it yourself'}</button
            >
        {/if}
    {/if}
    {#if takes.length > 0}
        <div class="mt-1 flex flex-col gap-0.5" role="radiogroup" aria-label="Takes">
            {@render choice('the voice', !chosen, line.text === '', 'take-voice', voice)}
            {#each takes as t, k (t.id)}
                <div class="flex items-center gap-1.5">
                    {@render choice(`take ${k + 1}`, t.chosen, false, `take-${k + 1}`, () => set(t, { chosen: true }))}
                    {#if scene.asset(t.assetId)?.blob}<button
                            class="ml-auto text-[11px] text-tide hover:underline"
                            onclick={() => sound.audition(scene.asset(t.assetId)?.blob ?? '')}>hear</button
                        >{/if}
                    {#if scene.canEdit}<button
                            class="text-[11px] text-soft hover:text-alarm"
                            aria-label={`Throw take ${k + 1} away`}
                            onclick={() => scene.edit({ do: 'take.remove', take: t.id })}>✕</button
                        >{/if}
                </div>
            {/each}
        </div>
        {#if chosen}<WaveStrip {line} take={chosen} />{/if}
    {/if}
</section>
