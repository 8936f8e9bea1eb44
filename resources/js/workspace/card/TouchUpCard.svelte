<script lang="ts">
    import { Euler, Quaternion } from 'three';
    import { getDesk } from '../context';
    import type { TouchUpRow, Vec3 } from '../rows';
    import NumberField from './NumberField.svelte';
    import SpanFields from './SpanFields.svelte';
    import { jointName } from './parts';

    let { touchUp }: { touchUp: TouchUpRow } = $props();
    const { scene, playhead } = getDesk();
    const who = $derived(scene.find('items', touchUp.itemId));
    // The key at the playhead, or the one before it.
    const key = $derived(touchUp.keys.filter((k) => k.frame <= playhead.frame).at(-1) ?? touchUp.keys[0]!);
    const here = $derived(key.frame === Math.round(playhead.frame));
    const turn = $derived.by((): Vec3 => {
        const [x, y, z, w] = key.rotation ?? [0, 0, 0, 1];
        const e = new Euler().setFromQuaternion(new Quaternion(x, y, z, w), 'YXZ');
        return [e.x, e.y, e.z].map((r) => Math.round((r * 1800) / Math.PI) / 10) as Vec3;
    });
    const set = (values: Record<string, unknown>) => scene.edit({ do: 'touchUp.set', touchUp: touchUp.id, ...values });
    const keyed = (values: Record<string, unknown>) =>
        scene.edit({ do: 'touchUp.key', touchUp: touchUp.id, frame: Math.round(playhead.frame), ...values });
    const turned = (k: 0 | 1 | 2) => (n: number) => {
        const turnDeg = [...turn] as Vec3;
        turnDeg[k] = n;
        return keyed({ turnDeg, ...(key.shift ? { shift: key.shift } : {}) });
    };
    const shifted = (k: 0 | 1 | 2) => (n: number) => {
        const shift = [...(key.shift ?? [0, 0, 0])] as Vec3;
        shift[k] = n;
        return keyed({ shift, ...(key.rotation ? { rotation: key.rotation } : {}) });
    };
</script>

<p class="mb-2 text-sm font-semibold">Touch-up <span class="font-normal text-soft">of {who?.name}, {jointName(touchUp.joint)}</span></p>
<dl class="grid grid-cols-[52px_1fr] items-center gap-x-2 gap-y-1.5">
    <SpanFields span={touchUp} {set} />
    <dt class="text-soft">Turn</dt>
    <dd class="grid grid-cols-3 gap-1">
        <NumberField label="About x (deg)" value={turn[0]} unit="deg" digits={1} save={turned(0)} />
        <NumberField label="About y (deg)" value={turn[1]} unit="deg" digits={1} save={turned(1)} />
        <NumberField label="About z (deg)" value={turn[2]} unit="deg" digits={1} save={turned(2)} />
    </dd>
    {#if touchUp.joint === 'hips'}
        <dt class="text-soft">Shift</dt>
        <dd class="grid grid-cols-3 gap-1">
            <NumberField label="Shift x (m)" value={key.shift?.[0] ?? 0} unit="m" save={shifted(0)} />
            <NumberField label="Shift y (m)" value={key.shift?.[1] ?? 0} unit="m" save={shifted(1)} />
            <NumberField label="Shift z (m)" value={key.shift?.[2] ?? 0} unit="m" save={shifted(2)} />
        </dd>
    {/if}
    <dt class="text-soft">Keys</dt>
    <dd class="mono truncate">{touchUp.keys.map((k) => k.frame).join(', ')}</dd>
</dl>
<p class="mt-1.5 text-soft">{here ? 'A change here changes the key at the playhead.' : 'A change here makes a key at the playhead.'}</p>
{#if scene.canEdit}
    <div class="mt-3 flex gap-3">
        {#if here && touchUp.keys.length > 1}<button class="text-tide hover:underline" onclick={() => set({ unkey: key.frame })}
                >Remove this key</button
            >{/if}
        <button class="text-alarm hover:underline" title="Del" onclick={() => scene.edit({ do: 'touchUp.remove', touchUp: touchUp.id })}
            >Remove</button
        >
    </div>
{/if}
