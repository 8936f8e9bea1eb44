import { describe, expect, it } from 'vitest';
import { Playhead } from '../../resources/js/workspace/playhead.svelte';

/** A clock of sound that is set by hand. */
class Clock {
    at: number | null = null;
    begun: number[] = [];
    rounds: (number | null)[] = [];
    stopped = 0;
    begin = (frame: number, _end: number, _rate: number, first: number | null): void => {
        this.begun.push(frame);
        this.rounds.push(first);
    };
    frame = (): number | null => this.at;
    stop = (): void => void this.stopped++;
}

function heard(): [Playhead, Clock] {
    const playhead = new Playhead(
        () => 100,
        () => 24,
    );
    const clock = new Clock();
    playhead.sound = clock;
    return [playhead, clock];
}

describe('while something sounds', () => {
    it('the picture is where the sound is, however the page hurries or lags', () => {
        const [playhead, clock] = heard();
        playhead.play(1);
        expect(clock.begun).toEqual([0]);
        const now = performance.now();
        clock.at = 12.7;
        playhead.tick(now + 10);
        expect(playhead.frame).toBe(12);
        clock.at = 13.1;
        playhead.tick(now + 4000);
        expect(playhead.frame).toBe(13);
    });

    it('going round begins the sound again at the first frame', () => {
        const [playhead, clock] = heard();
        playhead.inFrame = 20;
        playhead.outFrame = 40;
        playhead.go(30);
        playhead.play(1);
        clock.at = 40.5;
        playhead.tick(performance.now());
        expect(playhead.frame).toBe(20);
        expect(clock.begun).toEqual([30, 20]);
    });

    it('knows beforehand where it goes round to, and is told when that changes', () => {
        const [playhead, clock] = heard();
        playhead.inFrame = 20;
        playhead.outFrame = 40;
        playhead.go(30);
        playhead.play(1);
        expect(clock.rounds).toEqual([20]);
        clock.at = 21.5;
        playhead.tick(performance.now());
        expect(playhead.frame).toBe(21);
        expect(clock.begun).toEqual([30]);
        playhead.outFrame = 60;
        playhead.tick(performance.now());
        expect(clock.begun).toEqual([30, 21]);
    });

    it('some frames by themselves are heard once, and it is where it was', () => {
        const [playhead, clock] = heard();
        playhead.go(70);
        playhead.playOnce(30, 41.2);
        expect(playhead.end).toBe(42);
        playhead.playOnce(34, 40);
        expect(clock.rounds).toEqual([null, null]);
        clock.at = 40.2;
        playhead.tick(performance.now());
        expect([playhead.frame, playhead.playing, playhead.end]).toEqual([70, false, 100]);
    });

    it('a jump begins it there, and a stop or another speed ends it', () => {
        const [playhead, clock] = heard();
        playhead.play(1);
        playhead.go(50);
        expect(clock.begun).toEqual([0, 50]);
        playhead.play(2);
        expect(clock.stopped).toBe(1);
        playhead.stop();
        expect(clock.stopped).toBe(2);
    });
});

describe('while nothing sounds', () => {
    it('the page keeps the time', () => {
        const [playhead] = heard();
        playhead.play(1);
        playhead.tick(performance.now() + 1000);
        expect(playhead.frame).toBeGreaterThanOrEqual(23);
        expect(playhead.frame).toBeLessThanOrEqual(25);
    });
});
