import { expect, test } from 'vitest';
import type { JobView } from '$lib/api';
import type { Task } from '../job.svelte';
import { together } from './together';

const task = (key: string, card: string | null, status = 'open') =>
	({ key, status, screen: card === null ? { kind: 'plain' } : { kind: 'find', card } }) as Task;
const NONE = new Set<string>();

test('what comes off with one step shares a card, three at a time, from the one in hand on', () => {
	const tasks = [
		task('a', 'out', 'done'),
		task('b', 'out', 'next'),
		task('c', 'out'),
		task('x', null),
		task('d', 'out'),
		task('e', 'out'),
		task('f', 'other')
	];
	const view = { tasks } as JobView;
	const [, b, c, x, , , f] = tasks as [Task, Task, Task, Task, Task, Task, Task];
	expect(together(view, b, NONE, null).map((card) => card.key)).toEqual(['b', 'c', 'd']);
	expect(together(view, b, new Set(['c']), null).map((card) => card.key)).toEqual(['b', 'd', 'e']);
	expect(together(view, b, NONE, 'b')).toEqual([]);
	for (const alone of [c, x, f]) expect(together(view, alone, NONE, null)).toEqual([]);
});

test('a task that must wait is on no card', () => {
	const tasks = [task('a', 'out', 'next'), task('b', 'out', 'blocked')];
	expect(together({ tasks } as JobView, tasks[0] as Task, NONE, null)).toEqual([]);
});
