import { describe, expect, it } from 'vitest';
import { channelOf, numberedOf, numberedRow, rowOf } from './map';

describe('how readings are numbered', () => {
	const row = rowOf({ key: 'n', name: 'N', reads: 'reading', register_at: 22 });
	it('comes back as it was, and is sent only where a channel tells the number', () => {
		const numbered = { every_s: 0.02, rows: 500, first: 100 };
		expect(numberedOf(numberedRow(numbered), [row])).toEqual(numbered);
		expect(numberedOf(numberedRow(numbered), [{ ...row, reads: 'flow' }])).toBeNull();
	});
});

describe('a channel in the fields of the screen', () => {
	it('comes back as it was', () => {
		const channel = {
			key: 'p',
			name: 'Cap side',
			reads: 'pressure' as const,
			register_at: 4,
			format: 'int16' as const,
			swapped: true,
			scale: 0.1,
			offset: -1,
			unit: 'bar',
			low: null,
			high: 400
		};
		expect(channelOf(rowOf(channel))).toEqual(channel);
	});
	it('reads a decimal comma, and sends what is no number as it was typed', () => {
		const row = rowOf({ key: 'p', name: 'P', reads: 'pressure', register_at: 0, unit: 'bar' });
		expect(channelOf({ ...row, scale: '0,5', offset: 'one', low: ' ' })).toMatchObject({
			scale: 0.5,
			offset: 'one',
			low: null
		});
	});
});
