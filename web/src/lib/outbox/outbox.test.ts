import { expect, it } from 'vitest';
import type { Problem } from '$lib/api';
import { formerEntries, isEntry } from './box';
import { Outbox } from './outbox';
import type { Answer, Became, Box, Waiting } from './types';

const became = {} as Became;
const why: Problem = { type: '', title: 'No', status: 422, detail: 'no', errors: [] };

class MemoryBox implements Box {
	book = new Map<string, Waiting>();
	full = false;
	async all() {
		return [...this.book.values()];
	}
	async put(entry: Waiting) {
		if (this.full) throw new DOMException('full', 'QuotaExceededError');
		this.book.set(entry.id, structuredClone(entry));
	}
	async remove(id: string) {
		this.book.delete(id);
	}
}

let made = 0;
const entry = (id: string, who = 'bede'): Waiting => ({
	id,
	order: ++made,
	job: 'j',
	unit: 'ram',
	who,
	whoName: who,
	bench_time: '',
	payload: { kind: 'note_made' }
});

/** A server that answers as told, with what it took in order. */
function server(answers: Record<string, Answer['kind']> = {}) {
	const taken: string[] = [];
	const state = { online: true, taken, answers };
	const send = async (entry: Waiting): Promise<Answer> => {
		if (!state.online) return { kind: 'away', problem: why };
		const kind = answers[entry.id] ?? 'taken';
		if (kind === 'taken') {
			taken.push(entry.id);
			return { kind, became };
		}
		return kind === 'signed_out' ? { kind } : { kind, problem: why };
	};
	return { state, send };
}

function outbox(box: Box, send: (entry: Waiting) => Promise<Answer>, clock = () => 0) {
	return new Outbox(
		async () => box,
		send,
		() => {},
		clock
	);
}

it('keeps entries through a lost connection, over a new page, and sends them in order', async () => {
	const kept = new MemoryBox();
	const { state, send } = server();
	state.online = false;
	const box = outbox(kept, send);
	for (const id of ['c', 'a', 'b']) await box.add(entry(id));
	expect(await box.flush('bede', () => {})).toBe(why);
	expect(box.all().map((queued) => queued.id)).toEqual(['c', 'a', 'b']);

	state.online = true;
	const reopened = outbox(kept, send);
	expect(await reopened.flush('bede', () => {})).toBeNull();
	expect(state.taken).toEqual(['c', 'a', 'b']);
	expect(reopened.all()).toEqual([]);
	expect(kept.book.size).toBe(0);
});

it('keeps a refused entry with its reason, over a new page, and goes on with the others', async () => {
	const kept = new MemoryBox();
	const { state, send } = server({ a: 'refused' });
	const box = outbox(kept, send);
	await box.add(entry('a'));
	await box.add(entry('b'));
	await box.flush('bede', () => {});
	expect(state.taken).toEqual(['b']);
	const reopened = outbox(kept, send);
	await reopened.flush('bede', () => {});
	expect(reopened.all().map((queued) => [queued.id, queued.refused?.detail])).toEqual([['a', 'no']]);
	await reopened.remove('a');
	expect(kept.book.size).toBe(0);
});

it('is not held up by one the server fails at, and tries that one again with growing pauses', async () => {
	let now = 0;
	const tries: string[] = [];
	const answers: Record<string, Answer['kind']> = { a: 'fault' };
	const { state, send } = server(answers);
	const box = outbox(
		new MemoryBox(),
		(sent) => (tries.push(sent.id), send(sent)),
		() => now
	);
	await box.add(entry('a'));
	await box.add(entry('b'));
	expect(await box.flush('bede', () => {})).toBeNull();
	expect(state.taken).toEqual(['b']);
	expect(box.all()[0]?.fault).toEqual(why);
	now = 4_999;
	await box.flush('bede', () => {});
	now = 5_000;
	await box.flush('bede', () => {});
	now = 14_999;
	await box.flush('bede', () => {});
	expect(tries).toEqual(['a', 'b', 'a']);
	answers.a = 'taken';
	now = 15_000;
	await box.flush('bede', () => {});
	expect(box.all()).toEqual([]);
});

it('sends nothing of one person while another is signed in', async () => {
	const { state, send } = server();
	const box = outbox(new MemoryBox(), send);
	await box.add(entry('a', 'bede'));
	await box.add(entry('b', 'ines'));
	await box.flush('ines', () => {});
	expect(state.taken).toEqual(['b']);
	expect(box.all().map((queued) => queued.id)).toEqual(['a']);
});

it('waits for a sign-in without calling it a lost connection', async () => {
	const { send } = server({ a: 'signed_out' });
	const box = outbox(new MemoryBox(), send);
	await box.add(entry('a'));
	expect(await box.flush('bede', () => {})).toBeNull();
	expect(box.all().map((queued) => queued.id)).toEqual(['a']);
});

it('sends although the device is full, says that it keeps nothing, and loses none meanwhile', async () => {
	const kept = new MemoryBox();
	kept.full = true;
	const { state, send } = server();
	state.online = false;
	const box = outbox(kept, send);
	await box.add(entry('a'));
	expect(box.keeps).toBe(false);
	await box.flush('bede', () => {});
	expect(box.all().map((queued) => queued.id)).toEqual(['a']);
	state.online = true;
	await box.flush('bede', () => {});
	expect(state.taken).toEqual(['a']);
	kept.full = false;
	await box.add(entry('b'));
	expect(box.keeps).toBe(true);
});

it('sends although the device has no storage at all', async () => {
	const { state, send } = server();
	const box = new Outbox(
		() => Promise.reject(new Error('switched off')),
		send,
		() => {}
	);
	await box.add(entry('a'));
	await box.flush('bede', () => {});
	expect(box.keeps).toBe(false);
	expect(state.taken).toEqual(['a']);
});

it('never sends one entry twice when two callers flush at once, and lets two tabs share a box', async () => {
	const kept = new MemoryBox();
	const { state, send } = server();
	const slow = async (sent: Waiting) => {
		await Promise.resolve();
		return send(sent);
	};
	const box = outbox(kept, slow);
	const other = outbox(kept, slow);
	await box.add(entry('a'));
	await Promise.all([box.flush('bede', () => {}), box.flush('bede', () => {})]);
	expect(state.taken).toEqual(['a']);
	await box.add(entry('b'));
	await other.flush('bede', () => {});
	await box.load();
	expect(box.all()).toEqual([]);
	expect(state.taken).toEqual(['a', 'b']);
});

it('takes over what a former version kept, and knows an entry from anything else', () => {
	const former = { job: 'j', id: 'a', who: 'bede', bench_time: '', payload: { kind: 'note_made' } };
	expect(formerEntries(JSON.stringify([former, 7, null, { id: 'b' }]))).toEqual([
		{ ...former, order: 0, unit: '', whoName: 'bede' }
	]);
	expect(formerEntries('{"a": 1}')).toEqual([]);
	expect(formerEntries(null)).toEqual([]);
	expect(() => formerEntries('{broken')).toThrow();
	expect(isEntry({ ...former, payload: null })).toBe(false);
});
