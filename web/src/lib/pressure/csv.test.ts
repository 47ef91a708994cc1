import { describe, expect, it } from 'vitest';
import { MOST_READINGS, partsOf, together, wholeLines } from './csv';

describe('a long file in parts', () => {
	it('is cut behind whole lines, and what is left comes with the part that follows', async () => {
		const text = 't_s,pressure_bar\n' + Array.from({ length: 50 }, (_, n) => `${n},180,0`).join('\n');
		const parts: string[] = [];
		for await (const [part, done] of partsOf(new Blob([text]), 64)) {
			parts.push(part);
			expect(done).toBeLessThanOrEqual(text.length);
		}
		expect(parts.length).toBeGreaterThan(5);
		expect(parts.join('')).toBe(text);
		expect(parts.slice(0, -1).every((part) => part.endsWith('\n'))).toBe(true);
	});
	it('keeps a letter that lies across a cut', async () => {
		const text = 'zeit,druck\nä,ö\nü,ß\n';
		const parts: string[] = [];
		for await (const [part] of partsOf(new Blob([text]), 3)) parts.push(part);
		expect(parts.join('')).toBe(text);
	});
	it('takes as many rows together as keep a run within what it can hold', () => {
		expect(together(1000, 1000, 100)).toBe(1);
		expect(together(300_000_000, 2_000_000, 66_667)).toBe(Math.ceil(10_000_050 / MOST_READINGS));
		expect(together(0, 0, 0)).toBe(1);
	});
	it('leaves a part without a line end for later', () => {
		expect(wholeLines('180')).toEqual(['', '180']);
	});
});
