/** JSON calls to the server. Errors carry what happened, and what to do. */

export class ApiError extends Error {
    constructor(
        readonly status: number,
        readonly reason: string,
        message: string,
        readonly remedy: string,
        readonly fields: Record<string, string[]> = {},
    ) {
        super(message);
    }
}

function token(): string {
    const found = /(?:^|; )XSRF-TOKEN=([^;]+)/.exec(document.cookie);
    return found?.[1] ? decodeURIComponent(found[1]) : '';
}

async function refuse(r: Response): Promise<never> {
    const body = (await r.json().catch(() => ({}))) as {
        reason?: string;
        message?: string;
        remedy?: string;
        fields?: Record<string, string[]>;
    };
    const plain: Record<number, string> = {
        401: 'You are signed out.',
        404: 'That is not here.',
        419: 'This page is out of date.',
        429: 'Too many tries.',
        413: 'That is too large.',
    };
    throw new ApiError(
        r.status,
        body.reason ?? `http.${r.status}`,
        (r.status < 500 ? (body.reason ? body.message : plain[r.status]) : null) ?? plain[r.status] ?? 'The server could not do that.',
        body.remedy ?? (r.status === 429 ? 'Wait a minute and try again.' : 'Load the page again.'),
        body.fields ?? {},
    );
}

export async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
    const form = body instanceof FormData;
    let r: Response;
    try {
        r = await fetch(`/api/${path}`, {
            method,
            headers: {
                Accept: 'application/json',
                'X-XSRF-TOKEN': token(),
                ...(body === undefined || form ? {} : { 'Content-Type': 'application/json' }),
            },
            body: body === undefined ? null : form ? body : JSON.stringify(body),
        });
    } catch {
        throw new ApiError(0, 'offline', 'The server cannot be reached.', 'Your change is kept and sent when it is back.');
    }
    if (!r.ok) await refuse(r);
    return (await r.json()) as T;
}

export async function bytes(path: string): Promise<ArrayBuffer | null> {
    const r = await fetch(`/api/${path}`);
    if (r.status === 410) return null;
    if (!r.ok) await refuse(r);
    return r.arrayBuffer();
}
