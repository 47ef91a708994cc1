import { keep, recall, usualUnit } from '$lib/shared';
import { emptyGroove, grooveBody, isComplete } from './groove';

const KEY = 'kettle-groove';
const UNITS = 'kettle-groove-units';

/** The groove on the bench: typed once, there for the finder and the check alike, kept on this device. */
class GrooveDesk {
	draft = $state(recall(KEY, emptyGroove()));
	units = $state(recall(UNITS, { length: usualUnit('length'), pressure: usualUnit('pressure') }));

	/** A getter: a derived would go stale with the screen on which the desk was first asked for. */
	get body() {
		return isComplete(this.draft) ? grooveBody(this.draft, this.units.length, this.units.pressure) : null;
	}

	save() {
		keep(KEY, this.draft);
		keep(UNITS, this.units);
	}

	clear() {
		this.draft = emptyGroove();
	}
}

let desk: GrooveDesk | null = null;

/** The groove on the bench; made when a screen first asks for it, when the shop's units are known. */
export function theGroove(): GrooveDesk {
	return (desk ??= new GrooveDesk());
}
