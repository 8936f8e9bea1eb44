<script lang="ts">
    import { parseFrameChange } from '../../lib/time';
    import { getDesk } from '../context';
    import NumberField from './NumberField.svelte';

    let {
        span,
        set,
    }: {
        span: { from: number; to: number | null; easeIn: number; easeOut: number };
        set: (values: Record<string, number>) => unknown;
    } = $props();
    const { scene } = getDesk();
    const frame = (t: string, present: number) => parseFrameChange(t, scene.rate, present);
</script>

<dt class="text-soft">From</dt>
<dd><NumberField label="From frame" value={span.from} digits={0} parse={frame} save={(n) => set({ from: Math.round(n) })} /></dd>
<dt class="text-soft">Up to</dt>
<dd>
    <NumberField label="Up to frame" value={span.to ?? scene.frames} digits={0} parse={frame} save={(n) => set({ to: Math.round(n) })} />
</dd>
<dt class="text-soft">Ease</dt>
<dd class="grid grid-cols-2 gap-1">
    <NumberField label="Ease in (frames)" value={span.easeIn} digits={0} save={(n) => set({ easeIn: Math.round(n) })} />
    <NumberField label="Ease out (frames)" value={span.easeOut} digits={0} save={(n) => set({ easeOut: Math.round(n) })} />
</dd>
