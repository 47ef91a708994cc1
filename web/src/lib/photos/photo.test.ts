import { expect, it } from 'vitest';
import { comparable, radiusOf, type Shown, shareOf, sourceOf } from './photo';

it('tells where a tap lies as shares, and never beside the photo', () => {
	const box = { left: 100, top: 50, width: 400, height: 200 } as DOMRect;
	expect(shareOf({ x: 300, y: 100 }, box)).toEqual([0.5, 0.25]);
	expect(shareOf({ x: 20, y: 900 }, box)).toEqual([0, 1]);
});

it('fetches small photos for lists', () => {
	expect(sourceOf('j', 'p', true)).toBe('/api/jobs/j/photos/p.jpg?small=true');
	expect(sourceOf('j', 'p')).toBe('/api/jobs/j/photos/p.jpg');
});

it('measures a circle in widths, whatever the shape of the photo', () => {
	const box = { width: 400, height: 200 };
	expect(radiusOf([0.5, 0.5], [0.6, 0.5], box)).toBeCloseTo(0.1);
	// 40 px down are a fifth of the height and a tenth of the width.
	expect(radiusOf([0.5, 0.5], [0.5, 0.7], box)).toBeCloseTo(0.1);
});

it('compares a photo with the other side of the work first, then with the last repairs of the same place', () => {
	const photo = (id: string, about: string, time: 'before' | 'after' | null, number?: number) =>
		({ id, about, time, number }) as Shown;
	const found = photo('1', 'rod', 'before');
	const own = [found, photo('2', 'rod', null), photo('3', 'rod', 'after'), photo('4', 'gland', 'after')];
	const earlier = [photo('5', 'gland', 'after', 12), photo('6', 'rod', 'after', 12)];
	expect(comparable(found, own, earlier).map(({ id }) => id)).toEqual(['3', '2', '6']);
});
