import type { AssetRow } from '../rows';

/** How surfaces were made. */
export const STYLES: Record<string, string> = { painted: 'painted', pictures: 'with pictures', plain: 'plain colours' };

const number = (v: unknown): number | null => (typeof v === 'number' && Number.isFinite(v) ? v : null);

function metres(v: number): string {
    if (v < 0.01) return `${(v * 1000).toFixed(1)} mm`;
    return v < 1 ? `${Math.round(v * 100)} cm` : `${v < 20 ? v.toFixed(2) : Math.round(v)} m`;
}

/** gripL: left grip; seat12: seat 12. */
function placeName(mount: string): string {
    const side = /^(.*[a-z])([LR])$/.exec(mount);
    return side ? `${side[2] === 'L' ? 'left' : 'right'} ${side[1] ?? ''}` : mount.replace(/(\d+)$/, ' $1');
}

/** What an asset is, in plain words: a name and a value each. */
export function factsOf(kind: AssetRow['kind'] | null, facts: Record<string, unknown>, rate: [number, number]): [string, string][] {
    const fps = rate[0] / rate[1];
    const out: [string, string][] = [];
    const size = Array.isArray(facts.size) ? facts.size.map((v) => number(v) ?? 0) : null;
    const seconds = number(facts.seconds);
    if (seconds !== null)
        out.push([
            'Length',
            `${seconds.toFixed(2)} s, ${Math.round(seconds * fps)} frames at ${String(Math.round(fps * 100) / 100)}${facts.loops === true ? ', loops' : ''}`,
        ]);
    const travel = number(facts.travel);
    if (kind === 'motion' && travel !== null)
        out.push(['Way', travel > 0.1 ? `${metres(travel)} at ${(number(facts.speed) ?? 0).toFixed(2)} m/s` : 'stays on the spot']);
    if (kind === 'motion' && number(facts.rate))
        out.push(['Recorded at', `${String(Math.round((number(facts.rate) ?? 0) * 100) / 100)} frames a second`]);
    if (size) {
        if (kind === 'performer') out.push(['Height', metres(size[1] ?? 0)]);
        else out.push(['Size', `${metres(size[0] ?? 0)} wide, ${metres(size[1] ?? 0)} high, ${metres(size[2] ?? 0)} deep`]);
    }
    if (number(facts.triangles) !== null)
        out.push([
            'Triangles',
            `${(number(facts.triangles) ?? 0).toLocaleString('en')} in ${String(facts.draws)} part${facts.draws === 1 ? '' : 's'}`,
        ]);
    if (kind === 'prop')
        out.push([
            'Working parts',
            (number(facts.joints) ?? 0) > 0 ? `${String(facts.joints)} that turn by themselves` : 'none, it is one piece',
        ]);
    const mounts = Array.isArray(facts.mounts) ? facts.mounts.filter((m): m is string => typeof m === 'string') : [];
    if (mounts.length > 0) out.push(['Places to hold or sit', mounts.map(placeName).join(', ')]);
    if (kind === 'performer') {
        out.push(['Joints', `${String(facts.joints)}, ${String(facts.roles)} known as parts of a body`]);
        out.push(['Fingers', facts.fingers === true ? 'yes' : 'no']);
        out.push([
            'Face',
            (number(facts.shapes) ?? 0) > 0
                ? `${String(facts.shapes)} shapes, ${String(facts.mouths ?? 0)} of the mouth${facts.eyelids === true ? ', eyelids' : ''}`
                : 'does not move',
        ]);
    }
    if (typeof facts.style === 'string' && STYLES[facts.style]) out.push(['Style', STYLES[facts.style] ?? '']);
    const pixels = Array.isArray(facts.pixels) ? facts.pixels : null;
    if (pixels) out.push(['Picture', `${String(pixels[0])} x ${String(pixels[1])} pixels`]);
    if (number(facts.channels) !== null)
        out.push(['Sound', `${String(facts.channels)} channel${facts.channels === 1 ? '' : 's'}, ${String(facts.sampleRate)} Hz`]);
    return out;
}

export function megabytes(bytes: number): string {
    return bytes < 1048576 ? `${Math.max(1, Math.round(bytes / 1024))} kB` : `${(bytes / 1048576).toFixed(1)} MB`;
}
