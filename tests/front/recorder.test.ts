import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Playhead } from '../../resources/js/workspace/playhead.svelte';
import { Recorder } from '../../resources/js/workspace/speech/recorder.svelte';
import type { SceneStore } from '../../resources/js/workspace/scene.svelte';
import type { SpeechStore } from '../../resources/js/workspace/speech/speech.svelte';

/** A scene that only takes down what it is asked for. */
const scene = {
    id: 1,
    rate: [24, 1],
    notice: null as { message: string } | null,
    edits: [] as object[],
    find: (table: string, id: number) => (table === 'lines' ? { id, itemId: 7, text: 'Who is there?' } : { id, name: 'Oda' }),
    refreshAssets: () => Promise.resolve(),
    edit(command: object) {
        this.edits.push(command);
        return Promise.resolve(true);
    },
};
/** The line that is there begins at frame 60. */
const speech = { settled: new Map([[5, { start: 60 }]]) };
let playhead: Playhead;
let recorder: Recorder;
/** What hears the microphone's blocks. */
let hear: (block: Float32Array) => void;
const stopped = vi.fn();

class FakeContext {
    readonly sampleRate = 1000;
    readonly audioWorklet = { addModule: () => Promise.resolve() };
    createMediaStreamSource = () => ({ connect: () => undefined });
    resume = () => Promise.resolve();
    close = () => Promise.resolve();
}
class FakeNode {
    readonly port = {
        set onmessage(f: (e: { data: Float32Array }) => void) {
            hear = (data) => f({ data });
        },
    };
}

function microphone(given: () => Promise<unknown>): void {
    vi.stubGlobal('navigator', { mediaDevices: { getUserMedia: given } });
}

beforeEach(() => {
    scene.notice = null;
    scene.edits = [];
    stopped.mockReset();
    vi.stubGlobal('AudioContext', FakeContext);
    vi.stubGlobal('AudioWorkletNode', FakeNode);
    vi.stubGlobal('fetch', () => Promise.resolve(new Response(JSON.stringify({ asset: 12, seconds: 2 }), { status: 201 })));
    microphone(() => Promise.resolve({ getTracks: () => [{ stop: stopped }] }));
    playhead = new Playhead(
        () => 240,
        () => 24,
    );
    recorder = new Recorder(scene as unknown as SceneStore, playhead, speech as unknown as SpeechStore);
});
afterEach(() => vi.unstubAllGlobals());

const loud = () => new Float32Array(100).fill(0.5);

describe('a line that is there', () => {
    it('is played from a second and a half before it, and heard as what was said', async () => {
        await recorder.begin({ line: 5 });
        expect([playhead.frame, playhead.playing, recorder.isOf(5), recorder.isOf(6)]).toEqual([24, true, true, false]);
        hear(loud());
        expect([recorder.level, recorder.seconds]).toEqual([0.5, 0.1]);
        await recorder.end();
        expect(scene.edits).toEqual([{ do: 'take.add', line: 5, asset: 12 }]);
        expect([recorder.aim, recorder.sending, playhead.playing, stopped.mock.calls.length > 0]).toEqual([null, false, false, true]);
    });
});

describe('a new line', () => {
    it('begins where the playhead was when it was said', async () => {
        playhead.go(48);
        await recorder.begin({ item: 7, text: 'Here!' });
        // The playhead is at two seconds when the first tenth of a second has been heard.
        hear(loud());
        await recorder.end();
        expect(scene.edits).toEqual([{ do: 'line.add', item: 7, text: 'Here!', recording: 12, start: 46, recordingIn: 0 }]);
    });
    it('leaves out what was said before the scene began', async () => {
        await recorder.begin({ item: 7, text: '' });
        hear(loud());
        await recorder.end();
        expect(scene.edits[0]).toMatchObject({ start: 0, recordingIn: 0.1 });
    });
    it('of a file begins where it is let go, trimmed by itself', async () => {
        await recorder.bring(7, new File(['x'], 'said.wav'), 36);
        expect(scene.edits).toEqual([{ do: 'line.add', item: 7, text: '', recording: 12, start: 36 }]);
    });
});

describe('what cannot be recorded is said, and nothing is changed', () => {
    it('where nothing was heard', async () => {
        await recorder.begin({ line: 5 });
        hear(new Float32Array(100));
        await recorder.end();
        expect([scene.edits, scene.notice?.message]).toEqual([[], 'Nothing was heard.']);
    });
    it('where the microphone is refused', async () => {
        microphone(() => Promise.reject(new DOMException('no', 'NotAllowedError')));
        await recorder.begin({ line: 5 });
        expect([recorder.aim, playhead.playing, scene.notice?.message]).toEqual([null, false, 'The microphone was refused.']);
    });
    it('where there is none', async () => {
        microphone(() => Promise.reject(new DOMException('no', 'NotFoundError')));
        await recorder.begin({ line: 5 });
        expect(scene.notice?.message).toBe('There is no microphone that can be used.');
    });
    it('where the page may not ask for one', async () => {
        vi.stubGlobal('navigator', {});
        await recorder.begin({ line: 5 });
        expect(scene.notice?.message).toContain('not served securely');
    });
    it('where it is left', async () => {
        await recorder.begin({ line: 5 });
        hear(loud());
        recorder.drop();
        expect([scene.edits, recorder.aim, stopped.mock.calls.length > 0]).toEqual([[], null, true]);
    });
});
