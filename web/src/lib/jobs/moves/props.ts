import type { JobView } from '$lib/api';
import type { JobStore, Move } from '../job.svelte';

/** What the screen of a kind of move is handed. */
export interface MoveProps {
	store: JobStore;
	view: JobView;
	move: Move;
	/** Whether its first field takes the focus. */
	focused: boolean;
	/** Whether it asks nothing, so that its sentence is its button. */
	bare: boolean;
	onDone: () => void;
}
