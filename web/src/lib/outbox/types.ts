import type { Problem, Schemas } from '$lib/api';

/** What is recorded: a kind and its fields; the server checks it against its union. */
export type EntryPayload = { kind: Schemas['NoteMade']['kind'] | string } & Record<string, unknown>;

/** An entry this device holds until the server has taken it. */
export interface Waiting {
	id: string;
	/** The order it was made in, on this device. */
	order: number;
	job: string;
	/** What the job is called, for lists that are not on it. */
	unit: string;
	/** Whose it is: it is sent only while that person is signed in. */
	who: string;
	whoName: string;
	bench_time: string;
	payload: EntryPayload;
	/** How many entries its maker knew of. */
	seen?: number;
	/** The task it completes, so that the screen goes on while it waits. */
	task?: string;
	/** Why the server refused it; then it waits for a person to decide. */
	refused?: Problem;
	/** What went wrong on the server with this one; it is tried again by itself. */
	fault?: Problem;
	tries?: number;
	pausedUntil?: number;
}

/** What became of a job by an entry. */
export type Became = Schemas['EntryOnlyOut'];

/**
 * What came of sending one entry. `fault`: the server failed at this very entry. `away`: nothing can be sent just
 * now. `signed_out`: somebody has to sign in first.
 */
export type Answer =
	| { kind: 'taken'; became: Became }
	| { kind: 'refused'; problem: Problem }
	| { kind: 'fault'; problem: Problem }
	| { kind: 'away'; problem: Problem }
	| { kind: 'signed_out' };

export type Send = (entry: Waiting) => Promise<Answer>;

/** Where entries are kept on the device. */
export interface Box {
	all(): Promise<Waiting[]>;
	put(entry: Waiting): Promise<void>;
	remove(id: string): Promise<void>;
}
