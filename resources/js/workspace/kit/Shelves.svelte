<script lang="ts">
    import { Input } from 'flowbite-svelte';
    import { untrack } from 'svelte';
    import { call } from '../../lib/api';
    import { getDesk } from '../context';
    import { TAPE, type AssetRow } from '../rows';
    import AssetTile from '../trays/AssetTile.svelte';
    import { Page } from './answers';
    import Details from './Details.svelte';
    import { STYLES } from './facts';

    const { scene, kit } = getDesk();
    const KINDS = [
        ['', 'Everything'],
        ['performer', 'People'],
        ['set', 'Sets'],
        ['prop', 'Props'],
        ['motion', 'Motions'],
        ['sound', 'Sounds'],
        ['picture', 'Pictures'],
    ] as const;
    /** Filters that are not offered for a kind, and so do not filter it. */
    const HIDDEN: Record<string, string[]> = {
        '': ['travel', 'length', 'parts'],
        performer: ['travel', 'length', 'parts'],
        set: ['travel', 'length', 'parts', 'face'],
        prop: ['travel', 'length', 'face'],
        motion: ['style', 'parts', 'face'],
        sound: ['style', 'travel', 'parts', 'face'],
        picture: ['style', 'travel', 'length', 'parts', 'face'],
    };
    const TICKS = [
        ['scene', 'used in this scene'],
        ['face', 'with a face that moves'],
        ['parts', 'with working parts'],
        ['archived', 'put away'],
    ] as const;
    const CHUNK = 60;
    const ROW = 148;
    const MIN_TILE = 150;

    let q = $state('');
    let f = $state({
        licence: '',
        house: '',
        colour: '',
        folder: '',
        scene: false,
        face: false,
        parts: false,
        travel: '',
        length: '',
        style: '',
        archived: false,
        sort: '',
    });
    let total = $state(0);
    let licences = $state<string[]>([]);
    let folders = $state<string[]>([]);
    /** Pages by number, asked for as they scroll into view. */
    let pages = $state.raw<Record<number, AssetRow[]>>({});
    let width = $state(600);
    let height = $state(500);
    let top = $state(0);
    let asked = 0;
    let scroller = $state<HTMLDivElement>();

    const query = $derived.by(() => {
        const p: Record<string, string> = {
            q: q.trim(),
            kind: kit.kind,
            scene: f.scene ? String(scene.id) : '',
            archived: f.archived ? '1' : '',
        };
        const hidden = HIDDEN[kit.kind] ?? [];
        for (const k of ['face', 'parts'] as const) p[k] = f[k] && !hidden.includes(k) ? '1' : '';
        for (const k of ['licence', 'house', 'colour', 'folder', 'travel', 'length', 'style', 'sort'] as const)
            if (!hidden.includes(k)) p[k] = f[k];
        return Object.entries(p)
            .filter(([, v]) => v !== '')
            .map(([k, v]) => `${k}=${encodeURIComponent(v)}`)
            .join('&');
    });
    const columns = $derived(Math.max(1, Math.floor(width / MIN_TILE)));
    const first = $derived(Math.max(0, Math.floor(top / ROW) - 1) * columns);
    const last = $derived(Math.min(total, (Math.ceil((top + height) / ROW) + 1) * columns));
    const seen = $derived(
        Array.from({ length: Math.max(0, last - first) }, (_, i) => ({
            n: first + i,
            a: pages[Math.floor((first + i) / CHUNK)]?.[(first + i) % CHUNK] ?? null,
        })),
    );

    $effect(() => {
        const now = query;
        void kit.version;
        const wait = setTimeout(() => {
            untrack(() => void begin(now));
        }, 120);
        return () => clearTimeout(wait);
    });
    $effect(() => {
        for (let p = Math.floor(first / CHUNK); p <= Math.floor(Math.max(first, last - 1) / CHUNK); p++) untrack(() => void load(p));
    });

    async function begin(now: string) {
        const turn = ++asked;
        const got = await call(Page, 'GET', `productions/${scene.production.id}/kit?${now}&limit=${CHUNK}`);
        if (turn !== asked) return;
        pages = { 0: got.assets };
        total = got.total;
        licences = got.licences;
        folders = got.folders;
        if (scroller) scroller.scrollTop = 0;
    }
    async function load(p: number) {
        if (pages[p] || p * CHUNK >= total) return;
        const turn = asked;
        pages = { ...pages, [p]: [] };
        const got = await call(Page, 'GET', `productions/${scene.production.id}/kit?${query}&limit=${CHUNK}&offset=${p * CHUNK}`);
        if (turn === asked) pages = { ...pages, [p]: got.assets };
    }
</script>

