<script lang="ts">
    import { Modal } from 'flowbite-svelte';

    let { open = $bindable() }: { open: boolean } = $props();
    const KEYS: [string, string][] = [
        ['Space', 'play or stop'],
        ['J  K  L', 'shuttle back, stop, on'],
        ['left  right', 'one frame; with Shift ten'],
        ['up  down', 'previous and next cut'],
        ['Home  End', 'start and end'],
        ['I  O', 'set in and out'],
        ['1 to 9', 'cut to camera A, B, C ... at the playhead'],
        ['C', 'bring the selection into view'],
        ['D', 'duplicate the selection'],
        ['Del', 'remove the selection'],
        ['P', 'plan, picture, or both'],
        ['F', 'the reel on the whole screen'],
        ['Ctrl+Z', 'undo; with Shift redo'],
        ['Esc', 'let go of a drag, or of the selection'],
        ['drag in the picture', 'turn the view; with Shift move it; wheel goes near'],
        ['Alt+W A S D', 'walk, with the picture focused'],
        ['M, S', 'sound on or off; what is said in the picture'],
        ['Ctrl+arrows', 'move an item focused on the plan by 10 cm'],
        ['?', 'this sheet'],
    ];
</script>

<Modal title="Keys" bind:open size="md">
    <dl class="grid grid-cols-[150px_1fr] gap-x-4 gap-y-1.5 text-sm">
        {#each KEYS as [key, what] (key)}<dt class="mono text-ink">{key}</dt>
            <dd>{what}</dd>{/each}
    </dl>
</Modal>
