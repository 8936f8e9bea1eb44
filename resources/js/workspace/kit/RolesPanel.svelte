<script lang="ts">
    import { onMount } from 'svelte';
    import type { InferOutput } from 'valibot';
    import { ApiError, call } from '../../lib/api';
    import { Sheet } from './answers';
    import { getDesk } from '../context';

    interface Props {
        asset: number;
        /** Whether joints may be chosen: not for what belongs to the house. */
        own: boolean;
        changed?: () => void;
    }
    let { asset, own, changed }: Props = $props();
    const { scene } = getDesk();

    const WORDS: Record<string, string> = {
        hips: 'hips',
        spine: 'spine',
        chest: 'chest',
        upperChest: 'upper chest',
        neck: 'neck',
        head: 'head',
        jaw: 'jaw',
        eye: 'eye',
        shoulder: 'shoulder',
        upperArm: 'upper arm',
        lowerArm: 'forearm',
        hand: 'hand',
        upperLeg: 'thigh',
        lowerLeg: 'shin',
        foot: 'foot',
        toes: 'toes',
    };
    /** Parts without which a body is whole all the same. */
    const EXTRA = ['chest', 'upperChest', 'jaw', 'eyeL', 'eyeR', 'shoulderL', 'shoulderR', 'toesL', 'toesR'];
    const SURE = 0.7;

    let sheet = $state.raw<InferOutput<typeof Sheet> | null>(null);
    let busy = $state(false);
    const base = $derived(`productions/${scene.production.id}/kit/${asset}/roles`);
    const wordOf = (part: string) => {
        const side = part.endsWith('L') ? 'left ' : part.endsWith('R') ? 'right ' : '';
        return side + (WORDS[side ? part.slice(0, -1) : part] ?? part);
    };
    const doubt = (part: string) => {
        const r = sheet?.roles[part];
        return r ? !r.byHand && r.confidence < SURE : !EXTRA.includes(part);
    };
    /** What is missing or unsure stands first. */
    const parts = $derived([...(sheet?.parts ?? [])].sort((a, b) => Number(doubt(b)) - Number(doubt(a))));

    onMount(async () => {
        sheet = await call(Sheet, 'GET', base);
    });

    async function choose(part: string, joint: string) {
        busy = true;
        try {
            sheet = await call(Sheet, 'POST', base, { choices: { [part]: joint } });
            changed?.();
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            scene.notice = { kind: 'error', message: e.message, remedy: e.remedy };
        }
        busy = false;
    }
</script>

{#if sheet}
    <dl class="grid grid-cols-[92px_1fr_44px] items-center gap-x-2 gap-y-1 text-xs" data-testid="roles">
        {#each parts as part (part)}
            {@const role = sheet.roles[part]}
            <dt class={doubt(part) ? 'font-semibold text-buoy' : 'text-soft'}>{wordOf(part)}</dt>
            <dd class="contents">
                <select
                    class="min-w-0 rounded border-line bg-sheet py-0.5 text-xs"
                    aria-label={`Joint that plays the ${wordOf(part)}`}
                    data-testid={`role-${part}`}
                    disabled={!own || busy}
                    value={role?.joint ?? ''}
                    onchange={(e) => void choose(part, e.currentTarget.value)}
                    ><option value="">no joint</option>{#each sheet.joints as j (j)}<option value={j}>{j}</option>{/each}</select
                >
                <span class="text-soft">{role ? (role.byHand ? 'chosen' : `${Math.round(role.confidence * 100)} %`) : ''}</span>
            </dd>
        {/each}
    </dl>
{:else}<p class="text-xs text-soft">…</p>{/if}