<div class="flex min-h-0 flex-1">
    <div class="flex w-[190px] shrink-0 flex-col gap-3 overflow-auto border-r border-line p-3 text-xs">
        <nav class="flex flex-col" aria-label="Shelves">
            {#each KINDS as [k, text] (k)}
                <button
                    class={[
                        'rounded px-2 py-1 text-left text-[13px]',
                        kit.kind === k ? 'bg-tide font-semibold text-white' : 'hover:bg-sheet',
                    ]}
                    aria-pressed={kit.kind === k}
                    onclick={() => (kit.kind = k)}>{text}</button
                >
            {/each}
        </nav>
        <label class="flex flex-col gap-1"
            >Whose
            <select class="rounded border-line bg-sheet py-1 text-xs" bind:value={f.house} data-testid="kit-whose"
                ><option value="">anyone's</option><option value="1">the house kit</option><option value="0">this production's own</option
                ><option value="mine">my collection</option></select
            ></label
        >
        <label class="flex flex-col gap-1"
            >Licence
            <select class="rounded border-line bg-sheet py-1 text-xs" bind:value={f.licence}
                ><option value="">any</option>{#each licences as l (l)}<option value={l}>{l}</option>{/each}</select
            ></label
        >
        {#if folders.length > 0}
            <label class="flex flex-col gap-1"
                >Folder
                <select class="rounded border-line bg-sheet py-1 text-xs" bind:value={f.folder}
                    ><option value="">all</option>{#each folders as l (l)}<option value={l}>{l}</option>{/each}</select
                ></label
            >
        {/if}
        {#if kit.kind !== 'motion' && kit.kind !== 'sound' && kit.kind !== 'picture'}
            <label class="flex flex-col gap-1"
                ><span title="How surfaces were made: painted in the manner of the house, with pictures on them, or in plain colours"
                    >Style</span
                >
                <select class="rounded border-line bg-sheet py-1 text-xs" bind:value={f.style} data-testid="kit-style"
                    ><option value="">any</option>{#each Object.entries(STYLES) as [k, text] (k)}<option value={k}>{text}</option
                        >{/each}</select
                ></label
            >
        {/if}
        {#if kit.kind === 'motion'}
            <label class="flex flex-col gap-1"
                >Way
                <select class="rounded border-line bg-sheet py-1 text-xs" bind:value={f.travel}
                    ><option value="">any</option><option value="1">travels</option><option value="0">on the spot</option></select
                ></label
            >
        {/if}
        {#if kit.kind === 'motion' || kit.kind === 'sound'}
            <label class="flex flex-col gap-1"
                >Length
                <select class="rounded border-line bg-sheet py-1 text-xs" bind:value={f.length} data-testid="kit-length"
                    ><option value="">any</option><option value="short">up to 3 s</option><option value="middle">3 to 6 s</option><option
                        value="long">over 6 s</option
                    ></select
                ></label
            >
        {/if}
        <div class="flex flex-col gap-1">
            Colour tag
            <div class="flex flex-wrap gap-1">
                {#each TAPE as colour, n (colour)}
                    <button
                        class={['h-4 w-4 rounded-sm', f.colour === String(n) ? 'ring-2 ring-ink ring-offset-1' : '']}
                        style:background={colour}
                        aria-label={`Only what is tagged with colour ${n + 1}`}
                        aria-pressed={f.colour === String(n)}
                        onclick={() => (f.colour = f.colour === String(n) ? '' : String(n))}
                    ></button>
                {/each}
            </div>
        </div>
        <label class="flex flex-col gap-1"
            >Order
            <select class="rounded border-line bg-sheet py-1 text-xs" bind:value={f.sort} data-testid="kit-sort"
                ><option value="">best match</option><option value="name">name</option><option value="length">length</option><option
                    value="newest">newest</option
                ></select
            ></label
        >
        {#each TICKS.filter(([k]) => !(HIDDEN[kit.kind] ?? []).includes(k)) as [k, text] (k)}
            <label class="flex items-center gap-2"
                ><input type="checkbox" class="rounded border-line text-tide" bind:checked={f[k]} />{text}</label
            >
        {/each}
    </div>
    <div class="flex min-w-0 flex-1 flex-col">
        <div class="flex items-center gap-3 border-b border-line p-2">
            <Input
                size="sm"
                class="max-w-md"
                placeholder="A word, a feeling, a verb"
                aria-label="Search the kit room"
                bind:value={q}
                onkeydown={(e: KeyboardEvent) => e.key !== 'Escape' && e.stopPropagation()}
            />
            <p class="text-xs text-soft" role="status" data-testid="kit-total">{total} found</p>
        </div>
        <div
            class="min-h-0 flex-1 overflow-auto bg-paper p-2 will-change-scroll"
            bind:this={scroller}
            bind:clientWidth={width}
            bind:clientHeight={height}
            onscroll={() => (top = scroller?.scrollTop ?? 0)}
            data-testid="kit-shelf"
        >
            {#if total === 0}<p class="p-4 text-soft">Nothing on the shelves fits. Take a filter away, or bring something in.</p>{/if}
            <div class="relative" style:height={`${Math.ceil(total / columns) * ROW}px`}>
                {#each seen as { n, a } (n)}
                    <div
                        class={['absolute p-1 [contain:strict]', a && kit.asset === a.id ? 'rounded ring-2 ring-tide' : '']}
                        style:left={`${((n % columns) * 100) / columns}%`}
                        style:top={`${Math.floor(n / columns) * ROW}px`}
                        style:width={`${100 / columns}%`}
                        style:height={`${ROW}px`}
                    >
                        {#if a}<AssetTile asset={a} hint="Look at it" pick={() => (kit.asset = a.id)} tall />{:else}<div
                                class="h-full rounded bg-desk"
                            ></div>{/if}
                    </div>
                {/each}
            </div>
        </div>
    </div>
    {#if kit.asset !== null}{#key kit.asset}<Details id={kit.asset} />{/key}{/if}
</div>
