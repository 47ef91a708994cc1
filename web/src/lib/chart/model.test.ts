import { describe, expect, it } from 'vitest';
import { columns, reach, tick, type Series } from './model';

const series = (points: Series['points']): Series => ({
	points,
	line: true,
	mark: 'dot',
	colour: '--pressed'
});

describe('what a chart is drawn from', () => {
	it('has every place along once, and nothing where a series was not read', () => {
		expect(
			columns([
				series([
					[2, 5],
					[1, 4]
				]),
				series([[2, 7]])
			])
		).toEqual([
			[1, 2],
			[4, 5],
			[null, 7]
		]);
	});
	it('leaves room around the points, even around one alone', () => {
		expect(reach([0, 100])).toEqual([-12, 112]);
		expect(reach([50])).toEqual([44, 56]);
		expect(reach([])).toEqual([0, 1]);
	});
	it('writes a value with its unit', () => {
		expect(tick({ unit: 'bar', digits: 1 }, 283)).toBe('283.0 bar');
		expect(tick({ unit: '', digits: 0 }, 3)).toBe('3');
		expect([-0.5, 0, -0.001].map((value) => tick({ unit: 's', digits: 0 }, value, 0.5))).toEqual([
			'-0.5 s',
			'0.0 s',
			'0.0 s'
		]);
	});
});
