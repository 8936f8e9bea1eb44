/** Timecode and typed times. Frames are whole; the rate is a ratio. */

export type Rate = [number, number];

export const perSecond = (rate: Rate): number => rate[0] / rate[1];

const two = (n: number) => String(n).padStart(2, '0');

/** Numbers that are left out each minute but the tenth, at the rates that do so: 2 at 29.97, 4 at 59.94; else 0. */
const dropped = (rate: Rate): number =>
    rate[1] === 1001 && (rate[0] === 30000 || rate[0] === 60000) ? Math.round(perSecond(rate)) / 15 : 0;

/** SMPTE timecode; drop-frame numbering (with a semicolon) at 29.97 and 59.94. */
export function timecode(frame: number, rate: Rate): string {
    const base = Math.round(perSecond(rate));
    let f = Math.max(0, Math.floor(frame));
    let mark = ':';
    const drop = dropped(rate);
    if (drop > 0) {
        mark = ';';
        const ten = base * 600 - 9 * drop;
        const minute = base * 60 - drop;
        const rest = f % ten;
        f += 9 * drop * Math.floor(f / ten) + (rest >= drop ? drop * Math.floor((rest - drop) / minute) : 0);
    }
    const s = Math.floor(f / base);
    return `${two(Math.floor(s / 3600))}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}${mark}${two(f % base)}`;
}

/** A typed time as a frame: 130, 130f, 5.5s, 00:00:05:12, 5:12. Null when it is none of these. */
export function parseFrame(text: string, rate: Rate): number | null {
    const t = text.trim();
    const base = Math.round(perSecond(rate));
    let m = /^(\d+)\s*f?$/.exec(t);
    if (m) return Number(m[1]);
    m = /^(\d+(?:\.\d+)?)\s*s$/.exec(t);
    if (m) return Math.round(Number(m[1]) * perSecond(rate));
    const parts = t.split(/[:;]/).map(Number);
    if (parts.length < 2 || parts.length > 4 || parts.some((p) => !Number.isInteger(p) || p < 0)) return null;
    const frames = parts.pop() ?? 0;
    const seconds = parts.reduce((sum, p) => sum * 60 + p, 0);
    const minutes = Math.floor(seconds / 60);
    // A number that is left out means the first that is there.
    const drop = dropped(rate);
    const counted = drop > 0 && minutes % 10 !== 0 && seconds % 60 === 0 ? Math.max(frames, drop) : frames;
    return seconds * base + counted - drop * (minutes - Math.floor(minutes / 10));
}

export type Unit = 'm' | 'deg' | 'mm' | '';

/** A number with a unit, in the base unit: metres (2.5, 250cm), degrees (45, 45deg), millimetres (35mm). */
function plainNumber(text: string, unit: Unit): number | null {
    const m = /^(-?(?:\d+\.?\d*|\.\d+))\s*([a-z°"']*)$/i.exec(text);
    if (!m) return null;
    const n = Number(m[1]);
    const given = (m[2] ?? '').toLowerCase();
    if (given === '' || given === unit || (unit === 'deg' && given === '°')) return n;
    const metres: Record<string, number> = { mm: 0.001, cm: 0.01, m: 1, km: 1000, in: 0.0254, ft: 0.3048 };
    if (unit === 'm' && metres[given]) return n * metres[given];
    if (unit === 'mm' && metres[given]) return (n * metres[given]) / 0.001;
    return null;
}

/**
 * A typed number: with a unit, or as a change of the present one: +0.1, +10cm, -=5, *2, /4, 50% (of it), +10%. A minus alone is a
 * negative number; taking away is written -=. Null when it is none of these.
 */
export function parseNumber(text: string, unit: Unit, present: number | null = null): number | null {
    const t = text.trim().replace(/,/g, '.');
    const change = /^(\+=?|-=|\*=?|\/=?)\s*(.+)$/.exec(t);
    const share = /^(-?(?:\d+\.?\d*|\.\d+))\s*%$/.exec(change?.[2] ?? t);
    if (present === null) return change || share ? null : plainNumber(t, unit);
    const sign = change?.[1]?.[0] ?? '';
    if (share) {
        const part = Number(share[1]) / 100;
        if (sign === '+' || sign === '-') return tidy(present * (sign === '+' ? 1 + part : 1 - part));
        return sign === '/' ? (part === 0 ? null : tidy(present / part)) : tidy(present * part);
    }
    if (!change) return plainNumber(t, unit);
    const n = plainNumber(change[2] ?? '', sign === '*' || sign === '/' ? '' : unit);
    if (n === null || (sign === '/' && n === 0)) return null;
    return tidy(sign === '+' ? present + n : sign === '-' ? present - n : sign === '*' ? present * n : present / n);
}

/** What binary fractions add is nobody's number: 0.1 + 0.2 is 0.3. */
const tidy = (n: number): number => Number(n.toPrecision(12));

/** A typed time, or a change of the present frame: +12, +1s, -=00:00:01:00, *2. Null when it is none of these. */
export function parseFrameChange(text: string, rate: Rate, present: number): number | null {
    const change = /^(\+=?|-=|\*=?|\/=?)\s*(.+)$/.exec(text.trim());
    if (!change) return parseFrame(text, rate);
    const sign = change[1]?.[0] ?? '';
    const rest = change[2] ?? '';
    const n = sign === '*' || sign === '/' ? plainNumber(rest.replace(',', '.'), '') : parseFrame(rest, rate);
    if (n === null || (sign === '/' && n === 0)) return null;
    const to = sign === '+' ? present + n : sign === '-' ? present - n : sign === '*' ? present * n : present / n;
    return Math.max(0, Math.round(to));
}

/** Trailing zeros say nothing. */
export function short(n: number, digits = 2): string {
    const t = n.toFixed(digits);
    return (t.includes('.') ? t.replace(/\.?0+$/, '') : t).replace(/^-0$/, '0');
}
