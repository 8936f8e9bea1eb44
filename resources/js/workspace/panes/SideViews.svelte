<script lang="ts">
    import { onDestroy, untrack } from 'svelte';
    import { SmallPictures } from '../cover/smallPictures.svelte';
    import { standingAt } from '../cover/standing';
    import { getDesk } from '../context';
    import { sideViews } from './sideViews';

    /** The scene at the playhead from before, from the side and from above, beside what the camera sees. */
    const { scene, playhead, view } = getDesk();
    const pictures = new SmallPictures(
        () => view.painter,
        (frame) => scene.posesAt(frame),
        320,
        180,
    );
    onDestroy(() => pictures.close());

    const frame = $derived(playhead.playing ? null : playhead.frame);
    const views = $derived.by(() => {
        void scene.posesVersion;
        const people = scene.rows.items.filter((i) => i.kind === 'performer');
        return sideViews(
            people.map((i) => {
                const at = standingAt(scene, i.id, frame ?? playhead.frame) ?? [i.position[0], i.position[2]];
                return [at[0], i.position[1], at[1]];
            }),
        );
    });
    const key = (name: string) => `${name} ${frame} ${scene.manifest?.state}`;
    let last = $state.raw<Record<string, string>>({});
    $effect(() => {
        void [scene.posesVersion, view.firstPicture];
        if (frame === null || !scene.posesAt(frame)) return;
        const now = views.map((v) => ({ key: key(v.name), view: v.view, frame }));
        untrack(() => pictures.ask(now));
    });
    $effect(() => {
        const made = views.flatMap(({ name }) => {
            const picture = pictures.made[key(name)];
            return picture ? [[name, picture] as const] : [];
        });
        if (made.length > 0) last = { ...untrack(() => last), ...Object.fromEntries(made) };
    });
</script>

<div class="grid shrink-0 grid-cols-3 gap-1 px-3 pb-1" data-testid="side-views">
    {#each views as v (v.name)}
        <figure class="relative aspect-video overflow-hidden bg-[#2c2d2f]">
            {#if last[v.name]}<img class="h-full w-full object-cover" src={last[v.name]} alt={`The scene, ${v.name.toLowerCase()}`} />{/if}
            <figcaption class="absolute bottom-0 left-0 bg-ink/70 px-1 text-[10px] text-white">{v.name}</figcaption>
        </figure>
    {/each}
</div>
