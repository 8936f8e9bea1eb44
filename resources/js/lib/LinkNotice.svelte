<script lang="ts">
    import { onMount } from 'svelte';
    import { Health } from './answers';
    import { call } from './api';
    import { link } from './link.svelte';

    /** What waits for the server, in words. */
    let { pending = [], watch = true }: { pending?: string[]; watch?: boolean } = $props();

    const KINDS: Record<string, string> = {
        desk: 'previews and repairs',
        intake: 'files that are brought in',
        pictures: 'pictures for the kit',
        render: 'renders',
    };
    const EVERY = 4000;

    onMount(() => {
        let stop = false;
        async function look() {
            if (document.visibilityState === 'visible') {
                try {
                    const h = await call(Health, 'GET', 'health');
                    link.idle = Object.keys(h.taken).filter((k) => !h.taken[k]);
                    link.box = h.box;
                } catch {
                    // Whether it answers is noted by the call itself.
                }
            }
            if (!stop) setTimeout(look, EVERY);
        }
        if (watch) void look();
        return () => (stop = true);
    });
</script>

{#if link.away}
    <div class="border-b border-buoy bg-[#fdf0dc] px-4 py-1.5 text-sm text-ink" role="alert" data-testid="away">
        <strong>The server is away.</strong>
        {#if pending.length > 0}Kept on this page, and sent when it is back: {pending.slice(0, 6).join('; ')}{pending.length > 6
                ? `; and ${pending.length - 6} more`
                : ''}.
        {:else}What you do is kept on this page, and sent when it is back.{/if}
    </div>
{:else if link.idle.length > 0}
    <div class="border-b border-buoy bg-[#fdf0dc] px-4 py-1.5 text-sm text-ink" role="alert" data-testid="idle">
        <strong>Nobody does this work at present: {link.idle.map((k) => KINDS[k] ?? k).join(', ')}.</strong> It waits and goes on by itself. Who
        runs this installation starts the workers with bin/start, or with bin/serve on another machine.
    </div>
{/if}
