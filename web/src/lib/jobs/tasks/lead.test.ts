import { expect, test } from 'vitest';
import { leadOf } from './lead';

test('readings of one thing have its name in common', () => {
	expect(leadOf(['Drops, 0 to 5 min', 'Drops, 5 to 10 min'])).toBe('Drops, ');
	expect(leadOf(['Drops, 0 to 5 min', 'Effort, 5 to 10 min'])).toBe('');
	expect(leadOf(['Effort 1', 'Effort 2'])).toBe('');
	expect(leadOf(['Drops, ', 'Drops, 1'])).toBe('');
	expect(leadOf([])).toBe('');
});
