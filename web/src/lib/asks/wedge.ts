/** Keys that follow each other as fast as this come from an instrument or a scanner that types. [ms] */
export const BURST_MS = 50;
const LEAST = 2;
/** A reading as an instrument sends it: a number, perhaps with its unit. */
const READING = /^[+-]?\d+([.,]\d+)?\s*[a-z°%·*/"']*$/i;

/**
 * Gathers what an instrument types while no field has the cursor: a reading goes into a field all the same, and whatever it
 * was, the Enter behind it presses no button.
 */
export class Wedge {
	private text = '';
	private last = -Infinity;

	/** Whether the last keys came in a burst. */
	get bursting(): boolean {
		return this.text.length > 1;
	}

	/** A key and its time in ms. Gives what was typed in a burst when its Enter comes, else null. */
	key(key: string, at: number): string | null {
		const quick = at - this.last < BURST_MS;
		if (key.length === 1) {
			this.text = quick ? this.text + key : key;
			this.last = at;
			return null;
		}
		if (key !== 'Enter') return null;
		const typed = quick && this.text.length >= LEAST ? this.text : null;
		this.text = '';
		return typed;
	}
}

/** What of a burst is a reading; null for a code that was scanned. */
export const readingOf = (typed: string): string | null => (READING.test(typed.trim()) ? typed.trim() : null);

/** Puts a reading into the first empty field of a form, and the cursor behind it into the next; false where none is empty. */
export function land(reading: string, within: ParentNode): boolean {
	const fields = [...within.querySelectorAll<HTMLInputElement>('form input[data-entry]')];
	const empty = fields.filter((field) => field.checkVisibility() && field.value === '');
	const [field, next] = empty;
	if (!field) return false;
	field.value = reading;
	field.dispatchEvent(new Event('input', { bubbles: true }));
	(next ?? field).focus();
	return true;
}
