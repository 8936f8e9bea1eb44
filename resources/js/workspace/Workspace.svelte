<script lang="ts">
    import { PaneGroup, Pane, PaneResizer } from 'paneforge';
    import { onDestroy, onMount } from 'svelte';
    import { bytes } from '../lib/api';
    import { perSecond } from '../lib/time';
    import LinkNotice from '../lib/LinkNotice.svelte';
    import { router } from '../lib/router.svelte';
    import Card from './card/Card.svelte';
    import { setDesk } from './context';
    import { bindKeys } from './keys';
    import HoverPreview from './kit/HoverPreview.svelte';
    import { KitStore } from './kit/kit.svelte';
    import KitRoom from './kit/KitRoom.svelte';
    import KeySheet from './KeySheet.svelte';
    import Lanes from './Lanes.svelte';
    import FramePane from './panes/FramePane.svelte';
    import PlanPane from './panes/PlanPane.svelte';
    import PlayheadMark from './PlayheadMark.svelte';
    import { FrameView } from './panes/view.svelte';
    import { Playhead } from './playhead.svelte';
    import ReelStrip from './ReelStrip.svelte';
    import Ruler from './Ruler.svelte';
    import { SceneStore } from './scene.svelte';
    import { PlacesStore } from './speech/places.svelte';
    import { PeaksStore } from './speech/peaks.svelte';
    import { Recorder } from './speech/recorder.svelte';
    import { SoundDesk } from './speech/sound.svelte';
    import { SpeechStore } from './speech/speech.svelte';
    import SlateBar from './SlateBar.svelte';
    import { Timeline } from './timeline.svelte';
    import Transport from './Transport.svelte';
    import ActTray from './trays/ActTray.svelte';
    import BlockTray from './trays/BlockTray.svelte';
    import CastTray from './trays/CastTray.svelte';
    import CoverTray from './trays/CoverTray.svelte';
    import FinishTray from './trays/FinishTray.svelte';

    let { id }: { id: number } = $props();

    // svelte-ignore state_referenced_locally
    const scene = new SceneStore(id);
    const playhead = new Playhead(
        () => scene.frames,
        () => perSecond(scene.rate),
    );
    const view = new FrameView(scene, playhead);
    const kit = new KitStore(scene);
    const speech = new SpeechStore(scene);
    const places: PlacesStore = new PlacesStore(scene, () => sound.solo);
    const sound: SoundDesk = new SoundDesk(
        () => places.heard,
        () => scene.manifest?.lowering ?? [],
        (s) => bytes(s.from === 'kit' ? `blobs/${s.sound}` : `scenes/${id}/sounds/${s.sound}`),
    );
    playhead.sound = sound;
    const recorder = new Recorder(scene, playhead, speech);
    // svelte-ignore state_referenced_locally
    const peaks = new PeaksStore(id);
    const desk = setDesk({ scene, playhead, view, kit, speech, sound, recorder, peaks });

    let keysOpen = $state(false);
    let panes = $state<'both' | 'frame' | 'plan'>('both');
    let lower = $state<HTMLDivElement>();
    const line = new Timeline();
    onMount(() => {
        void scene.open().then(() => {
            if (scene.rows.shots.length > 0) view.source = { kind: 'reel' };
            view.step = scene.rows.items.length === 0 ? 'Cast' : scene.rows.shots.length > 0 ? 'Cover' : 'Block';
            line.shown = scene.frames;
            view.expose();
        });
        return bindKeys(desk, {
            sheet: () => (keysOpen = true),
            panes: () => (panes = panes === 'both' ? 'plan' : panes === 'plan' ? 'frame' : 'both'),
        });
    });
    onDestroy(() => (recorder.drop(), playhead.stop(), scene.close()));

    // What is to be heard is here before it is wanted.
    $effect(() => {
        if (scene.manifest && view.firstPicture > 0) sound.prepare();
    });

    $effect(() => {
        if (!lower) return;
        const sizes = new ResizeObserver((l) => (line.width = l[0]?.contentRect.width ?? 900));
        sizes.observe(lower);
        return () => sizes.disconnect();
    });

    // The whole scene fits the lanes until somebody zooms them.
    let fitted = true;
    $effect(() => {
        const n = scene.frames;
        if (fitted) {
            line.from = 0;
            line.shown = n;
        }
    });

    $effect(() => void (scene.inView = playhead.frame));

    $effect(() => {
        // What lies ahead waits for the first picture, which it would only delay.
        if (scene.manifest && view.firstPicture > 0) void scene.poses.fetchAll(playhead.frame);
    });

    function wheel(e: WheelEvent) {
        if (!e.ctrlKey && !e.shiftKey) return;
        e.preventDefault();
        if (e.shiftKey)
            line.from = Math.max(0, Math.min(scene.frames - line.shown, line.from + (e.deltaY || e.deltaX) / line.perFrame / 2));
        else line.zoom(e.deltaY > 0 ? 1.2 : 1 / 1.2, line.frame(e.clientX), scene.frames);
        fitted = line.shown >= scene.frames - 0.5;
    }
