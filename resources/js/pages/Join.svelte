<script lang="ts">
    import { Alert, Button } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import { Invitation, Joined } from '../lib/answers';
    import { ApiError, call } from '../lib/api';
    import { router } from '../lib/router.svelte';
    import { session } from '../lib/session.svelte';
    import Door from './Door.svelte';
    import SignIn from './SignIn.svelte';

    let { token }: { token: string } = $props();
    let asked = $state<Invitation | null>(null);
    let error = $state<ApiError | null>(null);

    onMount(async () => {
        try {
            asked = await call(Invitation, 'GET', `invitations/${token}`);
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            error = e;
        }
    });

    async function accept() {
        error = null;
        try {
            const got = await call(Joined, 'POST', `invitations/${token}`);
            router.go(got.scene ? `/scenes/${got.scene}` : '/', true);
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            error = e;
        }
    }

    async function other() {
        await session.leave();
        error = null;
    }
</script>

{#if asked && !session.person}
    <SignIn
        why={`You are asked to join "${asked.production}" as ${asked.role === 'editor' ? 'an editor' : 'a viewer'}. Sign in as ${asked.email}, or make an account with that address.`}
    />
{:else}
    <Door label="An invitation" onsubmit={accept}>
        {#if asked}
            <p>
                You are asked to join <strong>{asked.production}</strong> as {asked.role === 'editor'
                    ? 'an editor: you may change everything in it'
                    : 'a viewer: you may watch, and change nothing'}.
            </p>
            <p class="text-soft">For {asked.email}, until {new Date(asked.ends).toLocaleDateString()}.</p>
        {/if}
        {#if error}<Alert color="red" role="alert"><strong>{error.message}</strong> {error.remedy}</Alert>{/if}
        {#if asked && session.person?.email === asked.email}<Button type="submit">Join</Button>{/if}
        {#if asked && session.person && session.person.email !== asked.email}
            <p>You are signed in as {session.person.email}.</p>
            <Button type="button" color="alternative" onclick={other}>Sign in as {asked.email}</Button>
        {/if}
        <button type="button" class="self-start font-medium text-tide hover:underline" onclick={() => router.go('/', true)}
            >To my productions</button
        >
    </Door>
{/if}
