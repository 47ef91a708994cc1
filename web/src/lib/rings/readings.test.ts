import { expect, it } from 'vitest';
import { furtherName, sizeName, WAYS } from './readings';

it('names a size with all its names', () => {
	const also = [{ series: 'ISO 3601', designation: '25x3.55' }];
	expect(sizeName({ series: 'AS568', designation: '214', also })).toBe('AS568 214 = ISO 3601 25x3.55');
	expect(sizeName({ series: 'metric', designation: '30x4' })).toBe('metric stock 30x4');
});

it('has a name for every way across the ring', () => {
	for (const way of WAYS) expect(furtherName(way.key)).toBe(way.name);
});
