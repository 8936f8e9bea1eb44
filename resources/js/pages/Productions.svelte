<script lang="ts">
    import { Alert, Button, Input, Modal, Label, Select } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import { MadeProduction, MadeScene, Productions as Shown, type Production } from '../lib/answers';
    import { ApiError, call } from '../lib/api';
    import { router } from '../lib/router.svelte';
    import LinkNotice from '../lib/LinkNotice.svelte';
    import { session } from '../lib/session.svelte';
    import ChangePassword from './ChangePassword.svelte';
    import Measures from './Measures.svelte';
    import { RATES } from './measures';
    import Members from './Members.svelte';

    let list = $state<Production[] | null>(null);
    let making = $state(false);
    let name = $state('');
    let rate = $state('24/1');
    let error = $state<ApiError | null>(null);

    async function load() {
        list = (await call(Shown, 'GET', 'productions')).productions;
    }

    async function make(event: SubmitEvent) {
        event.preventDefault();
        error = null;
        try {
            const made = await call(MadeProduction, 'POST', 'productions', { name, rate: rate.split('/').map(Number) });
            router.go(`/scenes/${made.scene}`);
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            error = e;
        }
    }

    async function addScene(p: Production) {
        const made = await call(MadeScene, 'POST', `productions/${p.id}/scenes`, { name: `Scene ${p.scenes.length + 1}` });
        router.go(`/scenes/${made.id}`);
    }

    async function leave() {
        await session.leave();
        router.go('/', true);
    }

    onMount(load);
</script>

<div class="flex h-full flex-col">
    <header class="flex h-12 shrink-0 items-center gap-3 border-b border-line bg-paper px-5">
        <img src="/icon.svg" alt="" class="h-6 w-6" />
        <h1 class="text-base font-bold">Crisp Reel</h1>
        <span class="flex-1"></span>
        <span class="text-soft">{session.person?.name}</span>
        <ChangePassword />
        <Button size="xs" color="alternative" onclick={leave}>Sign out</Button>
    </header>
    <LinkNotice />
    <main class="flex-1 overflow-auto px-8 py-6">
        <div class="mx-auto max-w-5xl">
            <div class="mb-5 flex items-center justify-between">
                <h2 class="text-xl font-semibold">Productions</h2>
                <Button size="sm" onclick={() => (making = true)}>New production</Button>
            </div>
            {#if list === null}
                <p class="text-soft">Looking…</p>
            {:else if list.length === 0}
                <div class="rounded border border-dashed border-line bg-sheet p-10 text-center">
                    <p class="mb-1 text-lg font-semibold">Nothing here yet</p>
                    <p class="mb-4 text-soft">A production holds scenes: a set, people who do things in it, cameras, and the cut.</p>
                    <Button onclick={() => (making = true)}>Make your first production</Button>
                </div>
            {:else}
                <ul class="grid gap-4 md:grid-cols-2">
                    {#each list as p (p.id)}
                        <li class="rounded border border-line bg-sheet p-4">
                            <div class="flex items-baseline gap-2">
                                <h3 class="flex-1 text-base font-semibold">{p.name}</h3>
                                <Measures production={p} onchanged={load} />
                            </div>
                            <ul class="mt-3 flex flex-col gap-1">
                                {#each p.scenes as s (s.id)}
                                    <li>
                                        <a
                                            href={`/scenes/${s.id}`}
                                            class="flex items-center justify-between rounded border border-line bg-paper px-3 py-2 hover:border-tide"
                                            onclick={(e) => (e.preventDefault(), router.go(`/scenes/${s.id}`))}
                                        >
                                            <span class="font-medium">{s.name}</span>
                                            <span class="text-xs text-soft">{new Date(s.changed).toLocaleDateString()}</span>
                                        </a>
                                    </li>
                                {/each}
                            </ul>
                            <div class="mt-2 flex gap-4">
                                {#if p.role !== 'viewer'}
                                    <button class="font-medium text-tide hover:underline" onclick={() => addScene(p)}>Add a scene</button>
                                {/if}
                                <Members production={p.id} name={p.name} onleft={load} />
                                {#if p.role !== 'owner'}<span class="flex-1 text-right text-xs text-soft">you are {p.role}</span>{/if}
                            </div>
                        </li>
                    {/each}
                </ul>
            {/if}
        </div>
    </main>
</div>

<Modal title="New production" bind:open={making} size="sm">
    <form class="flex flex-col gap-4" onsubmit={make}>
        <div>
            <Label for="production-name" class="mb-1 text-ink">Name</Label>
            <Input id="production-name" bind:value={name} required maxlength={120} />
        </div>
        <div>
            <Label for="production-rate" class="mb-1 text-ink">Frame rate, for everything in it</Label>
            <Select id="production-rate" items={RATES} bind:value={rate} />
        </div>
        {#if error}<Alert color="red" role="alert"><strong>{error.message}</strong> {error.remedy}</Alert>{/if}
        <Button type="submit">Make it</Button>
    </form>
</Modal>
