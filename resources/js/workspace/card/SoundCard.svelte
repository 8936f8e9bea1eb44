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
    const touches = $derived(scene.rows.contacts.filter((c) => c.effector !== 'look'));
    /** Things that land or roll, and where they first do. */
    const things = $derived(
        new Map(
            (scene.manifest?.noises ?? [])
                .filter((n) => n[0] !== 'step')
                .map((n) => [Number(n[1].slice(1)), n[3]] as const)
                .reverse(),
        ),
    );
    const hangsOn = $derived(
        sound.lineId !== null
            ? `line ${sound.lineId}`
            : sound.contactId !== null
              ? `contact ${sound.contactId}`
              : sound.thingId !== null
                ? `thing ${sound.thingId}`
                : '',
    );
    const places = $derived([
        ['', 'its frame'] as const,
        ...said.map((l) => [`line ${l.id}`, `line: ${l.text.slice(0, 26)}`] as const),
        ...touches.map((c) => [`contact ${c.id}`, `touch: ${scene.find('items', c.itemId)?.name}, ${c.effector}, ${c.from}`] as const),
        ...[...new Set([...things.keys(), ...(sound.thingId === null ? [] : [sound.thingId])])].map(
            (id) => [`thing ${id}`, `moves: ${scene.find('items', id)?.name ?? ''}`] as const,
        ),
    ]);
    /** It keeps its place: that is told in frames after what it hangs on begins. */
    function hang(on: string) {
        const [what, id] = [on.split(' ')[0], Number(on.split(' ')[1])];
        const begins =
            what === 'line' ? speech.settled.get(id)?.start : what === 'contact' ? scene.find('contacts', id)?.from : things.get(id);
        const of = (kind: string) => (what === kind ? id : null);
        const start = Math.max(0, Math.round((heard?.start ?? sound.start) - (on === '' ? 0 : (begins ?? 0))));
        return set({ line: of('line'), contact: of('contact'), thing: of('thing'), start });
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
            label={hangsOn === '' ? 'Start (frame)' : 'Frames after it begins'}
            value={sound.start}
            digits={0}
            save={(n) => set({ start: Math.max(0, Math.round(n)) })}
        />
    </dd>
    {#if places.length > 1}<ChoiceRow
            word="With"
            label="Hangs on"
            help="A line, a touch, or a thing that lands or rolls; it goes with it"
            value={hangsOn}
            options={places}
            save={hang}
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
<p class="mt-1 text-[11px] text-soft">
    {#if sound.curve.length > 0}Level bends at {sound.curve.length}
        {sound.curve.length === 1 ? 'point' : 'points'}.
        {#if scene.canEdit}<button class="text-tide hover:underline" onclick={() => set({ curve: [] })}>Straighten</button>{/if}
    {:else if scene.canEdit}A double click on its lane bends the level there.{/if}
</p>
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
