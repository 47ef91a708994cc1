import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Problem = Schemas['Problem'];
export type JobView = Schemas['JobView'];
export type JobSummary = Schemas['JobSummary'];
export type SheetView = Schemas['SheetView'];
export type Finding = Schemas['FindingOut'];

export const api = createClient<paths>({ baseUrl: '' });

const NOT_SIGNED_IN = 401;
let signedOut = () => {};

/** Calls back whenever an answer says that nobody is signed in here any more. */
export function onSignedOut(act: () => void) {
	signedOut = act;
}

api.use({
	onResponse({ response, request }) {
		if (response.status === NOT_SIGNED_IN && !new URL(request.url).pathname.startsWith('/api/session'))
			signedOut();
	}
});

/** A problem of our own making, in the shape the server's have. */
export function localProblem(title: string, detail: string, status = 0): Problem {
	return { type: '/problems/device', title, status, detail, errors: [] };
}

/** What to tell when the server gave no answer at all. */
export const UNREACHABLE: Problem = localProblem(
	'No connection',
	'The server does not answer. Nothing is lost; try again in a moment.'
);

/** What to tell when the server answered with something that is no problem of ours. */
export function unknownFault(status: number): Problem {
	return localProblem('The server could not do this', `It answered ${status} without a reason.`, status);
}

/** The problem in an answer that failed, whatever came. */
export function problemOf(error: unknown, status = 0): Problem {
	if (error && typeof error === 'object' && 'detail' in error && 'status' in error) return error as Problem;
	return status ? unknownFault(status) : UNREACHABLE;
}

const UNCHANGED = 304;

/** As `ask`, for what was seen before under a tag: neither data nor a problem where nothing changed. */
export async function askIfChanged<T>(
	call: Promise<{ data?: T; error?: unknown; response: Response }>
): Promise<{ data: T | null; tag: string | null; problem: Problem | null }> {
	try {
		const { data, error, response } = await call;
		const tag = response.headers.get('etag');
		if (response.status === UNCHANGED) return { data: null, tag, problem: null };
		return data === undefined
			? { data: null, tag: null, problem: problemOf(error, response.status) }
			: { data, tag, problem: null };
	} catch {
		return { data: null, tag: null, problem: UNREACHABLE };
	}
}

/** Runs a call and gives its data or its problem, never an exception. */
export async function ask<T>(
	call: Promise<{ data?: T; error?: unknown; response: Response }>
): Promise<{ data: T; problem: null } | { data: null; problem: Problem }> {
	try {
		const { data, error, response } = await call;
		return data === undefined
			? { data: null, problem: problemOf(error, response.status) }
			: { data, problem: null };
	} catch {
		return { data: null, problem: UNREACHABLE };
	}
}

/** The API's own description; null where the server does not answer. */
export async function fetchDocument(): Promise<unknown> {
	try {
		return await (await fetch('/api/openapi.json')).json();
	} catch {
		return null;
	}
}
