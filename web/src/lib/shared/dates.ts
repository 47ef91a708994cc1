const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec'];

/** A day or moment of the server as the day it is here: 29 Nov 2026. */
export function day(text: string): string {
	// A day without a time is that day everywhere.
	const moment = new Date(text.length === 10 ? `${text}T00:00` : text);
	return `${moment.getDate()} ${MONTHS[moment.getMonth()]} ${moment.getFullYear()}`;
}

/** A day in a narrow column: 29 Nov; with its year where it is not this one. */
export function shortDay(text: string): string {
	const whole = day(text);
	const year = ` ${new Date().getFullYear()}`;
	return whole.endsWith(year) ? whole.slice(0, -year.length) : whole;
}

/** A moment of the server by the clock here: 29 Nov 2026, 14:55. */
export function moment(text: string): string {
	return `${day(text)}, ${time(text)}`;
}

/** The time of a moment of the server by the clock here: 14:55. */
export function time(text: string): string {
	const at = new Date(text);
	return `${String(at.getHours()).padStart(2, '0')}:${String(at.getMinutes()).padStart(2, '0')}`;
}
