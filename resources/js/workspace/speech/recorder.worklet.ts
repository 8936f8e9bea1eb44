/** In the thread of the sound: passes on what the microphone hears, a block at a time. */

declare class AudioWorkletProcessor {
    readonly port: MessagePort;
}
declare function registerProcessor(name: string, made: new () => AudioWorkletProcessor): void;

class Recorder extends AudioWorkletProcessor {
    process(inputs: Float32Array[][]): boolean {
        const heard = inputs[0]?.[0];
        // The browser uses its own block again.
        if (heard) this.port.postMessage(heard.slice());
        return true;
    }
}

registerProcessor('recorder', Recorder);
