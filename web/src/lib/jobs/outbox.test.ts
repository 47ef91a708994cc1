import { expect, it } from 'vitest';
import { UNREACHABLE, type JobView } from '../api/client';
import { Outbox, type Answer, type Waiting } from './outbox';

function storage() {
	const book = new Map<string, string>();
	return {
		getItem: (key: string) => book.get(key) ?? null,
		setItem: (key: string, value: string) => void book.set(key, value)
	};
}

const entry = (id: string): Waiting => ({
	job: 'j',
	id,
	who: 'bede',
	bench_time: '',
	payload: { kind: 'note_made' }
});
const view = {} as JobView;

it('keeps entries through a lost connection and sends them in order', async () => {
	let online = false;
	const sent: string[] = [];
	const kept = storage();
	const box = new Outbox(kept, async (one): Promise<Answer> => {
		if (!online) return 'unreachable';
		sent.push(one.id);
		return { view };
	});
	for (const id of ['a', 'b', 'c']) box.add(entry(id));
	expect(await box.flush(() => {})).toBe(false);
	expect(box.waiting().map((one) => one.id)).toEqual(['a', 'b', 'c']);

	online = true;
	const reopened = new Outbox(kept, async (one) => (sent.push(one.id), { view }));
	expect(await reopened.flush(() => {})).toBe(true);
	expect(sent).toEqual(['a', 'b', 'c']);
	expect(reopened.waiting()).toEqual([]);
});

it('drops a refused entry, tells why, and goes on', async () => {
	const box = new Outbox(storage(), async (one) => (one.id === 'a' ? { problem: UNREACHABLE } : { view }));
	box.add(entry('a'));
	box.add(entry('b'));
	const told: string[] = [];
	await box.flush((one, answer) => told.push(`${one.id} ${'problem' in answer ? 'refused' : 'taken'}`));
	expect(told).toEqual(['a refused', 'b taken']);
});

it('never sends one entry twice when two callers flush at once', async () => {
	const sent: string[] = [];
	const box = new Outbox(storage(), async (one) => {
		await Promise.resolve();
		sent.push(one.id);
		return { view };
	});
	box.add(entry('a'));
	await Promise.all([box.flush(() => {}), box.flush(() => {})]);
	expect(sent).toEqual(['a']);
});
