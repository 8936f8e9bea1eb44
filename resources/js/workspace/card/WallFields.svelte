<script lang="ts">
    import { getDesk } from '../context';
    import type { CameraRowData } from '../rows';

    let { camera }: { camera: CameraRowData } = $props();
    const { scene } = getDesk();
    const walls = $derived([...new Set((scene.manifest?.items ?? []).flatMap((i) => i.extras.wild ?? []))]);
    const away = $derived<string[] | null>(camera.wallsAway);
    const set = (wallsAway: string[] | null) => scene.edit({ do: 'camera.set', camera: camera.id, wallsAway });
    const toggled = (name: string) => {
        const now = away ?? [];
        return now.includes(name) ? now.filter((n) => n !== name) : [...now, name];
    };
</script>

{#if walls.length > 0}
    <div class="mt-2 border-t border-line pt-2" data-testid="walls">
        <label class="flex items-center gap-2">
            <input
                type="checkbox"
                class="rounded border-line text-tide"
                checked={away === null}
                disabled={!scene.canEdit}
                onchange={(e) => set(e.currentTarget.checked ? null : [])}
            />
            <span title="A wall between the lens and the room is taken away for this camera; it still throws its shadow."
                >Walls before the lens go away</span
            >
        </label>
        {#if away !== null}
            <div class="mt-1 flex flex-wrap gap-1" role="group" aria-label="Walls that are away">
                {#each walls as name (name)}
                    <button
                        class={['rounded border px-1.5 py-0.5', away.includes(name) ? 'border-tide bg-desk' : 'border-line']}
                        aria-pressed={away.includes(name)}
                        disabled={!scene.canEdit}
                        onclick={() => set(toggled(name))}>{away.includes(name) ? `${name} is away` : name}</button
                    >
                {/each}
            </div>
        {/if}
    </div>
{/if}
