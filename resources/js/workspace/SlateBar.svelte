<script lang="ts">
    import { router } from '../lib/router.svelte';
    import { session } from '../lib/session.svelte';
    import { getDesk, STEPS, type Step } from './context';
    import NotesList from './NotesList.svelte';

    let { step = $bindable(), onkeys }: { step: Step; onkeys: () => void } = $props();
    const { scene } = getDesk();
    const initials = $derived(
        (session.person?.name ?? '?')
            .split(' ')
            .map((w) => w[0])
            .slice(0, 2)
            .join('')
            .toUpperCase(),
    );
    const saved = $derived({ saved: 'saved', saving: 'saving…', waiting: 'waiting for the server' }[scene.saving]);

    function follow(e: MouseEvent, to: string) {
        e.preventDefault();
        router.go(to);
    }

    const turns = [
        { way: 'undo', label: 'Undo', keys: 'Ctrl+Z', arrow: 'M4 9h10a6 6 0 0 1 0 12h-3M4 9l5-5M4 9l5 5' },
        { way: 'redo', label: 'Redo', keys: 'Ctrl+Shift+Z', arrow: 'M20 9H10a6 6 0 0 0 0 12h3M20 9l-5-5M20 9l-5 5' },
    ] as const;
</script>

<header class="flex h-11 shrink-0 items-center gap-3 border-b border-line bg-paper px-3">
    <a href="/" class="shrink-0" title="Productions" onclick={(e) => follow(e, '/')}
        ><img src="/icon.svg" alt="Productions" class="h-6 w-6" /></a
    >
    <p class="min-w-0 flex-1 truncate">
        <strong>{scene.production.name}</strong> <span class="text-soft">/ {scene.name}</span>
    </p>
    <nav class="flex rounded bg-desk p-1" aria-label="Steps">
        {#each STEPS as s (s)}
            <button
                class={['rounded px-4 py-1 font-semibold', step === s ? 'bg-sheet shadow-sm' : 'text-soft hover:text-ink']}
                aria-current={step === s ? 'step' : undefined}
                data-testid={`step-${s}`}
                onclick={() => (step = s)}>{s}</button
            >
        {/each}
    </nav>
    <div class="flex min-w-0 flex-1 items-center justify-end gap-3">
        {#each turns as t (t.way)}
            <button
                class="grid h-7 w-7 place-items-center rounded border border-line hover:bg-desk disabled:opacity-40"
                disabled={!scene.history[t.way]}
                title={scene.history[t.way] ? `${t.label}: ${scene.history[t.way]} (${t.keys})` : `Nothing to ${t.way}`}
                aria-label={t.label}
                data-testid={t.way}
                onclick={() => scene[t.way]()}
            >
                <svg viewBox="0 0 24 24" class="h-4 w-4" fill="none" stroke="currentColor" stroke-width="2" aria-hidden="true"
                    ><path d={t.arrow} /></svg
                >
            </button>
        {/each}
        <button
            class="grid h-7 w-7 place-items-center rounded border border-line font-semibold hover:bg-desk"
            title="All keys (?)"
            aria-label="All keys"
            onclick={onkeys}>?</button
        >
        {#if scene.here.length > 0}<span class="truncate text-xs text-soft" title="Also here now">with {scene.here.join(', ')}</span>{/if}
        <NotesList />
        <span class={['text-xs', scene.saving === 'waiting' ? 'font-semibold text-buoy' : 'text-soft']} data-testid="saving">{saved}</span>
        <span
            class="grid h-7 w-7 shrink-0 place-items-center rounded-full bg-tide text-xs font-bold text-white"
            title={session.person?.name}>{initials}</span
        >
    </div>
</header>
