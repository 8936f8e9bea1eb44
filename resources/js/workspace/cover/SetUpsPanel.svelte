<script lang="ts">
    import { onDestroy, untrack } from 'svelte';
    import { ApiError, call } from '../../lib/api';
    import { getDesk } from '../context';
    import type { FramingRow, ItemRow } from '../rows';
    import AngleChoices from './AngleChoices.svelte';
    import SetUpCard from './SetUpCard.svelte';
    import { FAMILIES, SetUps, nearestOther, wishPath, type SetUp } from './setups';
    import { standingAt } from './standing';
    import { SmallPictures } from './smallPictures.svelte';

    const { scene, playhead, view } = getDesk();
    let side = $state(35);
    let height = $state<FramingRow['height']>('level');
    let hand = $state(0);
    let partnerWish = $state<number | null | undefined>(undefined);
    let list = $state.raw<SetUp[]>([]);
    let failed = $state('');
    let asked = 0;

    const pictures = new SmallPictures(
        () => view.painter,
        (frame) => scene.posesAt(frame),
        192,
        Math.round(192 / (scene.manifest ? scene.manifest.width / scene.manifest.height : 16 / 9)),
    );
    onDestroy(() => pictures.close());

    const selected = $derived(scene.selection?.table === 'items' ? scene.selection.id : null);
    const frame = $derived(playhead.playing ? null : playhead.frame);
    /** The camera that is worked on, if one is: what is taken may aim it anew. */
    const camera = $derived(view.covering !== null && scene.selection?.table !== 'cameras' ? scene.find('cameras', view.covering) : null);
    const standing = (i: ItemRow): [number, number] => standingAt(scene, i.id, playhead.frame) ?? [i.position[0], i.position[2]];
    const people = $derived(scene.rows.items.filter((i) => i.kind === 'performer'));
    const subject = $derived(scene.find('items', selected ?? view.filmed ?? people[0]?.id ?? 0));
    const partner = $derived.by(() => {
        if (!subject || subject.kind !== 'performer') return null;
        void [scene.posesVersion, frame];
        const wish = partnerWish === undefined ? nearestOther(scene.rows.items, subject.id, standing) : partnerWish;
        return wish === subject.id ? null : wish;
    });
    /** Who is filmed with the two: three and more are a group. */
    let along = $state<number[]>([]);
    const more = $derived(people.filter((i) => i.id !== subject?.id && i.id !== partner));
    const others = $derived(partner === null ? [] : more.filter((i) => along.includes(i.id)).map((i) => i.id));
    const toggle = (id: number) => (along = along.includes(id) ? along.filter((i) => i !== id) : [...along, id]);
    type Use = 'new' | 'aim' | 'move';
    let into = $state<Use>('new');
    const uses = (letter: string): [Use, string][] => [
        ['new', 'New camera'],
        ['aim', `Aim ${letter} so`],
        ['move', `Lead ${letter} there`],
    ];

    $effect(() => {
        if (subject) view.filmed = subject.id;
    });
    $effect(() => {
        view.line = subject && partner !== null ? { a: subject.id, b: partner } : null;
        return () => (view.line = null);
    });

    // What may be taken, a moment after the last change.
    $effect(() => {
        const wish = subject && frame !== null ? { subject: subject.id, partner, frame, side, height, hand, others } : null;
        const state = scene.manifest?.state;
        if (!wish || !state) return;
        const path = wishPath(scene.id, wish);
        const timer = setTimeout(() => void look(path), 160);
        return () => clearTimeout(timer);
    });

    async function look(path: string) {
        const mine = ++asked;
        try {
            const found = (await call(SetUps, 'GET', path)).setUps;
            if (mine !== asked) return;
            list = found;
            failed = '';
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            failed = e.message;
        }
    }

    const key = (s: SetUp) => JSON.stringify([s.view, playhead.frame, scene.manifest?.state]);
    $effect(() => {
        void scene.posesVersion;
        const now = list;
        if (frame === null) return;
        untrack(() => pictures.ask(now.flatMap((s) => (s.view ? [{ key: key(s), view: s.view, frame }] : []))));
    });

    const families = $derived(
        (Object.keys(FAMILIES) as SetUp['family'][])
            .map((f) => ({ f, of: list.filter((s) => s.family === f) }))
            .filter((g) => g.of.length > 0),
    );

    /** The two from the other side of the line between them. */
    function swapSide(of: SetUp[]) {
        const shown = of.find((s) => s.framing.subject === `i${subject?.id}`);
        hand = hand !== 0 ? -hand : Number(shown?.framing.sideDeg) > 0 ? -1 : 1;
    }

    async function take(s: SetUp) {
        const target = camera && into !== 'new' ? { camera: camera.id, move: into === 'move' } : {};
        const move = camera && into === 'move' ? { over: Math.round(2 * (scene.rate[0] / scene.rate[1])) } : {};
        const done = await scene.edit({ do: 'camera.frame', ...s.framing, frame: playhead.frame, ...target, ...move });
        if (!done) return;
        const made = camera && into !== 'new' ? camera : scene.rows.cameras[scene.rows.cameras.length - 1];
        if (!made) return;
        view.covering = made.id;
        view.source = { kind: 'camera', id: made.id };
    }
