import type { Command, Rows, Table } from './rows';

/**
 * What a row will be when an edit on its way is taken: simple fields only. Shown until the answer, which replaces it; so a field
 * that was just typed never jumps back, and what is dragged stays where it was put while the server is away.
 */
interface Simple {
    table: Table;
    of: string;
    fields: string[];
}

const SIMPLE: Record<string, Simple> = {
    'item.place': { table: 'items', of: 'item', fields: ['position', 'headingDeg', 'scale'] },
    'item.set': { table: 'items', of: 'item', fields: ['name', 'tape'] },
    'beat.set': { table: 'beats', of: 'beat', fields: ['start', 'sourceIn', 'sourceOut', 'speed', 'loops', 'joinFrames'] },
    'link.set': { table: 'links', of: 'link', fields: ['from', 'to', 'easeFrames'] },
    'contact.set': { table: 'contacts', of: 'contact', fields: ['offset', 'from', 'to', 'easeIn', 'easeOut'] },
    'touchup.set': { table: 'touch_ups', of: 'touchUp', fields: ['from', 'to', 'easeIn', 'easeOut'] },
    'framing.set': { table: 'framings', of: 'framing', fields: ['size', 'sideDeg', 'height', 'focalMm', 'fStop', 'keep', 'over'] },
    'camera.set': { table: 'cameras', of: 'camera', fields: ['name'] },
    'line.set': { table: 'lines', of: 'line', fields: ['text', 'start', 'pause', 'delivery', 'pace', 'voice'] },
    'expression.set': { table: 'expressions', of: 'expression', fields: ['emotion', 'amount', 'from', 'to', 'easeIn', 'easeOut'] },
    'sound.set': { table: 'sounds', of: 'sound', fields: ['level', 'fadeIn', 'fadeOut', 'lane', 'repeats', 'muted'] },
    'shot.set': { table: 'shots', of: 'shot', fields: ['label'] },
};

type Row = { id: number } & Record<string, unknown>;

function fieldsOf(row: Row, command: Command, simple: Simple): Record<string, unknown> {
    const out: Record<string, unknown> = {};
    for (const f of simple.fields) if (f in row && command[f] !== undefined) out[f] = command[f];
    const at = row.position;
    if (command.do === 'item.place' && Array.isArray(at)) {
        const place = [...((out.position as number[] | undefined) ?? (at as number[]))];
        (['x', 'y', 'z'] as const).forEach((k, n) => {
            if (typeof command[k] === 'number') place[n] = command[k];
        });
        out.position = place;
    }
    return out;
}

/** The row that a command is about, as it is expected to become; null where that is not simple. */
export function expectedRow(rows: Rows, command: Command): { table: Table; row: Row } | null {
    const simple = SIMPLE[command.do];
    if (!simple) return null;
    const row = (rows[simple.table] as unknown as Row[]).find((r) => r.id === command[simple.of]);
    if (!row) return null;
    return { table: simple.table, row: { ...row, ...fieldsOf(row, command, simple) } };
}

/** Cuts among commands, to be marked before they are taken. */
export function cutsIn(commands: Command[]): { frame: number; camera: number }[] {
    return commands.flatMap(({ do: what, frame, camera }) =>
        what === 'shot.cut' && typeof frame === 'number' && typeof camera === 'number' ? [{ frame, camera }] : [],
    );
}

const WORDS: Record<string, string> = {
    add: 'add',
    set: 'change',
    place: 'move',
    key: 'key',
    unkey: 'take a key from',
    remove: 'remove',
    cut: 'cut to',
    move: 'move',
    split: 'split',
    duplicate: 'double',
};

/** A command in words, for the list of what waits. */
export function inWords(command: Command, named: (table: Table, id: number) => string | null): string {
    const [thing = '', what = ''] = command.do.split('.');
    const id = command[thing] ?? command.item;
    const table = SIMPLE[`${thing}.set`]?.table ?? SIMPLE[command.do]?.table;
    const name = typeof id === 'number' && table ? named(table, id) : typeof command.name === 'string' ? command.name : null;
    return `${WORDS[what] ?? what} ${name ?? `a ${thing.replace('touchup', 'touch-up')}`}`.replace('a item', 'a thing');
}
