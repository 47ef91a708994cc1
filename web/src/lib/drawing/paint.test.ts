import { describe, expect, it } from 'vitest';
import type { JobView } from '../api/client';
import { frameOf, outlineOf, polygon, spread, statusOf, type ElementShape, type Scene } from './paint';

const lip: ElementShape = {
	key: 'lip',
	name: 'lip seal',
	kind: 'lip_seal',
	faces: 'rod_side',
	instruction: '',
	box: [10, 14, 16, 19],
	outlines: { rod_side: [[10, 14]], outside: [[16, 19]] }
};
const scene: Scene = {
	extent: [0, 100, 30],
	zones: [],
	parts: [],
	stations: [{ key: 'gland', name: 'gland', box: [10, 14, 16, 19], elements: [lip] }]
};

function viewWith(found: object | null, fitted: object | null = null): JobView {
	return {
		found: found ? { lip: { value: found } } : {},
		fitted: fitted ? { lip: { value: fitted } } : {}
	} as unknown as JobView;
}

describe('status of an element', () => {
	it.each([
		[null, 'unknown'],
		[{ present: false, faced: null }, 'missing'],
		[{ present: true, faced: 'rod_side' }, 'there'],
		[{ present: true, faced: 'outside' }, 'reversed']
	])('found %j is %s', (found, status) => {
		expect(statusOf(lip, viewWith(found), 'found')).toBe(status);
	});

	it('is fitted once it went in', () => {
		expect(statusOf(lip, viewWith(null), 'built')).toBe('to-fit');
		expect(statusOf(lip, viewWith(null, { faces: 'rod_side' }), 'built')).toBe('fitted');
	});
});

it('draws a found element the way it lay, an unseen one the way it must', () => {
	expect(outlineOf(lip, viewWith({ present: true, faced: 'outside' }), 'found')).toEqual([[16, 19]]);
	expect(outlineOf(lip, viewWith({ present: true, faced: 'outside' }), 'built')).toEqual([[10, 14]]);
});

it('turns millimetres into points with r upwards', () => {
	expect(
		polygon([
			[1, 2],
			[3, 0]
		])
	).toBe('1,-2 3,0');
});

it('keeps the shape of the frame when it goes near', () => {
	const whole = frameOf(scene, 'gland', false);
	const near = frameOf(scene, 'gland', true);
	expect(near.width).toBeLessThan(whole.width);
	expect(near.width / near.height).toBeCloseTo(whole.width / whole.height, 6);
	expect(near.x + near.width / 2).toBeCloseTo(13, 6);
});

it('moves numbers apart that would overlap, and leaves the others', () => {
	expect(spread([10, 50], 8)).toEqual([10, 50]);
	const places = spread([20, 20, 21], 8);
	const sorted = [...places].sort((a, b) => a - b);
	expect((sorted[1] ?? 0) - (sorted[0] ?? 0)).toBeGreaterThan(7.9);
	expect((sorted[2] ?? 0) - (sorted[1] ?? 0)).toBeGreaterThan(7.9);
});
