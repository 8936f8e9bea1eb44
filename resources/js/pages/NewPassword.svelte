<script lang="ts">
    import { Alert, Button, Input, Label } from 'flowbite-svelte';
    import { ApiError, tell } from '../lib/api';
    import { router } from '../lib/router.svelte';
    import Door from './Door.svelte';

    // Behind the mark, so that no server and no log on the way sees it.
    const given = new URLSearchParams(location.hash.slice(1));
    let password = $state('');
    let error = $state<ApiError | null>(null);
    let done = $state(false);

    async function submit() {
        error = null;
        try {
            await tell('POST', 'password/reset', { email: given.get('email') ?? '', token: given.get('token') ?? '', password });
            done = true;
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            error = e;
        }
    }
</script>

<Door label="A new password" onsubmit={submit}>
    {#if done}
        <Alert color="green" role="status">Your password is changed. Whoever was signed in with the old one is out.</Alert>
        <Button type="button" onclick={() => router.go('/', true)}>Sign in</Button>
    {:else}
        <div>
            <Label for="password" class="mb-1 text-ink">New password for {given.get('email') ?? 'your account'}</Label>
            <Input id="password" type="password" bind:value={password} required minlength={10} autocomplete="new-password" />
            <p class="mt-1 text-soft">Ten characters or more; three or four words in a row are good.</p>
        </div>
        {#if error}<Alert color="red" role="alert"><strong>{error.message}</strong> {error.remedy}</Alert>{/if}
        <Button type="submit">Change it</Button>
    {/if}
</Door>
