/** Keys that come faster than a hand: a caliper that types. [ms] */
const FASTEST_HAND_MS = 35;
const PAUSE_MS = 250;
const LEAST_BURST = 3;

/**
 * Watches the keys of one field for readings sent by an instrument. A second reading sent into a field
 * that holds one takes its place, it never grows onto it.
 */
export class CaliperWatch {
	private before = '';
	private burst = '';
	private quick = 0;
	private last = -Infinity;

	/** A printable key, the text before it, and its time in ms. */
	key(char: string, text: string, at: number) {
		const gap = at - this.last;
		this.last = at;
		if (gap > PAUSE_MS) {
			this.before = text;
			this.burst = '';
			this.quick = 0;
		}
		if (this.burst && gap <= FASTEST_HAND_MS) this.quick += 1;
		this.burst += char;
	}

	/** The text the field shall hold after an input: what the instrument sent when it was sent behind an older reading. */
	settle(text: string): string {
		const sent = this.quick >= LEAST_BURST - 1 && this.quick === this.burst.length - 1;
		return sent && this.before.trim() && text === this.before + this.burst ? this.burst : text;
	}
}
