<script lang="ts">
    import type { SetUp } from './setups';

    /** A set-up to take: what a camera would see now, or why it cannot. */
    let { setUp, picture, take }: { setUp: SetUp; picture: string | undefined; take: () => void } = $props();
</script>

<button
    class={[
        'flex flex-col overflow-hidden rounded border bg-sheet text-left',
        setUp.view ? 'border-line hover:border-tide' : 'border-line opacity-70',
    ]}
    data-testid={`setup-${setUp.title}`}
    disabled={!setUp.view}
    title={setUp.says || setUp.title}
    onclick={take}
>
    <span class="relative block aspect-video w-full bg-surround">
        {#if picture}<img
                class="h-full w-full"
                src={picture}
                alt={`What the camera would see: ${setUp.title}`}
            />{:else if !setUp.view}<span
                class="absolute inset-0 grid place-items-center p-1 text-center text-[10px] leading-tight text-paper">{setUp.says}</span
            >{/if}
    </span>
    <span class="px-1 py-0.5 text-[11px] leading-tight">
        {setUp.title}
        {#if setUp.crosses}<span class="block text-[10px] text-alarm">across the line</span>{/if}
        {#if setUp.view && setUp.says}<span class="block text-[10px] text-soft">{setUp.says}</span>{/if}
    </span>
</button>
