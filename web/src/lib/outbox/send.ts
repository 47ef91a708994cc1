import { api, problemOf, UNREACHABLE, type Schemas } from '$lib/api';
import type { Answer, Became, Waiting } from './types';

/** Answers that say: not now, whatever the entry (too slow, too many, database or disk). */
const NOT_NOW = new Set([408, 421, 429, 502, 503, 504, 507]);

/** Sends one entry; with a PIN when it signs. */
export async function send(entry: Waiting, pin?: string): Promise<Answer> {
	try {
		const { data, error, response } = await api.POST('/api/jobs/{job_id}/entries', {
			params: { path: { job_id: entry.job } },
			body: {
				id: entry.id,
				who: entry.who,
				bench_time: entry.bench_time,
				sent_at: new Date().toISOString(),
				// The payload's kind was chosen by the screen; the server checks it against the union.
				payload: entry.payload as Schemas['EntryBody']['payload'],
				pin: pin ?? null,
				seen: entry.seen ?? null
			}
		});
		// Asked without `view=full`, it is what the entry changed; the client widens tuples to arrays.
		if (data) return { kind: 'taken', became: data as Became };
		const problem = problemOf(error, response.status);
		if (response.status === 401) return { kind: 'signed_out' };
		if (NOT_NOW.has(response.status)) return { kind: 'away', problem };
		return { kind: response.status >= 500 ? 'fault' : 'refused', problem };
	} catch {
		return { kind: 'away', problem: UNREACHABLE };
	}
}
