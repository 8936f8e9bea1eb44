<script lang="ts">
    import { onMount } from 'svelte';
    import { router } from './lib/router.svelte';
    import { session } from './lib/session.svelte';
    import Join from './pages/Join.svelte';
    import NewPassword from './pages/NewPassword.svelte';
    import Productions from './pages/Productions.svelte';
    import SignIn from './pages/SignIn.svelte';
    import Workspace from './workspace/Workspace.svelte';

    onMount(() => session.load());
    const invitation = $derived(/^\/join\/([A-Za-z0-9]{20,})$/.exec(router.path)?.[1]);
    const scene = $derived(/^\/scenes\/(\d+)$/.exec(router.path)?.[1]);
</script>

{#if !session.known}
    <p class="grid h-full place-items-center text-soft">Opening…</p>
{:else if router.path === '/new-password'}
    <NewPassword />
{:else if invitation}
    <Join token={invitation} />
{:else if !session.person}
    <SignIn />
{:else if scene}
    {#key scene}
        <Workspace id={Number(scene)} />
    {/key}
{:else}
    <Productions />
{/if}
