<script lang="ts">
    import { parseFrameChange } from '../../lib/time';
    import { getDesk } from '../context';
    import type { BeatRow, PlayRow } from '../rows';
    import NumberField from './NumberField.svelte';

    let { beat }: { beat: BeatRow } = $props();
    const { scene } = getDesk();
    const play = $derived(beat.play);
    const set = (values: Partial<Record<keyof PlayRow, unknown>>) => scene.edit({ do: 'beat.set', beat: beat.id, play: values });
    const frame = (t: string, present: number) => parseFrameChange(t, scene.rate, present);
    const field = 'w-full rounded border-line bg-sheet py-0.5 text-xs';
    const EASES: Record<string, [number, number, number, number] | null> = {
        even: null,
        'slow in': [0.42, 0, 1, 1],
        'slow out': [0, 0, 0.58, 1],
        'slow in and out': [0.42, 0, 0.58, 1],
        anticipate: [0.36, -0.35, 0.66, 1],
        overshoot: [0.34, 0, 0.64, 1.35],
    };
    const PARTS = { face: 'face', head: 'head', trunk: 'trunk', armL: 'left arm', armR: 'right arm', legs: 'legs' } as const;
    const ease = $derived(Object.entries(EASES).find(([, v]) => JSON.stringify(v) === JSON.stringify(play.ease ?? null))?.[0] ?? 'own');
    const after = $derived(play.keepLooping ? 'loop' : play.fill ? 'fill' : 'hold');

    function then(how: string) {
        const end = Math.round(scene.manifest?.beats[`b${beat.id}`]?.end ?? beat.start + 24);
        return set({ keepLooping: how === 'loop' ? true : null, fill: how === 'fill' ? end : null });
    }

    function part(name: keyof typeof PARTS, on: boolean) {
        const mask = (play.mask ?? []).filter((m) => m !== name).concat(on ? [name] : []);
        return set({ mask: mask.length > 0 ? mask : null });
    }
</script>

<details class="mt-2 border-t border-line pt-2">
    <summary class="cursor-pointer font-semibold">How it plays</summary>
    <dl class="mt-1.5 grid grid-cols-[60px_1fr] items-center gap-x-2 gap-y-1.5">
        <dt class="text-soft">Turned</dt>
        <dd class="flex gap-3">
            <label class="flex items-center gap-1"
                ><input
                    type="checkbox"
                    class="rounded"
                    checked={play.mirror ?? false}
                    onchange={(e) => set({ mirror: e.currentTarget.checked || null })}
                />mirror</label
            >
            <label class="flex items-center gap-1"
                ><input
                    type="checkbox"
                    class="rounded"
                    checked={play.reverse ?? false}
                    onchange={(e) => set({ reverse: e.currentTarget.checked || null })}
                />back</label
            >
        </dd>
        <dt class="text-soft">Pace</dt>
        <dd>
            <select class={field} aria-label="Pace" value={ease} onchange={(e) => set({ ease: EASES[e.currentTarget.value] ?? null })}>
                {#each Object.keys(EASES) as name (name)}<option>{name}</option>{/each}
                {#if ease === 'own'}<option>own</option>{/if}
            </select>
        </dd>
        <dt class="text-soft">Holds</dt>
        <dd class="grid grid-cols-2 gap-1">
            <NumberField
                label="Hold before (frames)"
                value={play.holdBefore ?? 0}
                digits={0}
                save={(n) => set({ holdBefore: Math.round(n) || null })}
            />
            <NumberField
                label="Hold after (frames)"
                value={play.holdAfter ?? 0}
                digits={0}
                save={(n) => set({ holdAfter: Math.round(n) || null })}
            />
        </dd>
        <dt class="text-soft">Then</dt>
        <dd>
            <select class={field} aria-label="Then" value={after} onchange={(e) => then(e.currentTarget.value)}>
                <option value="hold">holds its last pose</option><option value="fill">repeats up to a frame</option><option value="loop"
                    >repeats until the next</option
                >
            </select>
        </dd>
        {#if play.fill}
            <dt class="text-soft">Up to</dt>
            <dd>
                <NumberField
                    label="Repeats up to frame"
                    value={play.fill}
                    digits={0}
                    parse={frame}
                    save={(n) => set({ fill: Math.round(n) })}
                />
            </dd>
        {/if}
        <dt class="text-soft">Energy</dt>
        <dd><NumberField label="Energy" value={play.energy ?? 1} save={(n) => set({ energy: n === 1 ? null : n })} /></dd>
        <dt class="text-soft">Arms out</dt>
        <dd>
            <NumberField
                label="Arms out (deg)"
                value={play.armWidthDeg ?? 0}
                unit="deg"
                digits={1}
                save={(n) => set({ armWidthDeg: n || null })}
            />
        </dd>
        <dt class="text-soft">Hips</dt>
        <dd>
            <NumberField label="Hips up or down (m)" value={play.hipOffset ?? 0} unit="m" save={(n) => set({ hipOffset: n || null })} />
        </dd>
        <dt class="text-soft">Joins by</dt>
        <dd>
            <select
                class={field}
                aria-label="Joins by"
                value={play.anchor ?? 'foot'}
                onchange={(e) => set({ anchor: e.currentTarget.value === 'foot' ? null : e.currentTarget.value })}
                ><option value="foot">the planted feet</option><option value="hips">the hips</option></select
            >
        </dd>
        <dt class="text-soft">Before</dt>
        <dd>
            <select
                class={field}
                aria-label="Stance before"
                title="Who sits does it seated, or rises before it; or it is played as it is"
                value={play.stance ?? 'fit'}
                onchange={(e) => set({ stance: e.currentTarget.value === 'fit' ? null : e.currentTarget.value })}
                ><option value="fit">fits to what was</option><option value="own">as it is</option></select
            >
        </dd>
        <dt class="text-soft">Layer</dt>
        <dd>
            <select
                class={field}
                aria-label="Layer"
                value={play.layer ?? 0}
                onchange={(e) => set({ layer: Number(e.currentTarget.value) || null })}
            >
                <option value={0}>the body</option>
                {#each [1, 2, 3] as n (n)}<option value={n}>laid over, {n}</option>{/each}
            </select>
        </dd>
        {#if play.layer}
            <dt class="self-start text-soft">Moves</dt>
            <dd class="grid grid-cols-2 gap-x-1">
                {#each Object.entries(PARTS) as [name, label] (name)}
                    <label class="flex items-center gap-1"
                        ><input
                            type="checkbox"
                            class="rounded"
                            checked={play.mask?.includes(name as keyof typeof PARTS) ?? false}
                            onchange={(e) => part(name as keyof typeof PARTS, e.currentTarget.checked)}
                        />{label}</label
                    >
                {/each}
            </dd>
            <dt class="text-soft">Share</dt>
            <dd><NumberField label="Share" value={play.weight ?? 1} save={(n) => set({ weight: n === 1 ? null : n })} /></dd>
        {/if}
    </dl>
</details>
