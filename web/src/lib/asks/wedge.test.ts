import { expect, test } from 'vitest';
import { readingOf, Wedge } from './wedge';

const typed = (text: string, apart: number, wedge = new Wedge()) => {
	const keys = [...text].map((key, place) => wedge.key(key, 1000 + place * apart));
	expect(keys.every((gathered) => gathered === null)).toBe(true);
	return wedge.key('Enter', 1000 + text.length * apart);
};

test('what comes as fast as an instrument types is a burst, what a hand types is not', () => {
	expect(typed('27.95', 8)).toBe('27.95');
	expect(typed('27.95', 120)).toBeNull();
	expect(typed('3', 8)).toBeNull();
	const wedge = new Wedge();
	wedge.key('4', 0);
	expect(typed('27.95', 8, wedge)).toBe('27.95');
	expect(wedge.key('Enter', 1050)).toBeNull();
});

test('a key that types nothing breaks no burst', () => {
	const wedge = new Wedge();
	wedge.key('1', 0);
	wedge.key('Shift', 5);
	wedge.key('2', 10);
	expect(wedge.key('Enter', 20)).toBe('12');
});

test('a reading is told from a code', () => {
	expect(['27.95', '27,95 mm', '-0.03', '10.2N·m', '1/2'].map(readingOf)).toEqual([
		'27.95',
		'27,95 mm',
		'-0.03',
		'10.2N·m',
		null
	]);
	expect(readingOf('https://kettle.example/u/K7QF-3ZTM24')).toBeNull();
	expect(readingOf('FN-0417')).toBeNull();
	expect(readingOf('1E9H-1111FN')).toBeNull();
});
