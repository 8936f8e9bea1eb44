import { thinningReady, thinSurface, type Surface } from './thinning';

// Thins one surface after the other beside the page, so that no picture waits for it.
self.onmessage = async ({ data }: MessageEvent<Surface & { id: number }>) => {
    await thinningReady;
    const made = thinSurface(data);
    const sent = [...made.seen.index, ...made.cast.index].map((a) => a.buffer as ArrayBuffer);
    self.postMessage({ id: data.id, ...made }, { transfer: [...new Set(sent)] });
};
