/** A word of a line as it is written: where it stands in the text, and the word. */
export interface Written {
    at: number;
    word: string;
}

/** Words of a text, without what stands in brackets; as the server counts them. */
export function wordsOf(text: string): Written[] {
    const bare = text.replace(/\[[^[\]]*\]/g, (b) => ' '.repeat(b.length));
    return [...bare.matchAll(/\S*[\p{L}\p{N}]\S*/gu)].map((m) => ({ at: m.index, word: m[0].replace(/^\*|\*(?=\W*$)/g, '') }));
}

/** The text with something in brackets before one of its words, after what stands there already. */
export function withAt(text: string, word: number, does: string): string {
    const at = wordsOf(text)[word]?.at ?? text.length;
    const before = text.slice(0, at).trimEnd();
    return `${before}${before === '' ? '' : ' '}[${does}] ${text.slice(at)}`.trimEnd();
}

/** What stands in brackets before a word. */
export function doesAt(text: string, word: number): string[] {
    const all = wordsOf(text);
    const last = all[word - 1];
    const from = last ? last.at + last.word.length : 0;
    return [...text.slice(from, all[word]?.at ?? text.length).matchAll(/\[([^[\]]*)\]/g)].map((m) => m[1]!.trim());
}

/** The text without one of them. */
export function without(text: string, word: number, does: string): string {
    const all = wordsOf(text);
    const last = all[word - 1];
    const from = last ? last.at + last.word.length : 0;
    const to = all[word]?.at ?? text.length;
    return (text.slice(0, from) + text.slice(from, to).replace(`[${does}]`, '').replace(/\s+/g, ' ') + text.slice(to)).trim();
}
