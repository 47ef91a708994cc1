import { describe, expect, it } from 'vitest';
import { PAGES, pagesFor } from './pages';

describe('pages by their words', () => {
	it('finds a page by part of its name and by what it is for', () => {
		expect(pagesFor('pock').map((page) => page.href)).toEqual(['/rings/chart']);
		expect(pagesFor('squeeze').map((page) => page.href)).toEqual(['/grooves']);
	});
	it('wants every word, and finds nothing without one', () => {
		expect(pagesFor('torque stock')).toEqual([]);
		expect(pagesFor('  ')).toEqual([]);
	});
	it('names each page once', () => {
		expect(new Set(PAGES.map((page) => page.href)).size).toBe(PAGES.length);
	});
});
