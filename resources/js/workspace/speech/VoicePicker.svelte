<script lang="ts">
    import { getDesk } from '../context';
    import type { VoiceCard } from './speech.svelte';

    interface Props {
        value: string;
        /** The one that is heard while none is chosen. */
        own: VoiceCard | null;
        none: string;
        save: (voice: string) => unknown;
    }
    let { value, own, none, save }: Props = $props();
    const { scene, speech } = getDesk();
    const english = $derived(speech.voices.filter((c) => c.language.startsWith('en')));
    const others = $derived(speech.voices.filter((c) => !c.language.startsWith('en')));
    const heard = $derived(value || own?.id || '');
</script>

<div class="flex items-center gap-1">
    <select
        class="min-w-0 flex-1 rounded border-line bg-sheet py-0.5 text-xs"
        aria-label="Voice"
        disabled={!scene.canEdit}
        {value}
        onchange={(e) => save(e.currentTarget.value)}
    >
        <option value="">{none}{own && value === '' ? ` (${own.name})` : ''}</option>
        {#each english as c (c.id)}<option value={c.id}>{c.name}: {c.says}</option>{/each}
        {#each others as c (c.id)}<option value={c.id}>{c.name}</option>{/each}
    </select>
    <button
        class="rounded border border-line px-1.5 py-0.5 text-[11px] hover:bg-desk disabled:opacity-50"
        disabled={heard === ''}
        data-testid="sample"
        title="Hear this voice"
        onclick={() => speech.sample(heard)}>{speech.sampling === heard && heard !== '' ? '…' : 'hear'}</button
    >
</div>
