<script lang="ts">
    import { untrack } from 'svelte';
    import { getDesk } from '../context';
    import CameraList from '../cover/CameraList.svelte';
    import FirstCutPanel from '../cover/FirstCutPanel.svelte';
    import SpeakerCuts from '../cover/SpeakerCuts.svelte';
    import SetUpsPanel from '../cover/SetUpsPanel.svelte';

    const { scene, playhead, view } = getDesk();
    type Tab = 'setups' | 'cameras' | 'cut';
    let wish = $state<Tab | null>(null);
    // What is selected says what is wanted, until somebody says otherwise.
    const tab = $derived(wish ?? (scene.selection?.table === 'items' ? 'setups' : 'cameras'));
    $effect(() => {
        void scene.selection;
        if (untrack(() => wish) !== 'cut') wish = null;
    });

    async function make() {
        const pose = view.pose();
        if (!(await scene.edit({ do: 'camera.add', ...pose, frame: playhead.frame }))) return;
        const made = scene.rows.cameras[scene.rows.cameras.length - 1];
        if (made) {
            scene.select('cameras', made.id);
            view.covering = made.id;
            view.source = { kind: 'camera', id: made.id };
        }
    }
</script>

<div class="flex h-full flex-col">
    <div class="flex items-center gap-1 border-b border-line p-2" role="tablist">
        {#each [['setups', 'Set-ups'], ['cameras', `Cameras (${scene.rows.cameras.length})`], ['cut', 'First cut']] as [id, word] (id)}
            <button
                role="tab"
                aria-selected={tab === id}
                data-testid={`cover-${id}`}
                class={['shrink-0 rounded px-2 py-1 text-xs', tab === id ? 'bg-ink text-paper' : 'hover:bg-sheet']}
                onclick={() => (wish = id as Tab)}>{word}</button
            >
        {/each}
        <span class="flex-1"></span>
        <button
            class="shrink-0 text-xs font-semibold text-tide hover:underline"
            onclick={make}
            data-testid="camera-from-view"
            title="A camera where you look from now; turn the picture by dragging first">+ Here</button
        >
    </div>
    {#if tab !== 'setups'}<SpeakerCuts />{/if}
    {#if tab === 'setups'}<SetUpsPanel />{:else if tab === 'cut'}<FirstCutPanel />{:else}<CameraList />{/if}
</div>
