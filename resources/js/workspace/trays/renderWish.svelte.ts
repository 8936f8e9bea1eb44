interface Wish {
    size: string;
    typed: string;
    format: string;
    loudness: number;
    from: string;
    to: string;
}

const USUAL: Wish = { size: '1280x720', typed: '960x540', format: 'mp4', loudness: -14, from: '', to: '' };
const open: Record<number, Wish> = {};

/** What is asked for in a scene's next render: stays while the page does, whichever step one goes to. */
export function renderWish(scene: number): Wish {
    const known = open[scene];
    if (known) return known;
    const wish = $state({ ...USUAL });
    open[scene] = wish;
    return wish;
}
