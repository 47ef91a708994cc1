import { api, ask, type Problem, type Schemas } from '$lib/api';
import { asTyped, withUnit } from '$lib/shared';
import { WAYS } from './readings';
import type { Across, FurtherRead, RingReading } from './types';

type Groove = Schemas['GrooveBody'] | null;
type Further = { what: FurtherRead; value: string };

/** What is being typed about a ring, and the latest answer to it. */
export class RingFinder {
	condition = $state<Schemas['Condition']>('used');
	across = $state<Across>('inside_diameter');
	diameter = $state('');
	section = $state('');
	crossed = $state('');
	uncertainty = $state('');
	unit = $state('mm');
	further = $state<Further[]>([]);
	answer = $state.raw<Schemas['RingMatchOut'] | null>(null);
	problem = $state.raw<Problem | null>(null);

	way = $derived(WAYS.find((way) => way.key === this.across) ?? WAYS[0]);
	complete = $derived(Boolean(this.diameter.trim() && this.section.trim()));
	usesCrossed = $derived(this.condition === 'flattened' && Boolean(this.crossed.trim()));

	reading = $derived<RingReading>({
		across: this.across,
		inside_diameter: this.across === 'inside_diameter' ? withUnit(this.diameter, this.unit) : null,
		section: withUnit(this.section, this.unit),
		condition: this.condition,
		words: [
			`${this.way?.name.toLowerCase()} ${withUnit(this.diameter, this.unit)}`,
			`section ${withUnit(this.section, this.unit)}`,
			...(this.usesCrossed ? [`crossed ${withUnit(this.crossed, this.unit)}`] : []),
			...this.further.map((one) => `${one.what.replaceAll('_', ' ')} ${one.value}`)
		].join(', ')
	});

	body(groove: Groove): Schemas['RingMatchBody'] {
		return {
			[this.across]: withUnit(this.diameter, this.unit),
			section: withUnit(this.section, this.unit),
			section_crossed: this.usesCrossed ? withUnit(this.crossed, this.unit) : null,
			condition: this.condition,
			uncertainty: this.uncertainty.trim() ? withUnit(this.uncertainty, this.unit) : null,
			further: this.further,
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
		this.further = [...this.further.filter((one) => one.what !== what), { what, value }];
	}

	remove(what: FurtherRead) {
		this.further = this.further.filter((one) => one.what !== what);
	}

	/** Back to an empty bench for the next ring. */
	clear() {
		this.diameter = this.section = this.crossed = this.uncertainty = '';
		this.further = [];
		this.answer = null;
		this.problem = null;
	}
}
