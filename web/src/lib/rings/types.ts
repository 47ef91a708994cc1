import type { Schemas } from '$lib/api';

/** A ring as it was measured, ready for the API and for the record. */
export interface RingReading {
	inside_diameter: string;
	section: string;
	section_crossed: string | null;
	condition: Schemas['Condition'];
}
