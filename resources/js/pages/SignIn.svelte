<script lang="ts">
    import { Alert, Button, Input, Label } from 'flowbite-svelte';
    import { ApiError } from '../lib/api';
    import { session } from '../lib/session.svelte';

    let registering = $state(false);
    let name = $state('');
    let email = $state('');
    let password = $state('');
    let error = $state<ApiError | null>(null);
    let busy = $state(false);

    async function submit(event: SubmitEvent) {
        event.preventDefault();
        busy = true;
        error = null;
        try {
            await session.enter(registering ? 'register' : 'sign-in', registering ? { name, email, password } : { email, password });
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            error = e;
        } finally {
            busy = false;
        }
    }
</script>

<main class="grid h-full grid-cols-1 bg-desk md:grid-cols-[minmax(380px,460px)_1fr]">
    <form
        class="flex flex-col justify-center gap-4 bg-paper px-10 py-8"
        onsubmit={submit}
        aria-label={registering ? 'Register' : 'Sign in'}
    >
        <div class="mb-4 flex items-center gap-3">
            <img src="/icon.svg" alt="" class="h-10 w-10" />
            <div>
                <h1 class="text-2xl font-bold tracking-tight">Crisp Reel</h1>
                <p class="text-soft">Work a scene out in motion before anyone shoots it.</p>
            </div>
        </div>
        <h2 class="text-lg font-semibold">{registering ? 'Make an account' : 'Sign in'}</h2>
        {#if registering}
            <div>
                <Label for="name" class="mb-1 text-ink">Your name</Label>
                <Input id="name" bind:value={name} required maxlength={80} autocomplete="name" />
            </div>
        {/if}
        <div>
            <Label for="email" class="mb-1 text-ink">E-mail address</Label>
            <Input id="email" type="email" bind:value={email} required autocomplete="email" />
        </div>
        <div>
            <Label for="password" class="mb-1 text-ink">Password</Label>
            <Input
                id="password"
                type="password"
                bind:value={password}
                required
                minlength={registering ? 10 : undefined}
                autocomplete={registering ? 'new-password' : 'current-password'}
            />
            {#if registering}<p class="mt-1 text-soft">Ten characters or more.</p>{/if}
        </div>
        {#if error}
            <Alert color="red" role="alert"><strong>{error.message}</strong> {error.remedy}</Alert>
        {/if}
        <Button type="submit" disabled={busy}>{registering ? 'Register' : 'Sign in'}</Button>
        <button
            type="button"
            class="self-start font-medium text-tide hover:underline"
            onclick={() => ((registering = !registering), (error = null))}
        >
            {registering ? 'I have an account' : 'I am new here'}
        </button>
    </form>
    <div class="hidden overflow-hidden bg-surround md:block">
        <img src="/cover.jpg" alt="Two people on a ferry pier at dusk" class="h-full w-full object-cover" />
    </div>
</main>