</script>

{#if !subject}
    <p class="p-2 text-soft">Put somebody into the scene; then choose here how they are filmed.</p>
{:else}
    <div class="flex flex-col gap-1.5 border-b border-line p-2">
        <label class="grid grid-cols-[44px_1fr] items-center gap-1">
            <span class="text-soft">On</span>
            <select
                class="min-w-0 rounded border-line bg-sheet py-0.5 text-xs"
                aria-label="Who is filmed"
                value={subject.id}
                onchange={(e) => scene.select('items', Number(e.currentTarget.value))}
            >
                {#each scene.rows.items.filter((i) => i.kind !== 'set') as i (i.id)}<option value={i.id}>{i.name}</option>{/each}
            </select>
        </label>
        {#if subject.kind === 'performer' && people.length > 1}
            <label class="grid grid-cols-[44px_1fr] items-center gap-1">
                <span class="text-soft">with</span>
                <select
                    class="min-w-0 rounded border-line bg-sheet py-0.5 text-xs"
                    aria-label="With whom"
                    value={partner ?? 0}
                    onchange={(e) => (partnerWish = Number(e.currentTarget.value) || null)}
                >
                    <option value={0}>nobody</option>
                    {#each people.filter((i) => i.id !== subject.id) as i (i.id)}<option value={i.id}>{i.name}</option>{/each}
                </select>
            </label>
        {/if}
        {#if partner !== null && more.length > 0}
            <div class="flex flex-wrap items-center gap-1 text-[11px]" role="group" aria-label="Who else is in a group with them">
                <span class="w-[40px] text-soft">and</span>
                {#each more as i (i.id)}
                    <button
                        class={[
                            'rounded border px-1.5 py-0.5',
                            along.includes(i.id) ? 'border-tide bg-tide text-white' : 'border-line bg-sheet',
                        ]}
                        aria-pressed={along.includes(i.id)}
                        onclick={() => toggle(i.id)}>{i.name}</button
                    >
                {/each}
            </div>
        {/if}
        <AngleChoices bind:side bind:height />
        {#if camera}
            <div class="flex gap-1 text-[11px]" role="group" aria-label="What a click makes">
                {#each uses(camera.letter) as [w, word] (w)}
                    <button
                        class={['rounded border px-1.5 py-0.5', into === w ? 'border-ink bg-ink text-paper' : 'border-line bg-sheet']}
                        aria-pressed={into === w}
                        onclick={() => (into = w)}>{word}</button
                    >
                {/each}
            </div>
        {/if}
    </div>
    <div class="min-h-0 flex-1 overflow-auto p-2" data-testid="setups">
        {#if failed}<p class="text-alarm" role="alert">{failed}</p>{/if}
        {#each families as { f, of } (f)}
            <h3 class="mt-1 mb-1 flex items-center justify-between text-[11px] font-semibold text-soft">
                {FAMILIES[f]}
                {#if f === 'two'}<button
                        class="font-normal text-tide hover:underline"
                        title="See the two from the other side of the line between them"
                        onclick={() => swapSide(of)}>Swap side</button
                    >{/if}
            </h3>
            <div class="grid grid-cols-2 gap-1.5">
                {#each of as s (s.title)}<SetUpCard setUp={s} picture={pictures.made[key(s)]} take={() => take(s)} />{/each}
            </div>
        {/each}
    </div>
{/if}
