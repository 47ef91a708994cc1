import { expect, test } from 'vitest';
import { holds } from './words';

test('a line holds words whatever their case, with or without spaces around them', () => {
	expect(holds('Rod lip seal 28 × 38, drawer 12', ' LIP seal ')).toBe(true);
	expect(holds('Rod lip seal 28 × 38, drawer 12', '')).toBe(true);
	expect(holds('Rod lip seal 28 × 38, drawer 12', 'seal lip')).toBe(false);
});
