import { expect, it } from 'vitest';
import { faultAt, keyOf } from './forms';

const problem = {
	type: '',
	title: '',
	status: 422,
	detail: '',
	errors: [
		{ field: 'groove.bore', message: 'has no unit', accepts: ['mm', 'in'] },
		{ field: 'section', message: 'is absurd', accepts: [] }
	]
};

it('finds the fault of a field by its own name or the end of its path', () => {
	expect(faultAt(problem, 'bore')).toBe('has no unit (fits: mm, in)');
	expect(faultAt(problem, 'section')).toBe('is absurd');
	expect(faultAt(problem, 'ore')).toBeNull();
	expect(faultAt(null, 'section')).toBeNull();
	const units = [{ key: 'in', says: 'inch' }];
	expect(faultAt(problem, 'bore', units)).toBe('has no unit (fits: mm, inch)');
});

it('makes a key of a name', () => {
	expect(keyOf('Rod lip seal 28 × 38, drawer 12')).toBe('rod-lip-seal-28-38-drawer-12');
	expect(keyOf('Ünal')).toBe('u-nal');
});
