<script lang="ts">
    import { getDesk } from '../context';
    import { EVEN, type MixLane, type MixPlace } from './heard';

    /** How loud the lanes are against each other; which are heard; and whether what happens is. */
    const { scene, sound } = getDesk();
    const LANES: [MixLane, string, string][] = [
        ['speech', 'Speech', 'All that is said'],
        ['steps', 'Steps', 'Feet, falls and wheels, as the motions have them'],
        ['effects', 'Effects', 'Sounds that give way to nothing'],
        ['ambience', 'Ambience', 'Gives way to speech'],
        ['music', 'Music', 'Gives way to speech'],
    ];
    let held = $state<{ what: string; value: number } | null>(null);
    const set = (mix: Partial<typeof scene.mix>) => scene.edit({ do: 'scene.set', mix });
    const toggled = <T,>(all: T[], one: T): T[] => (all.includes(one) ? all.filter((l) => l !== one) : [...all, one]);
    const mute = (lane: MixLane) => set({ muted: toggled(scene.mix.muted, lane) });
    /** Lanes whose sounds come from somebody or something. */
    const PLACES: [MixPlace, string][] = [
        ['speech', 'Speech'],
        ['steps', 'Steps'],
        ['effects', 'Effects'],
    ];
    /** How far they go down for what is said, at most, where nobody has set it. */
    const needed = $derived(Math.max(0, ...(scene.manifest?.lowering ?? []).map(([, db]) => -db)));

    async function letGo(what: 'lowered' | MixLane, e: Event) {
        await set({ [what]: (e.currentTarget as HTMLInputElement).valueAsNumber });
        held = null;
    }
    const shown = (what: 'lowered' | MixLane) => (held?.what === what ? held.value : (scene.mix[what] ?? needed));
    const changed = $derived(JSON.stringify({ ...scene.mix, happens: false }) !== JSON.stringify(EVEN));
    const button = 'h-5 w-5 rounded border text-[10px] font-semibold disabled:opacity-40';
</script>

{#snippet slider(what: 'lowered' | MixLane, word: string, help: string, least: number, most: number)}
    <input
        type="range"
        class="h-1.5 w-full accent-tide"
        aria-label={word}
        title={help}
        min={least}
        max={most}
        step="0.5"
        disabled={!scene.canEdit}
        value={shown(what)}
        oninput={(e) => (held = { what, value: e.currentTarget.valueAsNumber })}
        onchange={(e) => letGo(what, e)}
        onkeydown={(e) => e.stopPropagation()}
    />
    <span class="mono text-right text-[11px]">{shown(what).toFixed(1)}</span>
{/snippet}

<details class="border-t border-line p-2 text-xs" data-testid="mix">
    <summary class="cursor-pointer font-semibold text-soft">Mix, and sounds of what happens</summary>
    <div class="mt-1 mb-1 flex items-baseline justify-between">
        <h3 class="text-soft">Levels, dB</h3>
        {#if changed && scene.canEdit}<button class="text-tide hover:underline" onclick={() => set({ ...EVEN, happens: scene.mix.happens })}
                >Even again</button
            >{/if}
    </div>
    <div class="grid grid-cols-[58px_minmax(0,1fr)_34px_20px_20px] items-center gap-x-1.5 gap-y-1">
        {#each LANES as [lane, word, help] (lane)}
            {@const muted = scene.mix.muted.includes(lane)}
            <span class={['truncate', (muted || (sound.solo !== null && sound.solo !== lane)) && 'text-soft line-through']} title={help}
                >{word}</span
            >
            {@render slider(lane, `${word}, level`, help, -36, 12)}
            <button
                class={[button, muted ? 'border-alarm bg-alarm text-paper' : 'border-line text-soft']}
                aria-label={`Mute ${word.toLowerCase()}`}
                title={muted ? 'Let it be heard, here and in the film' : 'Not heard, here and in the film'}
                aria-pressed={muted}
                disabled={!scene.canEdit}
                onclick={() => mute(lane)}>M</button
            >
            <button
                class={[button, sound.solo === lane ? 'border-tide bg-tide text-paper' : 'border-line text-soft']}
                aria-label={`Only ${word.toLowerCase()}`}
                title="Only this one, for your ears: the film stays as it is"
                aria-pressed={sound.solo === lane}
                onclick={() => (sound.solo = sound.solo === lane ? null : lane)}>S</button
            >
        {/each}
        <span title="How far ambience and music go down while somebody speaks">Gives way</span>
        {@render slider(
            'lowered',
            'Ambience and music give way by',
            'Decibels that ambience and music go down while somebody speaks',
            0,
            30,
        )}
        {#if scene.mix.lowered !== null}<button
                class="col-span-2 text-[10px] text-tide hover:underline disabled:opacity-40"
                title="As far as they must, for speech to stand 12 dB above them"
                disabled={!scene.canEdit}
                onclick={() => set({ lowered: null })}>As needed</button
            >{:else}<span class="col-span-2 text-[10px] text-soft" title="As far as they must, for speech to stand 12 dB above them"
                >as needed</span
            >{/if}
    </div>
    <div class="mt-1.5 flex flex-wrap items-center gap-1">
        <span class="text-soft" title="From afar it is softer, and it comes from the side of the picture that it is on"
            >From the camera</span
        >
        {#each PLACES as [lane, word] (lane)}
            <button
                class={[
                    'h-5 rounded border px-1.5 text-[10px] disabled:opacity-40',
                    scene.mix.placed.includes(lane) ? 'border-tide bg-tide text-paper' : 'border-line text-soft',
                ]}
                aria-label={`${word} from the camera`}
                title="Softer from afar, and from the side that it is seen at"
                aria-pressed={scene.mix.placed.includes(lane)}
                disabled={!scene.canEdit}
                onclick={() => set({ placed: toggled(scene.mix.placed, lane) })}>{word}</button
            >
        {/each}
    </div>
    <label class="mt-1.5 flex items-start gap-1.5" title="Worked out from the motions, on what they walk on; goes with every edit">
        <input
            type="checkbox"
            class="mt-0.5 rounded border-line text-tide"
            aria-label="Steps, falls and wheels are heard"
            checked={scene.mix.happens}
            disabled={!scene.canEdit}
            onchange={(e) => set({ happens: e.currentTarget.checked })}
        />
        <span
            >Steps, falls and wheels are heard{#if scene.mix.happens}<span class="mono ml-1 text-soft" data-testid="noises"
                    >{scene.manifest?.noises.length ?? 0}</span
                >{/if}</span
        >
    </label>
    {#if scene.mix.happens && scene.manifest?.noises.length === 0}<p class="mt-1 text-soft">
            Nothing is heard to happen: nobody walks, and nothing lands or rolls (or the kit is older than these sounds).
        </p>{/if}
</details>
