<script lang="ts">
    import { Alert, Button, Input, Label, Modal } from 'flowbite-svelte';
    import { ApiError, tell } from '../lib/api';

    let open = $state(false);
    let old = $state('');
    let password = $state('');
    let error = $state<ApiError | null>(null);
    let done = $state(false);

    async function submit() {
        error = null;
        done = false;
        try {
            await tell('POST', 'password', { old, password });
            done = true;
            old = password = '';
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            error = e;
        }
    }
</script>

<Button size="xs" color="alternative" onclick={() => ((open = true), (done = false), (error = null))}>Password</Button>
<Modal title="Change the password" bind:open size="sm">
    <form class="flex flex-col gap-4" onsubmit={(e) => (e.preventDefault(), submit())}>
        <div>
            <Label for="old-password" class="mb-1 text-ink">Present password</Label>
            <Input id="old-password" type="password" bind:value={old} required autocomplete="current-password" />
        </div>
        <div>
            <Label for="next-password" class="mb-1 text-ink">New password</Label>
            <Input id="next-password" type="password" bind:value={password} required minlength={10} autocomplete="new-password" />
            <p class="mt-1 text-soft">Ten characters or more. Everywhere else you will be signed out.</p>
        </div>
        {#if error}<Alert color="red" role="alert"><strong>{error.message}</strong> {error.remedy}</Alert>{/if}
        {#if done}<Alert color="green" role="status">It is changed, and your other sessions have ended.</Alert>{/if}
        <Button type="submit">Change it</Button>
    </form>
</Modal>