</script>

<svelte:head><title>{scene.name ? `${scene.name}, ${scene.production.name}` : 'Crisp Reel'}</title></svelte:head>

{#if scene.lost}
    <main class="grid h-full place-items-center">
        <div class="max-w-md rounded border border-line bg-sheet p-8 text-center" role="alert">
            <p class="mb-1 text-lg font-semibold">{scene.lost.status === 404 ? 'This scene is not here' : scene.lost.message}</p>
            <p class="mb-4 text-soft">
                {scene.lost.status === 404 ? 'It may have been removed, or it belongs to someone else.' : scene.lost.remedy}
            </p>
            <a class="font-medium text-tide hover:underline" href="/" onclick={(e) => (e.preventDefault(), router.go('/'))}
                >To your productions</a
            >
        </div>
    </main>
{:else if !scene.ready}
    <p class="grid h-full place-items-center text-soft">Opening the scene…</p>
{:else}
    <div class="flex h-full min-w-[1000px] flex-col overflow-hidden" data-testid="workspace" data-revision={scene.revision}>
        <LinkNotice pending={scene.pending} />
        <SlateBar bind:step={view.step} onkeys={() => (keysOpen = true)} />
        <div class="flex min-h-0 flex-1">
            <div
                class={['shrink-0 overflow-hidden border-r border-line bg-desk', view.step === 'Cover' ? 'w-[272px]' : 'w-[216px]']}
                data-testid="tray"
            >
                {#if view.step === 'Cast'}<CastTray />{:else if view.step === 'Block'}<BlockTray />{:else if view.step === 'Act'}<ActTray
                    />{:else if view.step === 'Cover'}<CoverTray />{:else}<FinishTray />{/if}
            </div>
            <PaneGroup direction="horizontal" class="min-w-0 flex-1">
                {#if panes !== 'plan'}<Pane defaultSize={62} minSize={25} class="flex" order={1}><FramePane /></Pane>{/if}
                {#if panes === 'both'}<PaneResizer class="w-1 bg-line hover:bg-tide" aria-label="Width of picture and plan" />{/if}
                {#if panes !== 'frame'}
                    <Pane defaultSize={38} minSize={15} class="relative flex" order={2}>
                        <PlanPane />
                        <!-- From the top: what is added to the card by a click does not move the button under the pointer. -->
                        <div class="absolute top-10 right-2 max-h-[calc(100%-48px)] overflow-auto wide:hidden"><Card foldable /></div>
                    </Pane>
                {/if}
            </PaneGroup>
            {#if panes === 'frame'}<div class="absolute top-20 right-4 z-20 wide:hidden"><Card foldable /></div>{/if}
            <div class="hidden w-[240px] shrink-0 overflow-auto border-l border-line bg-paper p-3 wide:block">
                {#if scene.selection}<Card />{:else}<p class="text-soft">
                        Select something in the picture, on the plan or on a lane; what it is and does stands here.
                    </p>{/if}
            </div>
        </div>
        <Transport />
        <div class="relative flex h-[214px] shrink-0 flex-col" bind:this={lower} onwheel={wheel} role="presentation">
            <Ruler {line} />
            <ReelStrip {line} />
            <Lanes {line} />
            <PlayheadMark {line} />
        </div>
    </div>
    {#if kit.room}<KitRoom />{/if}
    <HoverPreview />
    {#if scene.notice}
        <div
            class={[
                'fixed bottom-4 left-1/2 z-50 flex max-w-xl -translate-x-1/2 items-start gap-3 rounded border bg-sheet px-4 py-3 shadow-lg',
                scene.notice.kind === 'error' ? 'border-alarm' : 'border-tide',
            ]}
            role={scene.notice.kind === 'error' ? 'alert' : 'status'}
            data-testid="notice"
        >
            <p><strong class={scene.notice.kind === 'error' ? 'text-alarm' : ''}>{scene.notice.message}</strong> {scene.notice.remedy}</p>
            {#if scene.notice.again}
                <button
                    class="shrink-0 font-semibold text-tide hover:underline"
                    data-testid="again"
                    onclick={() => {
                        const again = scene.notice?.again;
                        scene.notice = null;
                        void again?.();
                    }}>Do mine again</button
                >
            {/if}
            <button class="font-bold text-soft hover:text-ink" aria-label="Close" onclick={() => (scene.notice = null)}>x</button>
        </div>
    {/if}
{/if}

<KeySheet bind:open={keysOpen} />
