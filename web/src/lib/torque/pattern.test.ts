import { expect, it } from 'vitest';
import { places } from './pattern';

it('numbers a rectangle round its corners', () => {
	const corners = places('rectangle', 4).map(({ x, y }) => [Math.sign(x - 100), Math.sign(y - 60)]);
	expect(corners).toEqual([
		[-1, -1],
		[1, -1],
		[1, 1],
		[-1, 1]
	]);
});

it('spreads a circle evenly from the top', () => {
	const circle = places('circle', 6);
	expect(circle[0]?.y).toBeLessThan(circle[3]?.y ?? 0);
	expect(circle[0]?.x).toBeCloseTo(circle[3]?.x ?? 0, 6);
});

it('lays a flange out in columns of two', () => {
	const flange = places('flange', 6);
	expect(flange[0]?.x).toBe(flange[1]?.x);
	expect(flange[0]?.y).not.toBe(flange[1]?.y);
	expect(flange[2]?.x).toBeGreaterThan(flange[0]?.x ?? 0);
});
