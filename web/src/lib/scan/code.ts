import { goto } from '$app/navigation';
import { api, ask, type Schemas } from '$lib/api';

type Found = { unit: Schemas['UnitSummary'] } | { refused: string };

async function read(code: string): Promise<{ found: Schemas['CodeOut'] } | { refused: string }> {
	const { data, problem } = await ask(api.GET('/api/codes', { params: { query: { code } } }));
	if (data) return { found: data };
	return { refused: problem?.errors[0]?.message ?? problem?.detail ?? '' };
}

/** Opens what a code names; gives why not, in the server's words. */
export async function openCode(code: string): Promise<string | null> {
	const answer = await read(code);
	if ('refused' in answer) return answer.refused;
	const { kind, key, record } = answer.found;
	await goto(kind === 'unit' ? `/units/${key}` : `/check?job=${key}&record=${record}`);
	return null;
}

/** The unit whose label a code is; a certificate is none. */
export async function unitOfCode(code: string): Promise<Found> {
	const answer = await read(code);
	if ('refused' in answer) return answer;
	const { unit } = answer.found;
	return unit ? { unit } : { refused: 'This is the code of a certificate. Scan the label of the unit.' };
}
