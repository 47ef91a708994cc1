import { describe, expect, it } from 'vitest';
import { duration, inches, inUnit, isBare, isHalfUnit, nextUnit, plain, shown, withUnit } from './quantity';

describe('a number without a unit', () => {
	it.each(['3.5', '24,9', '.984', '1-5/16', '1 5/16', '1½', ' 44 ', '50 +0.039/-0', '44,4 ±0,05'])(
		'%s takes the unit of the field',
		(text) => {
			expect(isBare(text)).toBe(true);
			expect(withUnit(text, 'in')).toBe(`${text.trim()} in`);
		}
	);

	it.each(['3.5 mm', '1-5/16"', 'abc', '', '50 H8', '25°', '50 mm +0.039/-0', '12 µm'])(
		'%s stays as it was typed',
		(text) => {
			expect(withUnit(text, 'mm')).toBe(text.trim());
		}
	);
});

describe('a unit that is being edited', () => {
	it.each([
		['44120 um', '44120 m', true],
		['44120 um', '44120 u', true],
		['44120 um', '44120 ', false],
		['44120', '44120 u', false],
		['44120 u', '44120 um', false],
		['44120 um', '4412 um', false],
		['3 in', '3 mm', false],
		['3 mm', '3 m', true]
	])('%s to %s: half %s', (before, after, half) => {
		expect(isHalfUnit(before, after)).toBe(half);
	});
});

describe('units and figures', () => {
	it('steps through the units and comes round', () => {
		expect(nextUnit('length', 'mm')).toBe('in');
		expect(nextUnit('length', 'in')).toBe('mm');
		expect(nextUnit('pressure', 'MPa')).toBe('bar');
	});

	it('has the sizes of the units by definition', () => {
		expect(inUnit(25.4, 'in')).toBeCloseTo(1, 9);
		expect(inUnit(21, 'bar')).toBeCloseTo(210, 9);
		expect(inUnit(80, '°F')).toBeCloseTo(176, 9);
	});

	it('writes a true minus sign and fixed decimals', () => {
		expect(shown(-0.5, 1)).toBe('−0.5');
		expect(shown(44.0452)).toBe('44.05');
		expect(inches(24.9936)).toBe('0.984');
		expect(plain(-5)).toBe('−5');
	});

	it('tells short times in seconds and long ones in minutes', () => {
		expect(duration(59.6)).toBe('60 s');
		expect(duration(125)).toBe('2 min 05 s');
	});
});
