<script lang="ts">
    import { getDesk } from '../context';
    import type { BeatRow } from '../rows';
    import SliderRow from './SliderRow.svelte';

    interface Props {
        beat: BeatRow;
        model: string;
        /** What a setting is: as set, as the motion has it, or as given. */
        usually: (name: string, otherwise: number) => number;
    }
    let { beat, model, usually }: Props = $props();
    const { scene } = getDesk();

    /** Setting, word, least, most, usual, help. */
    type Slider = [string, string, number, number, number, string];
    const WALK: Slider[] = [
        ['stride', 'Stride', 0.6, 1.4, 1, 'Length of the steps; the speed stays'],
        ['bounce', 'Bounce', 0, 2, 1, 'How far the hips rise with each step'],
        ['lean', 'Lean', -10, 30, 0, 'Degrees that the trunk leans ahead'],
        ['arm', 'Arms', 0, 1.6, 1, 'How far the arms swing'],
        ['weight', 'Weight', 0, 1, 0, 'How heavily the feet come down'],
        ['age', 'Age', 0, 1, 0, 'Stiffer and more careful towards 1'],
        ['mood', 'Mood', -1, 1, 0, 'From downcast, -1, to proud, 1'],
    ];
    const SLIDERS: Record<string, Slider[]> = {
        walk: WALK,
        walkToMark: WALK,
        act: [
            ['size', 'Size', 0.3, 1.4, 1, 'How large the gestures are'],
            ['pace', 'Pace', 0.5, 2, 1, 'How quick it is'],
        ],
        mount: [['side', 'Side', -1, 1, 1, "From the rider's left, 1, or the right, -1"]],
    };
    /** What is done to somebody is taken harder or softer. */
    const TAKEN: Slider = ['strength', 'Taken', 0.3, 2, 1, 'How hard it is taken; from 1.5 on the one who is struck falls'];
    const BACK: Slider = ['lookBack', 'Looks back', -1, 1, 1, 'Over the left shoulder, 1, or the right, -1; 0 straight ahead'];
    const LED: Slider = ['side', 'Side', -1, 1, 1, 'Led on the left, 1, or on the right, -1'];
    const sliders = $derived([
        ...(usually('led', 0) > 0 ? [LED] : []),
        ...(usually('lookBack', 0) !== 0 || 'lookBack' in beat.settings ? [BACK] : []),
        ...(SLIDERS[model] ?? []),
        ...(usually('strength', -1) >= 0 ? [TAKEN] : []),
    ]);
    const changed = $derived(sliders.some(([name]) => name in beat.settings));
</script>

{#if sliders.length > 0}
    <details class="mt-2 border-t border-line pt-2" open={changed}>
        <summary class="cursor-pointer font-semibold">Manner</summary>
        <dl class="mt-1.5 grid grid-cols-[60px_1fr_36px] items-center gap-x-2 gap-y-1">
            {#each sliders as [name, word, least, most, usual, help] (name)}
                <SliderRow
                    {word}
                    {help}
                    {least}
                    {most}
                    step={(most - least) / 40}
                    value={usually(name, usual)}
                    testid={`manner-${name}`}
                    disabled={!scene.canEdit}
                    save={(value) => scene.edit({ do: 'beat.set', beat: beat.id, settings: { [name]: value } })}
                />
            {/each}
        </dl>
    </details>
{/if}
