import { getContext, setContext } from 'svelte';
import type { KitStore } from './kit/kit.svelte';
import type { FrameView } from './panes/view.svelte';
import type { Playhead } from './playhead.svelte';
import type { SceneStore } from './scene.svelte';
import type { PeaksStore } from './speech/peaks.svelte';
import type { Recorder } from './speech/recorder.svelte';
import type { SoundDesk } from './speech/sound.svelte';
import type { SpeechStore } from './speech/speech.svelte';

export type Step = 'Cast' | 'Block' | 'Act' | 'Cover' | 'Finish';
export const STEPS: Step[] = ['Cast', 'Block', 'Act', 'Cover', 'Finish'];

export interface Desk {
    scene: SceneStore;
    playhead: Playhead;
    view: FrameView;
    kit: KitStore;
    speech: SpeechStore;
    sound: SoundDesk;
    recorder: Recorder;
    peaks: PeaksStore;
}

const KEY = Symbol('desk');

export const setDesk = (desk: Desk): Desk => setContext(KEY, desk);
export const getDesk = (): Desk => getContext<Desk>(KEY);
