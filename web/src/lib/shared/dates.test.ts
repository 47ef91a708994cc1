import { expect, test } from 'vitest';
import { day, moment, time } from './dates';

test('a day is that day in every time zone', () => {
	expect(day('2026-11-09')).toBe('9 Nov 2026');
	expect(day('2026-09-30')).toBe('30 Sep 2026');
});

test('a moment is shown by the clock of the device', () => {
	const at = new Date(2026, 10, 29, 4, 5);
	expect(moment(at.toISOString())).toBe('29 Nov 2026, 04:05');
	expect(time(at.toISOString())).toBe('04:05');
});
