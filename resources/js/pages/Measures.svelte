<script lang="ts">
    import { Alert, Button, Input, Label, Modal, Select } from 'flowbite-svelte';
    import { ApiError, tell } from '../lib/api';
    import type { Measured } from '../lib/answers';
    import { RATES, SIZES } from './measures';

    let { production, onchanged }: { production: Measured; onchanged: () => void } = $props();

    let open = $state(false);
    let rate = $state('');
    let size = $state('');
    let width = $state(0);
    let height = $state(0);
    let error = $state<ApiError | null>(null);

    const named = (w: number, h: number) => `${w}x${h}`;
    const rates = $derived(
        RATES.some((r) => r.value === production.rate.join('/'))
            ? RATES
            : [
                  ...RATES,
                  { value: production.rate.join('/'), name: `${+(production.rate[0] / production.rate[1]).toFixed(3)} frames a second` },
              ],
    );

    function show() {
        error = null;
        rate = production.rate.join('/');
        [width, height] = production.size;
        size = SIZES.some((s) => s.value === named(width, height)) ? named(width, height) : '';
        open = true;
    }

    async function change(event: SubmitEvent) {
        event.preventDefault();
        error = null;
        const [w, h] = size === '' ? [width, height] : (size.split('x').map(Number) as [number, number]);
        const wish = {
            ...(rate === production.rate.join('/') ? {} : { rate: rate.split('/').map(Number) }),
            ...(named(w, h) === named(...production.size) ? {} : { width: w, height: h }),
        };
        try {
            if (Object.keys(wish).length > 0) await tell('PATCH', `productions/${production.id}`, wish);
            open = false;
            onchanged();
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            error = e;
        }
    }
</script>

<button
    class="mono text-xs text-soft enabled:hover:text-tide enabled:hover:underline"
    disabled={production.role === 'viewer'}
    title="Frame rate and picture size"
    data-testid="measures"
    onclick={show}>{production.size[0]} x {production.size[1]} at {+(production.rate[0] / production.rate[1]).toFixed(3)}</button
>

<Modal title={`Rate and size of ${production.name}`} bind:open size="sm">
    <form class="flex flex-col gap-4" onsubmit={change}>
        <div>
            <Label for="measures-rate" class="mb-1 text-ink">Frame rate</Label>
            <Select id="measures-rate" items={rates} bind:value={rate} />
            <p class="mt-1 text-xs text-soft">Beats, cuts and keys stay at their times, on the frame that is nearest.</p>
        </div>
        <div>
            <Label for="measures-size" class="mb-1 text-ink">Picture</Label>
            <Select id="measures-size" items={[...SIZES, { value: '', name: 'Another size' }]} bind:value={size} />
        </div>
        {#if size === ''}
            <div class="flex gap-3">
                <div class="flex-1">
                    <Label for="measures-width" class="mb-1 text-ink">Width, px</Label>
                    <Input id="measures-width" type="number" min={64} max={4096} bind:value={width} />
                </div>
                <div class="flex-1">
                    <Label for="measures-height" class="mb-1 text-ink">Height, px</Label>
                    <Input id="measures-height" type="number" min={64} max={4096} bind:value={height} />
                </div>
            </div>
        {/if}
        <p class="text-soft">It holds for all scenes of the production, and undo in any of them takes it back in all.</p>
        {#if error}<Alert color="red" role="alert"><strong>{error.message}</strong> {error.remedy}</Alert>{/if}
        <Button type="submit">Change it</Button>
    </form>
</Modal>
