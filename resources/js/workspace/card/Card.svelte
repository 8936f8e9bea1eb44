<script lang="ts">
    import { getDesk } from '../context';
    import BeatCard from './BeatCard.svelte';
    import CameraCard from './CameraCard.svelte';
    import ContactCard from './ContactCard.svelte';
    import ExpressionCard from './ExpressionCard.svelte';
    import ItemCard from './ItemCard.svelte';
    import LineCard from './LineCard.svelte';
    import LinkCard from './LinkCard.svelte';
    import ShotCard from './ShotCard.svelte';
    import SoundCard from './SoundCard.svelte';
    import TouchUpCard from './TouchUpCard.svelte';

    /** Over the plan it can be folded away, and stays so until it is wanted. */
    let { foldable = false }: { foldable?: boolean } = $props();
    const { scene, view } = getDesk();
    const s = $derived(scene.selection);
    const item = $derived(s?.table === 'items' ? scene.find('items', s.id) : null);
    const beat = $derived(s?.table === 'beats' ? scene.find('beats', s.id) : null);
    const link = $derived(s?.table === 'links' ? scene.find('links', s.id) : null);
    const camera = $derived(s?.table === 'cameras' ? scene.find('cameras', s.id) : null);
    const contact = $derived(s?.table === 'contacts' ? scene.find('contacts', s.id) : null);
    const touchUp = $derived(s?.table === 'touch_ups' ? scene.find('touch_ups', s.id) : null);
    const shot = $derived(s?.table === 'shots' ? scene.find('shots', s.id) : null);
    const line = $derived(s?.table === 'lines' ? scene.find('lines', s.id) : null);
    const expression = $derived(s?.table === 'expressions' ? scene.find('expressions', s.id) : null);
    const sound = $derived(s?.table === 'sounds' ? scene.find('sounds', s.id) : null);
    const title = $derived.by(() => {
        if (item) return item.name;
        if (beat) return scene.asset(beat.assetId)?.name ?? 'Beat';
        if (camera) return `Camera ${camera.letter}`;
        if (line) return 'Line';
        if (sound) return scene.asset(sound.assetId)?.name ?? 'Sound';
        if (expression) return 'Expression';
        if (shot) return `Shot ${shot.label ?? ''}`;
        return link ? 'Carry' : contact ? 'Touch' : 'Touch-up';
    });
</script>

{#if foldable && view.folded && scene.selection}
    <button
        class="max-w-[214px] truncate rounded border border-line bg-sheet px-3 py-1.5 text-xs font-semibold shadow-lg"
        aria-expanded="false"
        data-testid="unfold-card"
        onclick={() => (view.folded = false)}>{title} <span class="font-normal text-tide">open</span></button
    >
{:else if item || beat || link || camera || shot || contact || touchUp || line || expression || sound}
    <aside class="w-[214px] rounded border border-line bg-sheet p-3 text-xs shadow-lg" aria-label="Selected" data-testid="card">
        {#if foldable}<button
                class="-mt-2 mb-1 block w-full text-right text-[10px] text-soft hover:text-tide"
                aria-expanded="true"
                data-testid="fold-card"
                title="Fold the card; the plan lies free"
                onclick={() => (view.folded = true)}>fold</button
            >{/if}
        {#if item}<ItemCard {item} />{/if}
        {#if beat}<BeatCard {beat} />{/if}
        {#if link}<LinkCard {link} />{/if}
        {#if camera}<CameraCard {camera} />{/if}
        {#if contact}<ContactCard {contact} />{/if}
        {#if touchUp}<TouchUpCard {touchUp} />{/if}
        {#if shot}<ShotCard {shot} />{/if}
        {#if line}<LineCard {line} />{/if}
        {#if expression}<ExpressionCard {expression} />{/if}
        {#if sound}<SoundCard {sound} />{/if}
    </aside>
{/if}
