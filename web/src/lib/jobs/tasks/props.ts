import type { JobView } from '$lib/api';
import type { JobStore, Task } from '../job.svelte';

/** What the screen of a kind of task is handed. */
export interface TaskProps {
	store: JobStore;
	view: JobView;
	task: Task;
	/** Whether its first field takes the focus. */
	focused: boolean;
	/** Whether it asks nothing, so that its sentence is its button. */
	bare: boolean;
	onDone: () => void;
}

/** The screen of a kind that a component was picked for. */
export function screenOf<K extends Task['screen']['kind']>(
	task: Task,
	kind: K
): Extract<Task['screen'], { kind: K }> {
	if (task.screen.kind !== kind) throw new Error(`${task.key} has no screen of the kind ${kind}`);
	return task.screen as Extract<Task['screen'], { kind: K }>;
}
