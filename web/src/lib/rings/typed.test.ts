import { describe, expect, it } from 'vitest';
import { emptyRing, isTyped, matchBody, readingOf, withFurther, type TypedRing } from './typed';

const ring: TypedRing = { ...emptyRing(), diameter: '44.1', section: '3,5' };

describe('a ring as it is typed', () => {
	it('is looked for once a diameter and a section stand there', () => {
		expect(isTyped(emptyRing())).toBe(false);
		expect(isTyped({ ...emptyRing(), diameter: '44' })).toBe(false);
		expect(isTyped({ ...emptyRing(), diameter: ' ', section: '3.5' })).toBe(false);
		expect(isTyped(ring)).toBe(true);
	});

	it('sends bare numbers with the unit of the field and written units as they are', () => {
		const body = matchBody({ ...ring, section: '0.139 in', uncertainty: '0.1' }, null);
		expect(body.inside_diameter).toBe('44.1 mm');
		expect(body.section).toBe('0.139 in');
		expect(body.uncertainty).toBe('0.1 mm');
		expect(matchBody(ring, null).uncertainty).toBeNull();
	});

	it('sends the reading across the ring under its own name only', () => {
		const body = matchBody({ ...ring, across: 'cut_length', diameter: '134.5' }, null);
		expect(body.cut_length).toBe('134.5 mm');
		expect(body.inside_diameter).toBeUndefined();
	});

	it('keeps a crossed reading typed for another condition, but does not send it', () => {
		const typed = { ...ring, crossed: '4.1' };
		expect(matchBody(typed, null).section_crossed).toBeNull();
		expect(matchBody({ ...typed, condition: 'flattened' }, null).section_crossed).toBe('4.1 mm');
	});
});

it('a ring may be in two states; a new one is in no other', () => {
	const both: TypedRing = {
		...ring,
		condition: 'swollen',
		beside: ['flattened'],
		crossed: '4.1',
		hardness: '70'
	};
	expect(matchBody(both, null)).toMatchObject({
		conditions: ['swollen', 'flattened'],
		section_crossed: '4.1 mm',
		hardness_shore_a: 70
	});
	expect(matchBody({ ...both, hardness: 'soft' }, null).hardness_shore_a).toBe('soft');
	expect(readingOf(both).words).toContain('flattened as well, 70 Shore A');
	expect(matchBody({ ...both, condition: 'new' }, null).conditions).toEqual(['new']);
});

describe('the reading for the record', () => {
	it('tells all that was read in words', () => {
		const further = withFurther(ring, 'outside_diameter', '51.1 mm');
		expect(readingOf({ ...ring, further }).words).toBe(
			'inside diameter 44.1 mm, section 3,5 mm, outside diameter 51.1 mm'
		);
		const flat = readingOf({ ...ring, condition: 'flattened', crossed: '4.1' });
		expect(flat.words).toBe('inside diameter 44.1 mm, section 3,5 mm, crossed 4.1 mm');
	});

	it('claims no inside diameter where another reading was taken', () => {
		const reading = readingOf({ ...ring, across: 'outside_diameter', diameter: '51.1' });
		expect(reading.inside_diameter).toBeNull();
		expect(reading.words).toContain('outside diameter 51.1 mm');
		expect(readingOf(ring).inside_diameter).toBe('44.1 mm');
	});
});

it('a second reading of the same dimension takes the place of the first', () => {
	const once = { ...ring, further: withFurther(ring, 'section', '3.48 mm') };
	const twice = withFurther(once, 'section', '3.51 mm');
	expect(twice).toEqual([{ what: 'section', value: '3.51 mm' }]);
	expect(withFurther(once, 'groove_width', '4.8 mm')).toHaveLength(2);
});
