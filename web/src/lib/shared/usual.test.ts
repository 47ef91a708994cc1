import { describe, expect, it } from 'vitest';
import { setUsualUnits, usualUnit } from './usual';

describe('what a bare number means', () => {
	it('is the shipped unit until the shop has chosen', () => {
		expect(usualUnit('length')).toBe('mm');
		setUsualUnits({ length: 'in' });
		expect(usualUnit('length')).toBe('in');
		expect(usualUnit('pressure')).toBe('bar');
	});
});
