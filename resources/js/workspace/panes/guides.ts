/** Lines over the picture that help to frame; no render shows them. */
export interface Guides {
    /** Width over height of the picture that is meant; null: all of it. */
    mask: number | null;
    thirds: boolean;
    /** Where titles and actions are safe on any screen: 90 and 93 % of each side. */
    safe: boolean;
    /** Where the tops of heads like to be. */
    headroom: boolean;
    /** What is before and behind the sharp part of the picture, tinted. */
    focus: boolean;
}

export const NO_GUIDES: Guides = { mask: null, thirds: false, safe: false, headroom: false, focus: false };

export const MASKS: [number | null, string][] = [
    [null, 'No mask'],
    [1.33, '1.33 : 1'],
    [1.66, '1.66 : 1'],
    [16 / 9, '1.78 : 1'],
    [1.85, '1.85 : 1'],
    [2, '2.00 : 1'],
    [2.39, '2.39 : 1'],
    [9 / 16, 'Upright 9 : 16'],
];

export interface Box {
    x: number;
    y: number;
    width: number;
    height: number;
}

/** The part of a picture that a mask leaves, in its pixels. */
export function masked(width: number, height: number, mask: number | null): Box {
    const aspect = width / height;
    if (mask === null || Math.abs(mask - aspect) < 0.01) return { x: 0, y: 0, width, height };
    if (mask > aspect) {
        const high = width / mask;
        return { x: 0, y: (height - high) / 2, width, height: high };
    }
    const wide = height * mask;
    return { x: (width - wide) / 2, y: 0, width: wide, height };
}

/** A box of a share of each side, in the middle of another. */
export const within = (b: Box, share: number): Box => ({
    x: b.x + (b.width * (1 - share)) / 2,
    y: b.y + (b.height * (1 - share)) / 2,
    width: b.width * share,
    height: b.height * share,
});

/** What was chosen last on this machine. */
export function guidesKept(): Guides {
    try {
        const kept = JSON.parse(localStorage.getItem('guides') ?? '{}') as Partial<Guides>;
        return { ...NO_GUIDES, ...kept };
    } catch {
        return NO_GUIDES;
    }
}

export function keepGuides(g: Guides): void {
    try {
        localStorage.setItem('guides', JSON.stringify(g));
    } catch {
        // Then they last as long as the page.
    }
}
