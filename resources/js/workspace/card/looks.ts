import type { Command, ContactRow } from '../rows';

/** The look of somebody that holds at a frame, if one is said by hand. */
export const lookAt = (all: ContactRow[], who: number, frame: number): ContactRow | undefined =>
    all.find((c) => c.itemId === who && c.effector === 'look' && c.from <= frame && (c.to === null || frame < c.to));

/**
 * From a frame on somebody looks at something else: what held until then ends there, and what was said for later stays.
 * @param at null: nothing by hand any more
 * @param mount a named place or joint of it; empty: the whole of it
 */
export function lookCommands(all: ContactRow[], who: number, at: number | null, frame: number, mount: string): Command[] {
    const now = lookAt(all, who, frame);
    const later = all.filter((c) => c.itemId === who && c.effector === 'look' && c.from > frame).map((c) => c.from);
    const ends: Command[] = !now
        ? []
        : now.from === frame
          ? [{ do: 'contact.remove', contact: now.id }]
          : [{ do: 'contact.set', contact: now.id, to: frame }];
    if (at === null) return ends;
    const to = later.length > 0 ? { to: Math.min(...later) } : {};
    return [...ends, { do: 'contact.add', item: who, effector: 'look', target: at, mount, from: frame, ...to }];
}
