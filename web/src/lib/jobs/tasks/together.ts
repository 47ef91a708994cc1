import type { JobView } from '$lib/api';
import type { JobStore, Task } from '../job.svelte';

/** What fits on a card under its drawing, on a phone too. */
const MOST = 3;

/** The tasks that share the card of one, itself the first of them; none for one that stands alone, or was picked by itself. */
export function together(view: JobView, task: Task, waits: Set<string>, named: string | null): Task[] {
	if (task.screen.kind !== 'find' || task.status === 'done' || named === task.key) return [];
	const { card } = task.screen;
	const open = view.tasks.filter(
		(task) =>
			task.screen.kind === 'find' &&
			task.screen.card === card &&
			(task.status === 'next' || task.status === 'open') &&
			!waits.has(task.key)
	);
	const group = open.slice(0, MOST);
	return group.length > 1 && group[0]?.key === task.key ? group : [];
}

/** What stands on the card of a task: what is being recorded from it stays there until all of it is taken. */
export const onCard = (store: JobStore, view: JobView, task: Task, named: string | null): Task[] =>
	store.card ?? together(view, task, store.waiting, named);
