import { describe, expect, it } from 'vitest';
import { CaliperWatch } from './caliper';

function typed(watch: CaliperWatch, text: string, from: string, start: number, gap: number): string {
	let value = from;
	[...text].forEach((char, index) => {
		watch.key(char, value, start + index * gap);
		value = watch.settle(value + char);
	});
	return value;
}

describe('a caliper that types', () => {
	it('replaces the reading that stands there', () => {
		const watch = new CaliperWatch();
		const first = typed(watch, '3.53', '', 0, 5);
		expect(first).toBe('3.53');
		expect(typed(watch, '44.08', first, 2000, 5)).toBe('44.08');
	});

	it('leaves a hand alone that types on behind what stands there', () => {
		const watch = new CaliperWatch();
		const first = typed(watch, '3.5', '', 0, 120);
		expect(typed(watch, '300', first, 2000, 120)).toBe('3.5300');
	});

	it('leaves a quick pair of keys alone', () => {
		const watch = new CaliperWatch();
		expect(typed(watch, 'mm', '25', 0, 20)).toBe('25mm');
	});
});
