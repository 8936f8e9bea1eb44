<script lang="ts">
    import { perSecond } from '../../lib/time';
    import { getDesk } from '../context';
    import { call, tell } from '../../lib/api';
    import { SetUps, wishPath, type SetUp } from './setups';
    import { best, changes, cutsAt, sideOf, type Change, type Spot } from './speakerCuts';
    import { standingAt } from './standing';

    /** Changes of speaker that no cut shows: each may be gone to, all may be cut in one step. */
    const { scene, playhead, speech } = getDesk();
    const shots = $derived(
        (scene.manifest?.shots ?? []).map((s) => ({ camera: Number(s.camera.slice(1)), in: s.in, out: s.out, id: s.id })),
    );
    const said = $derived([...speech.settled.values()].map((l) => ({ item: Number(l.item.slice(1)), from: l.from, to: l.to })));
    const missing = $derived(
        changes(
            said,
            shots,
            scene.rows.cameras.map((c) => c.id),
            scene.rows.framings,
            perSecond(scene.rate),
        ),
    );
    const name = (id: number) => scene.find('items', id)?.name ?? '';
    const letter = (id: number | null) => scene.rows.cameras.find((c) => c.id === id)?.letter ?? 'a new camera';

    const wish = (m: Change, hand: number) =>
        wishPath(scene.id, { subject: m.speaker, partner: m.before, frame: m.frame, side: 30, height: 'level', hand, others: [] });

    /** Whether a place is on the side of the two that the camera on air films them from. */
    function ours(m: Change): (place: Spot) => boolean {
        const on = shots.find((s) => s.in <= m.frame && m.frame < s.out);
        const row = on ? scene.posesAt(m.frame)?.camera(`c${on.camera}`, m.frame) : null;
        const [one, other] = [standingAt(scene, m.speaker, m.frame), standingAt(scene, m.before, m.frame)];
        if (!row || !one || !other) return () => true;
        const side = sideOf(one, other, [row.position[0], row.position[2]]);
        return (place) => side === 0 || sideOf(one, other, place) === side;
    }

    async function cut() {
        const all = missing;
        const framings: Record<number, SetUp['framing']> = {};
        try {
            for (const m of all.filter((c) => c.camera === null)) {
                if (framings[m.speaker]) continue;
                // What keeps to the framings' line may lie across from a camera that was placed by hand: both sides are asked for.
                const all = await Promise.all([1, -1].map((hand) => call(SetUps, 'GET', wish(m, hand))));
                const found = best(
                    all.flatMap((a) => a.setUps),
                    ours(m),
                );
                if (found) framings[m.speaker] = found;
            }
        } catch {
            tell('No place for a camera was found.', 'Make a camera for who speaks first, then cut again.');
            return;
        }
        await scene.edit(...cutsAt(all, framings));
    }
</script>

{#if missing.length > 0 && scene.canEdit}
    <div class="border-b border-line p-2 text-xs" data-testid="speaker-cuts">
        <p class="text-soft">
            {missing.length === 1 ? 'One change of speaker has' : `${missing.length} changes of speaker have`} no cut:
        </p>
        <ul class="my-1 max-h-24 overflow-auto">
            {#each missing as m (m.frame)}
                <li>
                    <button class="w-full truncate text-left text-tide hover:underline" onclick={() => playhead.go(m.frame)}
                        ><span class="mono">{m.frame}</span> {name(m.speaker)}: {letter(m.camera)}</button
                    >
                </li>
            {/each}
        </ul>
        <button class="font-semibold text-tide hover:underline" data-testid="cut-speakers" onclick={cut}>Cut at each of them</button>
    </div>
{/if}
