import type { Problem } from '$lib/api';

/** The message for a field: all faults whose path ends with its name; what fits by the words of its choices. */
export function faultAt(
	problem: Problem | null,
	field: string,
	choices: { key: string; says: string }[] = []
): string | null {
	const worded = (fits: string) => choices.find((choice) => choice.key === fits)?.says ?? fits;
	const faults = problem?.errors.filter(
		(error) => error.field === field || error.field.endsWith(`.${field}`)
	);
	const sentences = faults?.map(({ message, accepts }) =>
		accepts.length ? `${message} (fits: ${accepts.slice(0, 6).map(worded).join(', ')})` : message
	);
	return sentences?.length ? sentences.join('. ') : null;
}

/** Fields in a folded section are left out. Without a layout, as in a unit test, every field counts. */
const inView = (node: HTMLElement) => node.checkVisibility?.() ?? true;

/** Moves to the next entry field of the form that is in view, as a caliper that sends Enter expects; false at the end. */
export function focusNext(from: HTMLElement): boolean {
	const form = from.closest('form, [data-form]');
	const fields = [...(form?.querySelectorAll<HTMLElement>('[data-entry]') ?? [])].filter(inView);
	const next = fields[fields.indexOf(from) + 1];
	next?.focus();
	if (next instanceof HTMLInputElement) next.select();
	return next !== undefined;
}

/** After a choice: on to what is asked next in the form, else to its main button. */
export function focusAfter(group: HTMLElement) {
	const form = group.closest('form');
	const asked = [...(form?.querySelectorAll<HTMLElement>('[data-asked], [data-entry]') ?? [])].filter(inView);
	const next = asked[asked.indexOf(group) + 1];
	(next ?? form?.querySelector<HTMLElement>('button:not([type=button])'))?.focus();
}

/** A key for a name: small letters, digits and dashes. */
export function keyOf(name: string): string {
	return name
		.toLowerCase()
		.normalize('NFKD')
		.replace(/[^a-z0-9]+/g, '-')
		.replace(/^-+|-+$/g, '')
		.slice(0, 60);
}
