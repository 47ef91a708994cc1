import { api, ask } from '$lib/api';
import { setUsualUnits } from '$lib/shared';

export const ssr = false;
export const prerender = false;

/** No screen waits longer for it than this. */
const PATIENCE_MS = 1500;

/** What a bare number means in this shop, before any field is shown; without an answer, the shipped units. */
export async function load() {
	const asked = ask(api.GET('/api/quantities/units')).then(({ data }) => {
		if (data) setUsualUnits(data as Record<string, string>);
	});
	await Promise.race([asked, new Promise((resolve) => setTimeout(resolve, PATIENCE_MS))]);
}
