import { describe, expect, it } from 'vitest';
import { spread, textMiddle } from './paint';
import { ofPosition, pathOf, pictureFrame, type Picture } from './picture';

const picture = {
	view: 'main',
	extent: [0, 0, 60, 20],
	zones: [],
	parts: [],
	elements: [],
	stations: []
} as unknown as Picture;

describe('the picture of a sheet', () => {
	it('turns a shape with a hole into one path, r upwards', () => {
		const path = pathOf({
			outer: [
				[0, 0],
				[4, 0],
				[4, 3]
			],
			holes: [
				[
					[1, 1],
					[2, 1],
					[2, 2]
				]
			]
		});
		expect(path).toBe('M 0,0 L 4,0 L 4,-3 Z M 1,-1 L 2,-1 L 2,-2 Z');
	});

	it('shows one of several alike that are drawn in one place, the first where none is in hand', () => {
		const alike = {
			...picture,
			parts: [{ key: 'crank' }, { key: 'nut@1', position: '1' }, { key: 'nut@2', position: '2' }],
			stations: [
				{ key: 'box@1', position: '1' },
				{ key: 'box@2', position: '2' }
			],
			elements: [
				{ key: 'ring@1', station: 'box@1' },
				{ key: 'ring@2', station: 'box@2' }
			]
		} as unknown as Picture;
		const keys = (shown: Picture) =>
			[...shown.parts, ...shown.stations, ...shown.elements].map((row) => row.key);
		expect(keys(ofPosition(alike, '2'))).toEqual(['crank', 'nut@2', 'box@2', 'ring@2']);
		expect(keys(ofPosition(alike, null))).toEqual(['crank', 'nut@1', 'box@1', 'ring@1']);
		expect(ofPosition(picture, '2')).toBe(picture);
	});

	it('shows the unit on both sides of its axis, with room for the numbers', () => {
		const frame = pictureFrame(picture, null);
		expect(frame.x).toBeLessThan(0);
		expect(frame.x + frame.width).toBeGreaterThan(60);
		expect(frame.y).toBeLessThan(-20);
		expect(frame.y + frame.height).toBeGreaterThan(20);
	});

	it('goes near enough to a station to tell a lip from its back, and holds all of it', () => {
		const station = { key: 's', name: 'S', box: [25, 8, 28.4, 10], dimensions: [] } as never;
		const frame = pictureFrame(picture, station);
		expect(frame.width).toBeLessThan(15);
		expect(frame.x).toBeLessThan(25);
		expect(frame.x + frame.width).toBeGreaterThan(28.4);
		expect(frame.y).toBeLessThan(-10);
		expect(frame.y + frame.height).toBeGreaterThan(-8);
	});

	it('shows a part among its neighbours', () => {
		const part = { box: [25, 8, 28.4, 10] } as never;
		expect(pictureFrame(picture, part, 0.6).width).toBeCloseTo(0.6 * 72);
	});

	it('leaves room for the figures to the left of a station that fills the picture', () => {
		const station = { key: 's', name: 'S', box: [10, 8, 30, 10], dimensions: [] } as never;
		const frame = pictureFrame(picture, station);
		expect(10 - frame.x).toBeGreaterThan(frame.width * 0.3);
		expect(frame.x + frame.width).toBeGreaterThan(31);
	});
});

describe('the numbers above a drawing', () => {
	it('keep apart and within the edges', () => {
		const places = spread([0, 1, 2, 99, 100], 10, 5, 95);
		expect(Math.min(...places)).toBeGreaterThanOrEqual(5);
		expect(Math.max(...places)).toBeLessThanOrEqual(95);
		const sorted = [...places].sort((a, b) => a - b);
		expect(sorted).toEqual(places);
		sorted
			.slice(1)
			.forEach((angle, index) => expect(angle - (sorted[index] ?? 0)).toBeGreaterThanOrEqual(9.99));
	});
	it('stay over their stations where there is room', () => {
		expect(spread([10, 50, 90], 10, 0, 100)).toEqual([10, 50, 90]);
	});
});

describe('a text at the edge', () => {
	const frame = { x: 10, y: 0, width: 100, height: 50 };
	it('is moved inwards until all of it is in the picture, and no further', () => {
		// Twelve letters of 2 mm are about 13.2 mm wide.
		expect(textMiddle(11, 'hole blocked', 2, frame)).toBeCloseTo(16.6);
		expect(textMiddle(109, 'hole blocked', 2, frame)).toBeCloseTo(103.4);
		expect(textMiddle(60, 'hole blocked', 2, frame)).toBe(60);
	});
	it('stands in the middle where it is wider than the picture', () => {
		expect(textMiddle(11, 'x'.repeat(500), 2, frame)).toBe(60);
	});
});
