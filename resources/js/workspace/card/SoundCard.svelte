<script lang="ts">
    import { perSecond, short } from '../../lib/time';
    import { getDesk } from '../context';
    import type { SoundRow } from '../rows';
    import ChoiceRow from './ChoiceRow.svelte';
    import NumberField from './NumberField.svelte';
    import SliderRow from './SliderRow.svelte';

    let { sound }: { sound: SoundRow } = $props();
    const { scene, speech } = getDesk();
    const set = (values: Record<string, unknown>) => scene.edit({ do: 'sound.set', sound: sound.id, ...values });
    const heard = $derived(scene.manifest?.sounds.find((s) => s.id === `n${sound.id}`));
    const said = $derived(speech.page);
    const LANES = [
        ['effects', 'effects'],
        ['ambience', 'ambience'],
        ['music', 'music'],
    ] as const;
    /** On a line it keeps its place: it is told in frames after the line begins. */
    function hang(id: number | null) {
        const now = heard?.start ?? sound.start;
        const begins = id === null ? 0 : (speech.settled.get(id)?.start ?? 0);
        return set({ line: id, start: Math.max(0, Math.round(now - begins)) });
    }
</script>

<p class="mb-2 text-sm font-semibold">{scene.asset(sound.assetId)?.name} <span class="font-normal text-soft">sound</span></p>
<dl class="grid grid-cols-[52px_minmax(0,1fr)] items-center gap-x-2 gap-y-1.5">
    <ChoiceRow
        word="Lane"
        label="Where it belongs"
        help="Ambience and music give way to speech"
        value={sound.lane}
        options={LANES}
        save={(lane) => set({ lane })}
    />
    <dt class="text-soft">Start</dt>
    <dd>
        <NumberField
            label={sound.lineId === null ? 'Start (frame)' : 'Frames after the line begins'}
            value={sound.start}
            digits={0}
            save={(n) => set({ start: Math.max(0, Math.round(n)) })}
        />
    </dd>
    {#if said.length > 0}<ChoiceRow
            word="With"
            label="Hangs on a line"
            value={String(sound.lineId ?? '')}
            options={[['', 'its frame'], ...said.map((l) => [String(l.id), l.text.slice(0, 30)] as const)]}
            save={(id) => hang(id ? Number(id) : null)}
        />{/if}
    <dt class="text-soft">Fades (s)</dt>
    <dd class="grid grid-cols-2 gap-1">
        <NumberField label="Fade in (s)" value={sound.fadeIn} digits={2} save={(fadeIn) => set({ fadeIn })} />
        <NumberField label="Fade out (s)" value={sound.fadeOut} digits={2} save={(fadeOut) => set({ fadeOut })} />
    </dd>
    <dt class="text-soft">In, out</dt>
    <dd class="grid grid-cols-2 gap-1">
        <NumberField label="From second of the sound" value={sound.sourceIn} digits={2} save={(sourceIn) => set({ sourceIn })} />
        <NumberField
            label="Up to second of the sound"
            value={sound.sourceOut ?? sound.sourceIn + (heard?.turn ?? 0)}
            digits={2}
            save={(sourceOut) => set({ sourceOut })}
        />
    </dd>
    <dt class="text-soft">Goes on</dt>
    <dd>
        <label class="flex items-center gap-2"
            ><input
                type="checkbox"
                class="rounded border-line text-tide"
                aria-label="Begins anew when it is over"
                checked={sound.repeats}
                disabled={!scene.canEdit}
                onchange={(e) => set({ repeats: e.currentTarget.checked })}
            />again and again</label
        >
    </dd>
    {#if sound.repeats}<dt class="text-soft">Until</dt>
        <dd>
            <NumberField
                label="Until frame"
                value={sound.until ?? scene.frames}
                digits={0}
                save={(n) => set({ until: Math.max(1, Math.round(n)) })}
            />
        </dd>{/if}
</dl>
<dl class="mt-1.5 grid grid-cols-[52px_minmax(0,1fr)_32px] items-center gap-x-2">
    <SliderRow
        word="Level"
        help="Decibels over how loud its file is"
        least={-36}
        most={12}
        step={0.5}
        value={sound.level}
        save={(level) => set({ level })}
    />
</dl>
{#if heard}<p class="mono mt-1 text-[11px] text-soft">
        {short((heard.end - heard.start) / perSecond(scene.rate), 2)} s, frames {Math.round(heard.start)} to {Math.round(heard.end)}
    </p>{/if}
{#if scene.canEdit}
    <div class="mt-2 flex gap-3">
        <button class="text-tide hover:underline" aria-pressed={sound.muted} onclick={() => set({ muted: !sound.muted })}
            >{sound.muted ? 'Let it be heard' : 'Mute'}</button
        >
        <button class="text-alarm hover:underline" title="Del" onclick={() => scene.edit({ do: 'sound.remove', sound: sound.id })}
            >Remove</button
        >
    </div>
{/if}
