/** Units offered on a field, by what it measures. */
export const UNITS = {
	length: ['mm', 'in'],
	pressure: ['bar', 'psi', 'MPa'],
	torque: ['N·m', 'lbf·ft', 'lbf·in'],
	temperature: ['°C', '°F'],
	volume: ['ml', 'l'],
	time: ['s', 'min', 'h'],
	flow: ['ml/min', 'l/min']
} as const;

export type Dimension = keyof typeof UNITS;

const BARE = /^\s*[+-]?(\d+[ -]\d+\/\d+|\d+\/\d+|\d*[.,]?\d+|\d+[.,])\s*$/;

/** True for a number without a unit: digits, a decimal mark, or a fraction. */
export function isBare(text: string): boolean {
	return BARE.test(text);
}

const WITH_TOLERANCE = /^([+-]?(?:\d+[ -]\d+\/\d+|\d+\/\d+|\d*[.,]?\d+))(\s*(?:±|\+|\s-)\s*[\d.,/+-].*)$/;

/** The text with the field's unit behind its value when it came without one; never changes what was typed. */
export function withUnit(text: string, unit: string): string {
	const trimmed = text.trim();
	if (isBare(trimmed)) return `${trimmed} ${unit}`;
	const toleranced = WITH_TOLERANCE.exec(trimmed);
	if (!toleranced || /[a-z"″°]/i.test(trimmed)) return trimmed;
	return `${toleranced[1]} ${unit}${toleranced[2]}`;
}

/** The next unit in the row, for a key that steps through them. */
export function nextUnit(dimension: Dimension, unit: string): string {
	const row: readonly string[] = UNITS[dimension];
	return row[(row.indexOf(unit) + 1) % row.length] ?? unit;
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
	return shown(mm / 25.4, decimals);
}
