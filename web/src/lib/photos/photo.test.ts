import { expect, it } from 'vitest';
import { shareOf, sourceOf } from './photo';

it('tells where a tap lies as shares, and never beside the photo', () => {
	const box = { left: 100, top: 50, width: 400, height: 200 } as DOMRect;
	expect(shareOf({ x: 300, y: 100 }, box)).toEqual([0.5, 0.25]);
	expect(shareOf({ x: 20, y: 900 }, box)).toEqual([0, 1]);
});

it('fetches small photos for lists', () => {
	expect(sourceOf('j', 'p', true)).toBe('/api/jobs/j/photos/p.jpg?small=true');
	expect(sourceOf('j', 'p')).toBe('/api/jobs/j/photos/p.jpg');
});
