import { keep, recall } from '$lib/shared';
import { emptyGroove, grooveBody, isComplete } from './groove';

const KEY = 'kettle-groove';
const UNITS = 'kettle-groove-units';

/** The groove on the bench: typed once, there for the finder and the check alike, kept on this device. */
class GrooveDesk {
	draft = $state(recall(KEY, emptyGroove()));
	units = $state(recall(UNITS, { length: 'mm', pressure: 'bar' }));
	body = $derived(
		isComplete(this.draft) ? grooveBody(this.draft, this.units.length, this.units.pressure) : null
	);

	save() {
		keep(KEY, this.draft);
		keep(UNITS, this.units);
	}

	clear() {
		this.draft = emptyGroove();
	}
}

export const grooveDesk = new GrooveDesk();
