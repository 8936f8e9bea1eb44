<script lang="ts">
    import type { Snippet } from 'svelte';

    /** What all pages at the door look like: a form at the left, a picture at the right. */
    let { label, onsubmit, children }: { label: string; onsubmit: (e: SubmitEvent) => void; children: Snippet } = $props();
</script>

<main class="grid h-full grid-cols-1 bg-desk md:grid-cols-[minmax(380px,460px)_1fr]">
    <form
        class="flex flex-col justify-center gap-4 bg-paper px-10 py-8"
        onsubmit={(e) => (e.preventDefault(), onsubmit(e))}
        aria-label={label}
    >
        <div class="mb-4 flex items-center gap-3">
            <img src="/icon.svg" alt="" class="h-10 w-10" />
            <div>
                <h1 class="text-2xl font-bold tracking-tight">Crisp Reel</h1>
                <p class="text-soft">Work a scene out in motion before anyone shoots it.</p>
            </div>
        </div>
        <h2 class="text-lg font-semibold">{label}</h2>
        {@render children()}
    </form>
    <div class="hidden overflow-hidden bg-surround md:block">
        <img src="/cover.jpg" alt="Two people on a ferry pier at dusk" class="h-full w-full object-cover" />
    </div>
</main>
