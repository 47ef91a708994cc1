import { describe, expect, it } from 'vitest';
import { duration, inches, isBare, nextUnit, plain, shown, withUnit } from './quantity';

describe('a number without a unit', () => {
	it.each(['3.5', '24,9', '.984', '1-5/16', '1 5/16', '5/16', ' 44 '])(
		'%s takes the unit of the field',
		(text) => {
			expect(isBare(text)).toBe(true);
			expect(withUnit(text, 'in')).toBe(`${text.trim()} in`);
		}
	);

	it.each(['3.5 mm', '1-5/16"', 'abc', '', '3 000'])('%s stays as it was typed', (text) => {
		expect(withUnit(text, 'mm')).toBe(text.trim());
	});
});

describe('a value with its tolerance', () => {
	it.each([
		['50 +0.039/-0', '50 mm +0.039/-0'],
		['44,4 ±0,05', '44,4 mm ±0,05'],
		['1-5/16 +0.002/-0', '1-5/16 mm +0.002/-0'],
		['50 mm +0.039/-0', '50 mm +0.039/-0']
	])('%s takes the unit behind the value', (text, wanted) => {
		expect(withUnit(text, 'mm')).toBe(wanted);
	});
});

describe('units and figures', () => {
	it('steps through the units and comes round', () => {
		expect(nextUnit('length', 'mm')).toBe('in');
		expect(nextUnit('length', 'in')).toBe('mm');
		expect(nextUnit('pressure', 'MPa')).toBe('bar');
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
