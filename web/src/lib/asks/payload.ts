import type { Schemas } from '$lib/api';
import type { EntryPayload } from '$lib/outbox';

export type Ask = Pick<Schemas['AskOut'], 'field' | 'read' | 'unit' | 'proposed'>;
export type Values = Record<string, unknown>;

/** The choices that are offered beside what stands in the other fields. */
export function offered<T extends { only: Record<string, string> | null }>(
	choices: T[],
	others: Values
): T[] {
	const said = (value: unknown) => (typeof value === 'boolean' ? (value ? 'yes' : 'no') : value);
	return choices.filter((choice) =>
		Object.entries(choice.only ?? {}).every(([field, key]) => said(others[field]) === key)
	);
}

/** A copy of a payload with a value at a dotted path; numbers index lists, which grow as far as needed. */
export function put(payload: EntryPayload, path: string, value: unknown): EntryPayload {
	const copy = structuredClone(payload);
	const way = path.split('.');
	let at: Record<string, unknown> = copy;
	way.forEach((name, place) => {
		if (place === way.length - 1) at[name] = value;
		else {
			const isList = /^\d+$/.test(way[place + 1] ?? '');
			at[name] ??= isList ? [] : {};
			at = at[name] as Record<string, unknown>;
		}
	});
	return copy;
}

/** What was typed or chosen for an ask as the entry takes it; undefined where nothing was. */
export function valueOf(ask: Ask, value: unknown): unknown {
	if (value === undefined || value === null) return undefined;
	if (typeof value !== 'string') return value;
	const text = value.trim();
	if (!text) return undefined;
	if (ask.read !== 'number') return text;
	// What is no number is sent as it was typed: the server names the field and says what fits.
	const number = Number(text.replace(',', '.'));
	return Number.isFinite(number) ? number : text;
}

/** The payload of a task with what was filled in; what stays empty is left out. */
export function filled(entry: Record<string, unknown>, asks: Ask[], values: Values): EntryPayload {
	return asks.reduce(
		(payload, ask) => {
			const value = valueOf(ask, values[ask.field]);
			return value === undefined ? payload : put(payload, ask.field, value);
		},
		structuredClone(entry) as EntryPayload
	);
}

/** What stands in the fields of a task before anything is typed. */
export function proposedValues(asks: Ask[]): Values {
	return Object.fromEntries(
		asks
			.filter((ask) => ask.proposed !== null && ask.proposed !== undefined)
			.map((ask) => [ask.field, ask.proposed])
	);
}
