import { expect, it } from 'vitest';
import { filled, offered, proposedValues, put, valueOf } from './payload';

const ask = (field: string, read = 'text', proposed: unknown = null) => ({
	field,
	read,
	unit: null,
	proposed
});

it('puts a value at a dotted path, and lists grow as far as needed', () => {
	const payload = { kind: 'x', readings: [{ number: 1 }, { number: 3 }] };
	expect(put(payload, 'readings.1.reading', '20 N·m')).toEqual({
		kind: 'x',
		readings: [{ number: 1 }, { number: 3, reading: '20 N·m' }]
	});
	expect(put({ kind: 'x' }, 'points.0.values.1', '3')).toEqual({
		kind: 'x',
		points: [{ values: [undefined, '3'] }]
	});
	expect(payload.readings[1]).toEqual({ number: 3 });
});

it('takes what was typed as the entry wants it', () => {
	expect(valueOf(ask('counted', 'number'), '3')).toBe(3);
	expect(valueOf(ask('counted', 'number'), '2,5')).toBe(2.5);
	// What is no number goes to the server as it is: it names the field and says what fits.
	expect(valueOf(ask('counted', 'number'), 'two')).toBe('two');
	expect(valueOf(ask('note'), '  ')).toBeUndefined();
	expect(valueOf(ask('free', 'yes_no'), false)).toBe(false);
	expect(valueOf(ask('seen', 'look'), ['scored', 'rust'])).toEqual(['scored', 'rust']);
});

it('leaves out what was not filled in, and begins with what is proposed', () => {
	const asks = [ask('present', 'yes_no', true), ask('faced', 'zone'), ask('note')];
	const values = proposedValues(asks);
	expect(values).toEqual({ present: true });
	expect(filled({ kind: 'element_found', element: 'lip' }, asks, { ...values, faced: 'rod_side' })).toEqual({
		kind: 'element_found',
		element: 'lip',
		present: true,
		faced: 'rod_side'
	});
});

it('offers a choice only beside what it belongs to', () => {
	const choices = [
		{ key: 'flush', only: { cause: 'dirt' } },
		{ key: 'bleed', only: { cause: 'dieseling' } },
		{ key: 'note', only: null }
	];
	const keys = (others: Record<string, unknown>) => offered(choices, others).map((offer) => offer.key);
	expect(keys({ cause: 'dirt' })).toEqual(['flush', 'note']);
	expect(keys({})).toEqual(['note']);
});

it('asks of a yes or no as of any other answer', () => {
	const from = [{ key: 'stock', only: { reused: 'no' } }];
	expect(offered(from, { reused: false })).toHaveLength(1);
	expect(offered(from, { reused: true })).toEqual([]);
	expect(offered(from, {})).toEqual([]);
});
