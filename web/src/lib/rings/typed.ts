import type { Schemas } from '../api/client';
import { withUnit } from '../shared/quantity';
import { usualUnit } from '../shared/usual';
import { WAYS } from './readings';
import type { Across, FurtherRead, RingReading } from './types';

export type Further = { what: FurtherRead; value: string };

/** A ring as it is being typed; texts may be empty or lack their unit. */
export interface TypedRing {
	condition: Schemas['Condition'];
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

/** The second section counts only for a flattened ring; typed for another it is kept, not sent. */
const crossedOf = (ring: TypedRing): string | null =>
	ring.condition === 'flattened' && ring.crossed.trim() ? withUnit(ring.crossed, ring.unit) : null;

/** The body of the match; bare numbers get the unit of their field. */
export function matchBody(ring: TypedRing, groove: Schemas['GrooveBody'] | null): Schemas['RingMatchBody'] {
	return {
		[ring.across]: withUnit(ring.diameter, ring.unit),
		section: withUnit(ring.section, ring.unit),
		section_crossed: crossedOf(ring),
		condition: ring.condition,
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
	const way = WAYS.find((one) => one.key === ring.across);
	return {
		inside_diameter: ring.across === 'inside_diameter' ? diameter : null,
		section,
		condition: ring.condition,
		words: [
			`${way?.name.toLowerCase() ?? ring.across} ${diameter}`,
			`section ${section}`,
			...(crossed ? [`crossed ${crossed}`] : []),
			...ring.further.map((one) => `${one.what.replaceAll('_', ' ')} ${one.value}`)
		].join(', ')
	};
}

/** The ring with one reading more; a second reading of the same dimension takes the place of the first. */
export function withFurther(ring: TypedRing, what: FurtherRead, value: string): Further[] {
	return [...ring.further.filter((one) => one.what !== what), { what, value }];
}
