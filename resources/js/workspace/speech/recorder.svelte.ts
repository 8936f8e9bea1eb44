import * as v from 'valibot';
import { ApiError, call } from '../../lib/api';
import { perSecond } from '../../lib/time';
import type { Playhead } from '../playhead.svelte';
import type { SceneStore } from '../scene.svelte';
import type { SpeechStore } from './speech.svelte';
import worklet from './recorder.worklet.ts?worker&url';
import { median, wav } from './wav';

const Kept = v.object({ asset: v.number(), seconds: v.number() });

/** Seconds of a recording at most, and of the scene that are played before a line is spoken anew. */
const MOST = 300;
const LEAD = 1.5;

/** What is recorded: a line that is there, or one that somebody says now. */
type Aim = { line: number } | { item: number; text: string };

/** A microphone that listens while the scene plays, and what becomes of what it heard. */
export class Recorder {
    /** Of nobody, of a line, or of somebody who says something new. */
    aim = $state.raw<Aim | null>(null);
    /** How loud it is now, 0 to 1, and the loudest so far: silence is seen at once. */
    level = $state(0);
    loudest = $state(0);
    seconds = $state(0);
    /** On its way to the server. */
    sending = $state(false);
    private stream: MediaStream | null = null;
    private context: AudioContext | null = null;
    private blocks: Float32Array[] = [];
    private samples = 0;
    /** Seconds of the scene at the first sample, as each of the first blocks has it. */
    private begun: number[] = [];

    constructor(
        private readonly scene: SceneStore,
        private readonly playhead: Playhead,
        private readonly speech: SpeechStore,
    ) {}

    isOf(line: number): boolean {
        return this.aim !== null && 'line' in this.aim && this.aim.line === line;
    }

    /** Begins to listen and plays the scene: from where the playhead is, or from shortly before the line. */
    async begin(aim: Aim): Promise<void> {
        if (this.aim) return;
        const media = navigator.mediaDevices as MediaDevices | undefined;
        if (!media) {
            this.tell(
                'A page that is not served securely may not use the microphone.',
                'Open it by https or on this machine, or drop a file.',
            );
            return;
        }
        this.aim = aim;
        try {
            this.stream = await media.getUserMedia({
                audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false, channelCount: 1 },
            });
            await this.listen(this.stream);
        } catch (e) {
            this.close();
            const refused = e instanceof DOMException && e.name === 'NotAllowedError';
            this.tell(
                refused ? 'The microphone was refused.' : 'There is no microphone that can be used.',
                refused ? 'Allow it beside the address of the page and record again, or drop a file.' : 'Plug one in, or drop a file.',
            );
            return;
        }
        if ('line' in aim) {
            const at = this.speech.settled.get(aim.line)?.start ?? this.playhead.frame;
            this.playhead.go(at - LEAD * perSecond(this.scene.rate));
        }
        this.playhead.play(1);
    }

    private async listen(stream: MediaStream): Promise<void> {
        const context = (this.context = new AudioContext({ latencyHint: 'interactive' }));
        await context.audioWorklet.addModule(worklet);
        [this.blocks, this.samples, this.begun] = [[], 0, []];
        [this.level, this.loudest, this.seconds] = [0, 0, 0];
        const node = new AudioWorkletNode(context, 'recorder', { numberOfOutputs: 0 });
        node.port.onmessage = (e: MessageEvent<Float32Array>) => this.heard(e.data, context);
        context.createMediaStreamSource(stream).connect(node);
        await context.resume();
    }

    private heard(block: Float32Array, context: AudioContext): void {
        if (!this.aim || this.sending) return;
        this.blocks.push(block);
        this.samples += block.length;
        const loud = Math.max(...block.map(Math.abs));
        this.level = Math.max(loud, 0.9 * this.level);
        this.loudest = Math.max(this.loudest, loud);
        this.seconds = this.samples / context.sampleRate;
        if (this.playhead.playing && this.begun.length < 200)
            this.begun.push(this.playhead.frame / perSecond(this.scene.rate) - this.seconds);
        if (this.seconds > MOST) void this.end();
    }

    /** Stops, and lets the line be heard as what was recorded. */
    async end(): Promise<void> {
        const aim = this.aim;
        if (!aim || this.sending) return;
        this.playhead.stop();
        this.sending = true;
        const rate = this.context?.sampleRate ?? 48_000;
        const [file, began] = [wav(this.blocks, rate), median(this.begun)];
        this.hush();
        if (this.loudest < 0.003)
            this.tell('Nothing was heard.', 'See that the microphone is on and not muted, then record again. Nothing was changed.');
        else await this.keep(aim, new File([file], 'recording.wav'), began);
        this.close();
    }

    /** Leaves what was recorded. */
    drop(): void {
        this.playhead.stop();
        this.hush();
        this.close();
    }

    /** A file of somebody who says something, from a frame on. */
    async bring(item: number, file: File, frame: number): Promise<void> {
        if (this.aim) return;
        this.aim = { item, text: '' };
        this.sending = true;
        await this.keep(this.aim, file, frame / perSecond(this.scene.rate), true);
        this.close();
    }

    /** @param began the second of the scene at which the recording begins */
    private async keep(aim: Aim, file: File, began: number, trimmed = false): Promise<void> {
        const who = 'line' in aim ? (this.scene.find('lines', aim.line)?.itemId ?? 0) : aim.item;
        const words = 'line' in aim ? (this.scene.find('lines', aim.line)?.text ?? '') : aim.text;
        const form = new FormData();
        form.append('file', file);
        form.append('name', [this.scene.find('items', who)?.name ?? 'Somebody', words.slice(0, 40) || 'recorded'].join(': '));
        try {
            const kept = await call(Kept, 'POST', `scenes/${this.scene.id}/recordings`, form);
            await this.scene.refreshAssets();
            if ('line' in aim) await this.scene.edit({ do: 'take.add', line: aim.line, asset: kept.asset });
            else
                await this.scene.edit({
                    do: 'line.add',
                    item: aim.item,
                    text: aim.text,
                    recording: kept.asset,
                    start: Math.max(0, Math.round(began * perSecond(this.scene.rate))),
                    // What was said before the scene began is left out.
                    ...(trimmed ? {} : { recordingIn: Math.max(0, -began) }),
                });
        } catch (e) {
            if (!(e instanceof ApiError)) throw e;
            this.scene.notice = { kind: 'error', message: e.message, remedy: e.remedy };
        }
    }

    private hush(): void {
        this.stream?.getTracks().forEach((t) => t.stop());
        void this.context?.close();
        this.stream = this.context = null;
    }

    private close(): void {
        this.hush();
        this.aim = null;
        this.sending = false;
        this.blocks = [];
    }

    private tell(message: string, remedy: string): void {
        this.scene.notice = { kind: 'error', message, remedy };
    }
}

/** The one sound of a drop; null: it is something else, which the kit takes. */
export function soundOf(data: DataTransfer | null): File | null {
    const file = data?.files.length === 1 ? data.files[0] : undefined;
    return file && /\.(wav|flac|ogg|mp3)$/i.test(file.name) ? file : null;
}
