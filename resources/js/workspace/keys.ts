import { Vector3 } from 'three';
import type { Desk } from './context';

interface Others {
    sheet: () => void;
    panes: () => void;
}

const typing = (e: KeyboardEvent) => {
    const t = e.target as HTMLElement | null;
    return t !== null && (t.isContentEditable || /^(INPUT|TEXTAREA|SELECT)$/.test(t.tagName));
};

/** All keys of the workspace in one place. */
export function bindKeys(desk: Desk, others: Others): () => void {
    const act = (e: KeyboardEvent) => {
        if (typing(e) || !desk.scene.ready || desk.kit.room) return;
        if (handle(desk, others, e)) e.preventDefault();
    };
    addEventListener('keydown', act);
    return () => removeEventListener('keydown', act);
}

function handle(desk: Desk, others: Others, e: KeyboardEvent): boolean {
    const { scene, playhead } = desk;
    const key = e.key.length === 1 ? e.key.toLowerCase() : e.key;
    if (e.ctrlKey || e.metaKey) {
        if (key === 'z') void (e.shiftKey ? scene.redo() : scene.undo());
        else return false;
        return true;
    }
    if (e.altKey) return false;
    const cuts = (scene.manifest?.shots ?? []).map((s) => s.in);
    const simple: Record<string, () => unknown> = {
        ' ': () => playhead.toggle(),
        j: () => playhead.shuttle(-1),
        k: () => playhead.stop(),
        l: () => playhead.shuttle(1),
        ArrowLeft: () => playhead.step(e.shiftKey ? -10 : -1),
        ArrowRight: () => playhead.step(e.shiftKey ? 10 : 1),
        ArrowUp: () => playhead.go([...cuts].reverse().find((c) => c < playhead.frame) ?? 0),
        ArrowDown: () => playhead.go(cuts.find((c) => c > playhead.frame) ?? scene.frames - 1),
        Home: () => playhead.go(playhead.first),
        End: () => playhead.go(playhead.end - 1),
        i: () => (playhead.inFrame = playhead.frame),
        o: () => (playhead.outFrame = playhead.frame + 1),
        p: others.panes,
        f: () => fullScreen(desk),
        '?': others.sheet,
        Escape: () => scene.select(null),
        d: () => duplicate(scene),
        Delete: () => remove(scene),
        c: () => showSelection(desk),
        m: () => desk.sound.toggle(),
        s: () => (desk.view.subtitles = !desk.view.subtitles),
    };
    const run = simple[key];
    if (run) {
        run();
        return true;
    }
    const camera = /^[1-9]$/.test(key) ? scene.rows.cameras[Number(key) - 1] : undefined;
    if (camera) {
        void scene.edit({ do: 'shot.cut', camera: camera.id, frame: playhead.frame });
        return true;
    }
    return false;
}

/** The reel and nothing else, as large as the screen; the same key leads back. */
function fullScreen({ view, scene }: Desk): void {
    if (document.fullscreenElement) {
        void document.exitFullscreen();
        return;
    }
    if (scene.rows.shots.length > 0) view.source = { kind: 'reel' };
    void document.querySelector('[data-testid=frame]')?.requestFullscreen();
}

function duplicate(scene: Desk['scene']): void {
    if (scene.selection?.table === 'items') void scene.edit({ do: 'item.duplicate', item: scene.selection.id });
}

function remove(scene: Desk['scene']): void {
    const s = scene.selection;
    if (!s) return;
    const one = {
        items: 'item',
        beats: 'beat',
        links: 'link',
        touch_ups: 'touchUp',
        contacts: 'contact',
        cameras: 'camera',
        shots: 'shot',
        framings: 'framing',
        lines: 'line',
        expressions: 'expression',
        sounds: 'sound',
        takes: 'take',
    }[s.table];
    void scene.edit({ do: `${one}.remove`, [one]: s.id });
}

function showSelection({ scene, playhead, view }: Desk): void {
    const item = scene.selection?.table === 'items' ? scene.find('items', scene.selection.id) : null;
    if (!item) return;
    const at = view.painter?.stage.footing(`i${item.id}`) ?? new Vector3(...item.position);
    at.y += item.kind === 'performer' ? 0.9 : 0.4;
    if (view.source.kind !== 'free') view.leave(view.at(scene.posesAt(playhead.frame), playhead.frame).view);
    view.centre(at, 1.1);
}
