import type { Schemas } from '$lib/api';

/** A ring as it was measured, ready for the API and for the record. */
export interface RingReading {
	/** The inside diameter where that was read, else null. */
	inside_diameter: string | null;
	section: string;
	condition: Schemas['Condition'];
	/** All readings in words, for the record. */
	words: string;
}

export type Across =
	'inside_diameter' | 'outside_diameter' | 'inside_circumference' | 'cut_length' | 'cone_diameter';
export type FurtherRead = Schemas['FurtherBody']['what'];
