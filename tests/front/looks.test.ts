import { describe, expect, it } from 'vitest';
import { lookAt, lookCommands } from '../../resources/js/workspace/card/looks';
import type { ContactRow } from '../../resources/js/workspace/rows';

const look = (id: number, from: number, to: number | null, more: Partial<ContactRow> = {}) =>
    ({ id, itemId: 1, effector: 'look', targetId: 2, from, to, ...more }) as ContactRow;

describe('looks by hand', () => {
    const all = [look(5, 0, 40), look(6, 60, null), look(7, 0, null, { itemId: 2 }), look(8, 0, null, { effector: 'handL' })];
    it('hold from their first frame up to their last', () => {
        expect(lookAt(all, 1, 39)?.id).toBe(5);
        expect(lookAt(all, 1, 40)).toBeUndefined();
        expect(lookAt(all, 1, 500)?.id).toBe(6);
    });
    it('give way to a new one, which lasts until what was said for later', () => {
        expect(lookCommands(all, 1, 9, 20, 'head')).toEqual([
            { do: 'contact.set', contact: 5, to: 20 },
            { do: 'contact.add', item: 1, effector: 'look', target: 9, mount: 'head', from: 20, to: 60 },
        ]);
        expect(lookCommands(all, 1, 9, 60, '')).toEqual([
            { do: 'contact.remove', contact: 6 },
            { do: 'contact.add', item: 1, effector: 'look', target: 9, mount: '', from: 60 },
        ]);
    });
    it('end where nothing more is said', () => {
        expect(lookCommands(all, 1, null, 20, '')).toEqual([{ do: 'contact.set', contact: 5, to: 20 }]);
        expect(lookCommands(all, 1, null, 50, '')).toEqual([]);
    });
});
