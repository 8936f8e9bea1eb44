<script lang="ts">
    import { onMount } from 'svelte';
    import { router } from './lib/router.svelte';
    import { session } from './lib/session.svelte';
    import Productions from './pages/Productions.svelte';
    import SignIn from './pages/SignIn.svelte';
    import Workspace from './workspace/Workspace.svelte';

    onMount(() => session.load());
    const scene = $derived(/^\/scenes\/(\d+)$/.exec(router.path)?.[1]);
</script>

{#if !session.known}
    <p class="grid h-full place-items-center text-soft">Opening…</p>
{:else if !session.person}
    <SignIn />
{:else if scene}
    {#key scene}
        <Workspace id={Number(scene)} />
    {/key}
{:else}
    <Productions />
{/if}
