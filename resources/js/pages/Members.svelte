<script lang="ts">
    import { Alert, Button, Input, Label, Modal } from 'flowbite-svelte';
    import { Invited, Members, type Asked, type Member } from '../lib/answers';
    import { ApiError, call, tell } from '../lib/api';

    let { production, name, onleft }: { production: number; name: string; onleft: () => void } = $props();
    let open = $state(false);
    let members = $state<Member[]>([]);
    let invitations = $state<Asked[]>([]);
    let owner = $state(false);
    let email = $state('');
    let role = $state('editor');
    let days = $state('14');
    let link = $state<{ url: string; for: string; mailed: boolean } | null>(null);
    let copied = $state(false);
    let error = $state<ApiError | null>(null);
    const base = $derived(`productions/${production}`);
    const select = 'rounded border-line bg-sheet py-1 text-sm';

    async function load() {
        const got = await call(Members, 'GET', `${base}/members`);
        members = got.members;
        invitations = got.invitations;
        owner = got.owner;
    }

    /** Does something and looks again; what went wrong is said. */
    async function act(what: () => Promise<unknown>) {
        error = null;
        try {
            await what();
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            error = e;
        }
        await load().catch(() => undefined);
    }

    const invite = () =>
        act(async () => {
            const got = await call(Invited, 'POST', `${base}/invitations`, { email, role, days: Number(days) });
            link = { url: got.link, for: email, mailed: got.mailed };
            copied = false;
            email = '';
        });

    async function copy() {
        if (!link) return;
        try {
            await navigator.clipboard.writeText(link.url);
            copied = true;
        } catch {
            document.querySelector<HTMLInputElement>('#invitation-link')?.select();
        }
    }

    const remove = (m: Member) =>
        act(async () => {
            await tell('DELETE', `${base}/members/${m.id}`);
            if (m.you) {
                open = false;
                onleft();
            }
        });
</script>

<button
    class="font-medium text-tide hover:underline"
    data-testid="people"
    onclick={() => ((open = true), (error = null), (link = null), void load())}>People</button
>

<Modal title={`People in ${name}`} bind:open size="md">
    <ul class="flex flex-col gap-2" aria-label="People">
        {#each members as m (m.id)}
            <li class="flex items-center gap-3" data-testid="member">
                <span class="min-w-0 flex-1 truncate"
                    ><strong>{m.name}</strong>{m.you ? ' (you)' : ''} <span class="text-soft">{m.email ?? ''}</span></span
                >
                {#if owner}
                    <select
                        class={select}
                        aria-label={`Role of ${m.name}`}
                        value={m.role}
                        onchange={(e) => {
                            const role = e.currentTarget.value;
                            void act(() => tell('PATCH', `${base}/members/${m.id}`, { role }));
                        }}
                    >
                        <option value="owner">owner</option><option value="editor">editor</option><option value="viewer">viewer</option>
                    </select>
                {:else}<span class="text-soft">{m.role}</span>{/if}
                {#if owner || m.you}<button
                        class="text-alarm hover:underline"
                        aria-label={m.you ? 'Leave' : `Remove ${m.name}`}
                        onclick={() => remove(m)}>{m.you ? 'Leave' : 'Remove'}</button
                    >{/if}
            </li>
        {/each}
        {#each invitations as i (i.id)}
            <li class="flex items-center gap-3 text-soft" data-testid="asked">
                <span class="min-w-0 flex-1 truncate"
                    >{i.email}, asked as {i.role}, {i.over ? 'has ended' : `until ${new Date(i.ends).toLocaleDateString()}`}</span
                >
                <button class="text-alarm hover:underline" onclick={() => act(() => tell('DELETE', `${base}/invitations/${i.id}`))}
                    >Withdraw</button
                >
            </li>
        {/each}
    </ul>
    {#if owner}
        <form
            class="mt-2 grid grid-cols-[1fr_auto_auto_auto] items-end gap-2 border-t border-line pt-4"
            onsubmit={(e) => (e.preventDefault(), invite())}
        >
            <div>
                <Label for="invite-email" class="mb-1 text-ink">Ask somebody by address</Label>
                <Input id="invite-email" type="email" bind:value={email} required size="sm" />
            </div>
            <select class={select} aria-label="Role" bind:value={role}
                ><option value="editor">editor</option><option value="viewer">viewer</option></select
            >
            <select class={select} aria-label="Good for" bind:value={days}
                ><option value="2">2 days</option><option value="14">14 days</option><option value="60">60 days</option></select
            >
            <Button size="sm" type="submit">Ask</Button>
        </form>
    {/if}
    {#if link}
        <div class="rounded border border-tide bg-sheet p-3" role="status">
            <p class="mb-1">
                {link.mailed ? 'A mail is on its way.' : 'This installation sends no mail.'} Give this link to {link.for}; it works for that
                address only.
            </p>
            <div class="flex gap-2">
                <input
                    id="invitation-link"
                    class="mono w-full rounded border border-line bg-paper px-2 py-1 text-xs"
                    aria-label="Link"
                    readonly
                    value={link.url}
                    onfocus={(e) => e.currentTarget.select()}
                />
                <Button size="xs" color="alternative" onclick={copy}>{copied ? 'Copied' : 'Copy'}</Button>
            </div>
        </div>
    {/if}
    {#if error}<Alert color="red" role="alert"><strong>{error.message}</strong> {error.remedy}</Alert>{/if}
</Modal>
