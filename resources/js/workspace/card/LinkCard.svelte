<script lang="ts">
    import { parseFrameChange } from '../../lib/time';
    import { getDesk } from '../context';
    import type { LinkRow } from '../rows';
    import NumberField from './NumberField.svelte';

    let { link }: { link: LinkRow } = $props();
    const { scene } = getDesk();
    const named = (id: number) => scene.find('items', id)?.name ?? '';
    const set = (values: Record<string, unknown>) => scene.edit({ do: 'link.set', link: link.id, ...values });
    const frame = (t: string, present: number) => parseFrameChange(t, scene.rate, present);
    const field = 'w-full rounded border-line bg-sheet py-0.5 text-xs';
</script>

<p class="mb-2 text-sm font-semibold">{named(link.childId)} <span class="font-normal text-soft">with {named(link.parentId)}</span></p>
<dl class="grid grid-cols-[52px_1fr] items-center gap-x-2 gap-y-1.5">
    <dt class="text-soft">From</dt>
    <dd><NumberField label="From frame" value={link.from} digits={0} parse={frame} save={(n) => set({ from: Math.round(n) })} /></dd>
    <dt class="text-soft">Up to</dt>
    <dd>
        <NumberField
            label="Up to frame"
            value={link.to ?? scene.frames}
            digits={0}
            parse={frame}
            save={(n) => set({ to: Math.round(n) })}
        />
    </dd>
    <dt class="text-soft">Where</dt>
    <dd>
        <select class={field} aria-label="Where" value={link.mount} onchange={(e) => set({ mount: e.currentTarget.value })}>
            <option value="handR">right hand</option><option value="handL">left hand</option><option value="head">head</option><option
                value="">the whole</option
            >
            {#if !['handR', 'handL', 'head', ''].includes(link.mount)}<option value={link.mount}>{link.mount}</option>{/if}
        </select>
    </dd>
    <dt class="text-soft">How</dt>
    <dd>
        <select class={field} aria-label="How" value={link.keep} onchange={(e) => set({ keep: e.currentTarget.value })}
            ><option value="grip">in the grip</option><option value="place">as it lay</option></select
        >
    </dd>
    {#if link.to !== null}
        <dt class="text-soft">Then</dt>
        <dd>
            <select class={field} aria-label="Then" value={link.release} onchange={(e) => set({ release: e.currentTarget.value })}
                ><option value="stay">stays there</option><option value="fall">falls, or flies to who takes it next</option></select
            >
        </dd>
    {/if}
    <dt class="text-soft">Ease</dt>
    <dd><NumberField label="Ease frames" value={link.easeFrames} digits={0} save={(n) => set({ easeFrames: Math.round(n) })} /></dd>
</dl>
{#if scene.canEdit}<button
        class="mt-3 text-alarm hover:underline"
        title="Del"
        onclick={() => scene.edit({ do: 'link.remove', link: link.id })}>Remove</button
    >{/if}
