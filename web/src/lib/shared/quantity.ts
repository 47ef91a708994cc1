import table from './units.json';

/** Units offered on a field, by what it measures; their sizes come from the same table as the server's. */
export type Dimension = keyof typeof table.offered;
export type Symbol = keyof typeof table.sizes;

// A value with a unit or a fit behind it has a letter, a quote or a degree sign somewhere.
const UNIT_MARK = /[\p{L}"″”'′’°µ]/u;

/** True for figures alone, with or without a tolerance: the unit of the field counts. */
export function isBare(text: string): boolean {
	return !UNIT_MARK.test(text);
}

/** The text with the field's unit behind it when it came without one; never changes what was typed. */
export function withUnit(text: string, unit: string): string {
	const trimmed = text.trim();
	return trimmed && isBare(trimmed) ? `${trimmed} ${unit}` : trimmed;
}

/** What stands behind the figures of a text, from its first letter on. */
export function unitPart(text: string): string {
	const at = text.search(UNIT_MARK);
	return at < 0 ? '' : text.slice(at).trimEnd();
}

/** Whether an edit left half a unit behind: it must not be taken for another until the field is left. */
export function isHalfUnit(before: string, after: string): boolean {
	const [old, now] = [unitPart(before), unitPart(after)];
	return now !== '' && now.length < old.length;
}

/** The next unit in the row, for a key that steps through them. */
export function nextUnit(dimension: Dimension, unit: string): string {
	const row: readonly string[] = table.offered[dimension];
	return row[(row.indexOf(unit) + 1) % row.length] ?? unit;
}

/** A value in the base unit, in another unit of its dimension. */
export function inUnit(value: number, symbol: Symbol): number {
	const { scale, offset } = table.sizes[symbol];
	return (value - offset) / scale;
}

/** A number for the eye: fixed decimals, a true minus sign. */
export function shown(value: number, decimals = 2): string {
	return value.toFixed(decimals).replace(/^-/, '−');
}

/** A number as it is, with a true minus sign. */
export function plain(value: number): string {
	return String(value).replace('-', '−');
}

/** Seconds as minutes and seconds. */
export function duration(seconds: number): string {
	const whole = Math.round(seconds);
	return whole < 120
		? `${whole} s`
		: `${Math.floor(whole / 60)} min ${String(whole % 60).padStart(2, '0')} s`;
}

/** A length in millimetres as inches for the eye. */
export function inches(mm: number, decimals = 3): string {
	return shown(inUnit(mm, 'in'), decimals);
}
