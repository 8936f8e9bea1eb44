<script lang="ts">
    import { Alert, Button, Input, Label } from 'flowbite-svelte';
    import { Message } from '../lib/answers';
    import { ApiError, call, tell } from '../lib/api';
    import { session } from '../lib/session.svelte';
    import Door from './Door.svelte';

    type Way = 'in' | 'new' | 'forgot';
    let { why = '' }: { why?: string } = $props();
    let way = $state<Way>('in');
    let name = $state('');
    let email = $state('');
    let password = $state('');
    let error = $state<ApiError | null>(null);
    let told = $state('');
    let busy = $state(false);

    const TITLES: Record<Way, string> = { in: 'Sign in', new: 'Make an account', forgot: 'A new password' };
    const BUTTONS: Record<Way, string> = { in: 'Sign in', new: 'Register', forgot: 'Send me a link' };

    async function submit() {
        busy = true;
        error = null;
        told = '';
        try {
            if (way === 'forgot') told = (await call(Message, 'POST', 'password/forgot', { email })).message;
            else {
                if (way === 'new') await tell('POST', 'register', { name, email, password });
                await session.enter({ email, password });
            }
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            error = e;
        } finally {
            busy = false;
        }
    }

    function go(to: Way) {
        way = to;
        error = null;
        told = '';
    }
</script>

<Door label={TITLES[way]} onsubmit={submit}>
    {#if why}<p class="rounded border border-line bg-sheet p-3">{why}</p>{/if}
    {#if way === 'new'}
        <div>
            <Label for="name" class="mb-1 text-ink">Your name</Label>
            <Input id="name" bind:value={name} required maxlength={80} autocomplete="name" />
        </div>
    {/if}
    <div>
        <Label for="email" class="mb-1 text-ink">E-mail address</Label>
        <Input id="email" type="email" bind:value={email} required autocomplete="email" />
    </div>
    {#if way !== 'forgot'}
        <div>
            <Label for="password" class="mb-1 text-ink">Password</Label>
            <Input
                id="password"
                type="password"
                bind:value={password}
                required
                minlength={way === 'new' ? 10 : undefined}
                autocomplete={way === 'new' ? 'new-password' : 'current-password'}
            />
            {#if way === 'new'}<p class="mt-1 text-soft">Ten characters or more; three or four words in a row are good.</p>{/if}
        </div>
    {/if}
    {#if error}
        <Alert color="red" role="alert"><strong>{error.message}</strong> {error.remedy}</Alert>
    {/if}
    {#if told}<Alert color="green" role="status">{told}</Alert>{/if}
    <Button type="submit" disabled={busy}>{BUTTONS[way]}</Button>
    <div class="flex gap-5">
        <button type="button" class="font-medium text-tide hover:underline" onclick={() => go(way === 'in' ? 'new' : 'in')}>
            {way === 'in' ? 'I am new here' : 'I have an account'}
        </button>
        {#if way === 'in'}<button type="button" class="font-medium text-tide hover:underline" onclick={() => go('forgot')}
                >I forgot my password</button
            >{/if}
    </div>
</Door>
