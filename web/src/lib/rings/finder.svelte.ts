import { api, ask, type Problem, type Schemas } from '$lib/api';
import { asTyped, keep, recall, withUnit } from '$lib/shared';
import { WAYS } from './readings';
import type { Across, FurtherRead, RingReading } from './types';

type Groove = Schemas['GrooveBody'] | null;
type Further = { what: FurtherRead; value: string };

const emptyReading = () => ({
	condition: 'used' as Schemas['Condition'],
	across: 'inside_diameter' as Across,
	diameter: '',
	section: '',
	crossed: '',
	uncertainty: '',
	unit: 'mm',
	further: [] as Further[]
});

/** What is being typed about a ring, and the latest answer to it; kept under a name on this device. */
export class RingFinder {
	#typed = $state(emptyReading());
	#keptAs: string;
	answer = $state.raw<Schemas['RingMatchOut'] | null>(null);
	problem = $state.raw<Problem | null>(null);

	constructor(keptAs: string) {
		this.#keptAs = `kettle-ring-${keptAs}`;
		this.#typed = recall(this.#keptAs, emptyReading());
	}

	/** The fields as typed, to bind to. */
	get typed() {
		return this.#typed;
	}

	save() {
		keep(this.#keptAs, this.#typed);
	}

	way = $derived(WAYS.find((way) => way.key === this.#typed.across) ?? WAYS[0]);
	complete = $derived(Boolean(this.#typed.diameter.trim() && this.#typed.section.trim()));
	usesCrossed = $derived(this.#typed.condition === 'flattened' && Boolean(this.#typed.crossed.trim()));

	reading = $derived<RingReading>({
		across: this.#typed.across,
		inside_diameter:
			this.#typed.across === 'inside_diameter' ? withUnit(this.#typed.diameter, this.#typed.unit) : null,
		section: withUnit(this.#typed.section, this.#typed.unit),
		condition: this.#typed.condition,
		words: [
			`${this.way?.name.toLowerCase()} ${withUnit(this.#typed.diameter, this.#typed.unit)}`,
			`section ${withUnit(this.#typed.section, this.#typed.unit)}`,
			...(this.usesCrossed ? [`crossed ${withUnit(this.#typed.crossed, this.#typed.unit)}`] : []),
			...this.#typed.further.map((one) => `${one.what.replaceAll('_', ' ')} ${one.value}`)
		].join(', ')
	});

	body(groove: Groove): Schemas['RingMatchBody'] {
		return {
			[this.#typed.across]: withUnit(this.#typed.diameter, this.#typed.unit),
			section: withUnit(this.#typed.section, this.#typed.unit),
			section_crossed: this.usesCrossed ? withUnit(this.#typed.crossed, this.#typed.unit) : null,
			condition: this.#typed.condition,
			uncertainty: this.#typed.uncertainty.trim()
				? withUnit(this.#typed.uncertainty, this.#typed.unit)
				: null,
			further: this.#typed.further,
			groove,
			limit: 8
		};
	}

	/** Asks for this body; an answer overtaken by later typing is dropped. Gives the clean-up. */
	ask(body: Schemas['RingMatchBody']): () => void {
		return asTyped(
			() => ask(api.POST('/api/rings/match', { body })),
			(result) => {
				this.answer = result.data;
				this.problem = result.problem;
			},
			60
		);
	}

	add(what: FurtherRead, value: string) {
		this.#typed.further = [...this.#typed.further.filter((one) => one.what !== what), { what, value }];
	}

	remove(what: FurtherRead) {
		this.#typed.further = this.#typed.further.filter((one) => one.what !== what);
	}

	/** Back to an empty bench for the next ring. */
	clear() {
		const { condition, across, unit } = this.#typed;
		this.#typed = { ...emptyReading(), condition, across, unit };
		this.answer = null;
		this.problem = null;
	}
}
