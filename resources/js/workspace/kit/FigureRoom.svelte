<script lang="ts">
    import { Button, Input } from 'flowbite-svelte';
    import { onMount } from 'svelte';
    import type { InferOutput } from 'valibot';
    import { ApiError, call } from '../../lib/api';
    import { AssetRow } from '../answers';
    import { getDesk } from '../context';
    import { Choices, type Spec } from './answers';
    import Turntable from './Turntable.svelte';

    const { scene, kit } = getDesk();
    const SLIDERS = [
        ['heightMetres', 'Height', 0.9, 2.1, 0.01, 'm'],
        ['build', 'Build', 0, 1, 0.05, ''],
        ['head', 'Head', 1, 1.45, 0.01, ''],
        ['nose', 'Nose', 0, 1, 0.05, ''],
        ['jaw', 'Jaw', 0, 1, 0.05, ''],
        ['eyes', 'Eyes', 0, 1, 0.05, ''],
        ['age', 'Age', 0, 1, 0.05, ''],
    ] as const;
    let choices = $state<InferOutput<typeof Choices> | null>(null);
    let spec = $state<InferOutput<typeof Spec> | null>(null);
    let shown = $state('');
    let seed = $state(1 + Math.floor(Math.random() * 900));
    let busy = $state(false);
    const people = $derived(scene.assets.filter((a) => a.kind === 'performer' && a.house));
    const path = $derived(shown ? `productions/${scene.production.id}/figures/preview?spec=${encodeURIComponent(shown)}` : null);

    onMount(() => begin(`seed=${seed}`));

    // Each change is drawn once the hand has rested.
    $effect(() => {
        const text = spec ? JSON.stringify(spec) : '';
        const wait = setTimeout(() => (shown = text), 350);
        return () => clearTimeout(wait);
    });

    async function begin(query: string) {
        const got = await call(Choices, 'GET', `productions/${scene.production.id}/figures?${query}`);
        choices = got;
        spec = { ...got.spec, name: spec?.name && spec.name !== 'New figure' ? spec.name : got.spec.name };
        shown = JSON.stringify(spec);
    }
    const hex = (c: number | undefined) => `#${(c ?? 0x888888).toString(16).padStart(6, '0')}`;

    /** What goes with a colour follows it: lining and cuffs, lips and cheeks. */
    function paint(part: string, value: string) {
        if (!spec) return;
        const c = Number.parseInt(value.slice(1), 16);
        const by = (r: number, g: number, b: number) =>
            (Math.round(((c >> 16) & 255) * r) << 16) | (Math.round(((c >> 8) & 255) * g) << 8) | Math.round((c & 255) * b);
        const along: Record<string, Record<string, number>> = {
            skin: { blush: by(0.92, 0.72, 0.72), nose: by(0.93, 0.78, 0.78), lip: by(0.82, 0.55, 0.55) },
            hair: { brow: by(0.8, 0.75, 0.72) },
            top: { lining: by(0.5, 0.5, 0.5), cuff: by(0.72, 0.72, 0.72) },
            hat: { peak: by(0.6, 0.6, 0.6) },
            neck: { band: c },
        };
        spec.colours = { ...spec.colours, [part]: c, ...along[part] };
    }

    async function keep() {
        if (!spec) return;
        busy = true;
        try {
            const made = await call(AssetRow, 'POST', `productions/${scene.production.id}/figures`, { spec });
            kit.version++;
            await scene.refreshAssets();
            kit.kind = 'performer';
            kit.asset = made.id;
            // Whoever has gone elsewhere meanwhile stays there.
            if (kit.room === 'figure') kit.open('shelves');
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            scene.notice = { kind: 'error', message: e.message, remedy: e.remedy };
        }
        busy = false;
    }
</script>

<div class="flex min-h-0 flex-1" data-testid="figure-room">
    <div class="min-w-0 flex-1 p-4">
        <Turntable {path} label="The new figure on a turntable; arrow keys turn it" keep="figure" />
    </div>
    {#if spec && choices}
        <div class="flex w-[400px] shrink-0 flex-col gap-3 overflow-auto border-l border-line p-4 text-xs">
            <Input size="sm" aria-label="Name" bind:value={spec.name} />
            <div class="flex items-center gap-2">
                <Button
                    size="xs"
                    color="alternative"
                    onclick={() => {
                        seed++;
                        void begin(`seed=${seed}`);
                    }}
                    data-testid="figure-chance">Somebody else</Button
                >
                <label class="flex flex-1 items-center gap-2"
                    >or like<select
                        class="flex-1 rounded border-line bg-sheet py-1 text-xs"
                        onchange={(e) => e.currentTarget.value && begin(`like=${e.currentTarget.value}`)}
                        ><option value="">…</option>{#each people as p (p.id)}<option value={p.id}>{p.name}</option>{/each}</select
                    ></label
                >
            </div>
            {#each SLIDERS as [key, text, low, high, step, unit] (key)}
                <label class="grid grid-cols-[60px_1fr_48px] items-center gap-2"
                    >{text}<input
                        type="range"
                        min={low}
                        max={high}
                        {step}
                        value={Number(spec[key])}
                        oninput={(e) => spec && (spec[key] = Number(e.currentTarget.value))}
                        class="accent-tide"
                    /><span class="mono text-right">{Number(spec[key]).toFixed(2)}{unit}</span></label
                >
            {/each}
            <div class="grid grid-cols-2 gap-2">
                {#each [['hair', 'Hair', choices.hair], ['hat', 'Hat', choices.hats], ['top', 'Top', choices.tops], ['neck', 'Neck', choices.necks]] as const as [key, text, of] (key)}
                    <label class="flex flex-col gap-1"
                        >{text}<select class="rounded border-line bg-sheet py-1 text-xs" bind:value={spec[key]}
                            >{#each of as o (o)}<option value={o}>{o}</option>{/each}</select
                        ></label
                    >
                {/each}
            </div>
            <div class="flex gap-4">
                {#each [['beard', 'beard'], ['glasses', 'glasses'], ['bag', 'bag']] as const as [key, text] (key)}
                    <label class="flex items-center gap-1.5"
                        ><input
                            type="checkbox"
                            class="rounded border-line text-tide"
                            checked={spec[key] === true}
                            onchange={(e) => spec && (spec[key] = e.currentTarget.checked)}
                        />{text}</label
                    >
                {/each}
            </div>
            <div class="grid grid-cols-4 gap-2">
                {#each Object.entries(choices.parts) as [part, text] (part)}
                    <label class="flex flex-col gap-1"
                        >{text}<input
                            type="color"
                            class="h-7 w-full rounded border border-line"
                            value={hex(spec.colours[part])}
                            oninput={(e) => paint(part, e.currentTarget.value)}
                        /></label
                    >
                {/each}
            </div>
            <Button onclick={keep} disabled={busy} data-testid="figure-keep">Put on the shelf</Button>
        </div>
    {/if}
</div>
