import type { Schemas } from '../api/client';
import { withUnit } from '../shared/quantity';
import { usualUnit } from '../shared/usual';
import { WAYS } from './readings';
import type { Across, FurtherRead, RingReading } from './types';

export type Further = { what: FurtherRead; value: string };

/** A ring as it is being typed; texts may be empty or lack their unit. */
export interface TypedRing {
	condition: Schemas['Condition'];
	/** What it is as well. */
	beside: Schemas['Condition'][];
	/** Shore A, where somebody knows it. */
	hardness: string;
	across: Across;
	diameter: string;
	section: string;
	crossed: string;
	uncertainty: string;
	unit: string;
	further: Further[];
}

export const emptyRing = (): TypedRing => ({
	condition: 'used',
	beside: [],
	hardness: '',
	across: 'inside_diameter',
	diameter: '',
	section: '',
	crossed: '',
	uncertainty: '',
	unit: usualUnit('length'),
	further: []
});

/** True when there is enough to look for. */
export const isTyped = (ring: TypedRing): boolean => Boolean(ring.diameter.trim() && ring.section.trim());

/** All that is true of it, the first one foremost; a new ring is nothing else. */
export const conditionsOf = (ring: TypedRing): Schemas['Condition'][] =>
	ring.condition === 'new'
		? ['new']
		: [ring.condition, ...ring.beside.filter((condition) => condition !== ring.condition)];

/** Whether its section is read twice, at right angles. */
export const isFlattened = (ring: TypedRing): boolean => conditionsOf(ring).includes('flattened');

/** The second section counts only for a flattened ring; typed for another it is kept, not sent. */
const crossedOf = (ring: TypedRing): string | null =>
	isFlattened(ring) && ring.crossed.trim() ? withUnit(ring.crossed, ring.unit) : null;

/** What is no number goes as it was typed: the server says what fits. */
function hardnessOf(typed: string): number | null {
	if (!typed) return null;
	const value = Number(typed.replace(',', '.'));
	return Number.isFinite(value) ? value : (typed as unknown as number);
}

/** The body of the match; bare numbers get the unit of their field. */
export function matchBody(ring: TypedRing, groove: Schemas['GrooveBody'] | null): Schemas['RingMatchBody'] {
	return {
		[ring.across]: withUnit(ring.diameter, ring.unit),
		section: withUnit(ring.section, ring.unit),
		section_crossed: crossedOf(ring),
		condition: ring.condition,
		conditions: conditionsOf(ring),
		hardness_shore_a: hardnessOf(ring.hardness.trim()),
		uncertainty: ring.uncertainty.trim() ? withUnit(ring.uncertainty, ring.unit) : null,
		further: ring.further,
		groove,
		limit: 8
	};
}

/** The reading for the record, with all of it in words. */
export function readingOf(ring: TypedRing): RingReading {
	const diameter = withUnit(ring.diameter, ring.unit);
	const section = withUnit(ring.section, ring.unit);
	const crossed = crossedOf(ring);
	const way = WAYS.find((way) => way.key === ring.across);
	return {
		inside_diameter: ring.across === 'inside_diameter' ? diameter : null,
		section,
		condition: ring.condition,
		words: [
			`${way?.name.toLowerCase() ?? ring.across} ${diameter}`,
			`section ${section}`,
			...(crossed ? [`crossed ${crossed}`] : []),
			...conditionsOf(ring)
				.slice(1)
				.map((condition) => `${condition} as well`),
			...(ring.hardness.trim() ? [`${ring.hardness.trim()} Shore A`] : []),
			...ring.further.map((reading) => `${reading.what.replaceAll('_', ' ')} ${reading.value}`)
		].join(', ')
	};
}

/** The ring with one reading more; a second reading of the same dimension takes the place of the first. */
export function withFurther(ring: TypedRing, what: FurtherRead, value: string): Further[] {
	return [...ring.further.filter((reading) => reading.what !== what), { what, value }];
}
