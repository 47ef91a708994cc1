import createClient from 'openapi-fetch';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Problem = Schemas['Problem'];
export type JobView = Schemas['JobView'];
export type JobSummary = Schemas['JobSummary'];
export type SheetView = Schemas['SheetView'];
export type Finding = Schemas['FindingOut'];

export const api = createClient<paths>({ baseUrl: '' });

/** What to tell when the server gave no answer at all. */
export const UNREACHABLE: Problem = {
	type: '/problems/unreachable',
	title: 'No connection',
	status: 0,
	detail: 'The server does not answer. Nothing is lost; try again in a moment.',
	errors: []
};

/** The problem in an answer that failed, whatever came. */
export function problemOf(error: unknown): Problem {
	if (error && typeof error === 'object' && 'detail' in error && 'status' in error) return error as Problem;
	return UNREACHABLE;
}

/** Runs a call and gives its data or its problem, never an exception. */
export async function ask<T>(
	call: Promise<{ data?: T; error?: unknown }>
): Promise<{ data: T; problem: null } | { data: null; problem: Problem }> {
	try {
		const { data, error } = await call;
		return data === undefined ? { data: null, problem: problemOf(error) } : { data, problem: null };
	} catch {
		return { data: null, problem: UNREACHABLE };
	}
}
