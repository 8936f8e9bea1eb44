import { describe, expect, it } from 'vitest';
import { doesAt, withAt, without, wordsOf } from '../../resources/js/workspace/speech/words';

const LINE = 'Wait. [1.5 s] *No*, [nod] [look Bram] it is 3 o’clock!';

describe('words of a line', () => {
    it('are those that are said, where they stand', () => {
        expect(wordsOf(LINE).map((w) => w.word)).toEqual(['Wait.', 'No,', 'it', 'is', '3', 'o’clock!']);
        expect(wordsOf(LINE).map((w) => LINE.slice(w.at, w.at + 2))).toEqual(['Wa', '*N', 'it', 'is', '3 ', 'o’']);
        expect(wordsOf('[nod] — !')).toEqual([]);
    });

    it('have what is done before each', () => {
        expect([0, 1, 2, 3].map((n) => doesAt(LINE, n))).toEqual([[], ['1.5 s'], ['nod', 'look Bram'], []]);
    });

    it('get something more, after what is there', () => {
        expect(withAt(LINE, 2, 'wave')).toBe('Wait. [1.5 s] *No*, [nod] [look Bram] [wave] it is 3 o’clock!');
        expect(withAt('Go.', 0, 'sigh')).toBe('[sigh] Go.');
        expect(withAt('Go.', 7, 'sigh')).toBe('Go. [sigh]');
    });

    it('and lose it again', () => {
        expect(without(LINE, 2, 'nod')).toBe('Wait. [1.5 s] *No*, [look Bram] it is 3 o’clock!');
        expect(without(withAt('Go on.', 1, 'hm'), 1, 'hm')).toBe('Go on.');
    });
});
