/** JSON calls to the server. Errors carry what happened, and what to do. */

import * as v from 'valibot';
import { link } from './link.svelte';

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
        (body.reason ? body.message : plain[r.status]) ?? plain[r.status] ?? 'The server could not do that.',
        body.remedy ?? (r.status === 429 ? 'Wait a little and try again.' : 'Load the page again.'),
        body.fields ?? {},
    );
}

/** The server is away, or what it needs is: the same call may go through later. */
export const isAway = (e: unknown): boolean =>
    e instanceof ApiError && (e.status === 0 || (e.status >= 502 && e.status <= 504) || e.reason === 'database.away');

async function send(method: string, path: string, body?: unknown): Promise<Response> {
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
        link.heard(false);
        throw new ApiError(0, 'offline', 'The server cannot be reached.', 'Try again when it is back.');
    }
    link.heard(r.status < 502 || r.status > 504);
    if (!r.ok) await refuse(r);
    return r;
}

const rest = (ms: number) => new Promise((done) => setTimeout(done, ms));

/** The longest time a page waits for a worker's answer, milliseconds. */
const MOST_WAIT = 300_000;

/** Waits for the answer of a call that a worker carries out. */
async function followed(work: string, stop?: AbortSignal): Promise<Response> {
    const begin = Date.now();
    for (let ms = 60; Date.now() - begin < MOST_WAIT; ms = Math.min(1000, ms * 1.4)) {
        await rest(ms);
        if (stop?.aborted) {
            // Nobody looks any more: a worker need not begin with it.
            await send('DELETE', `works/${work}`).catch(() => undefined);
            throw new ApiError(499, 'left', 'Nobody waits for this any more.', '');
        }
        try {
            const r = await send('GET', `works/${work}`);
            if (r.status !== 202) return r;
        } catch (e) {
            // It is being worked on all the same.
            if (!isAway(e)) throw e;
        }
    }
    throw new ApiError(504, 'work.late', 'This is taking too long.', 'Try it again later, or with something simpler.');
}

/** A call whose answer is read, and checked: what a page does not know the shape of it must not build on.
 * @param stop what a worker does for this call is called off when nobody waits for it any more */
export async function call<S extends v.GenericSchema>(
    shape: S,
    method: string,
    path: string,
    body?: unknown,
    stop?: AbortSignal,
): Promise<v.InferOutput<S>> {
    let r = await send(method, path, body);
    if (r.status === 202) r = await followed(v.parse(Taken, await r.json()).work, stop);
    return checked(shape, await r.json(), path);
}

/** A call of whose answer it only matters that it is none of refusal. */
export async function tell(method: string, path: string, body?: unknown): Promise<void> {
    const r = await send(method, path, body);
    if (r.status === 202) await followed(v.parse(Taken, await r.json()).work);
}

const Taken = v.object({ work: v.string() });

export function checked<S extends v.GenericSchema>(shape: S, answer: unknown, path: string): v.InferOutput<S> {
    const result = v.safeParse(shape, answer, { abortEarly: true });
    if (result.success) return result.output;
    const issue = result.issues[0];
    console.error(`The answer of ${path} at ${v.getDotPath(issue) ?? 'its top'}: ${issue.message}`);
    throw new ApiError(200, 'answer.shape', 'The server answered in a way that this page does not know.', 'Load the page again.');
}

/** @param priority high: what a picture waits for goes before what stands in line */
export async function bytes(path: string, priority: RequestPriority = 'auto'): Promise<ArrayBuffer | null> {
    let r: Response;
    try {
        r = await fetch(`/api/${path}`, { priority });
    } catch {
        link.heard(false);
        throw new ApiError(0, 'offline', 'The server cannot be reached.', 'Try again when it is back.');
    }
    if (r.status === 410) return null;
    if (!r.ok) await refuse(r);
    return r.arrayBuffer();
}
