import type { JobView, Problem } from '../api/client';

/** An entry waiting to be acknowledged by the server. */
export interface Waiting {
	job: string;
	id: string;
	who: string;
	bench_time: string;
	payload: { kind: string } & Record<string, unknown>;
}

export type Answer = { view: JobView } | { problem: Problem } | 'unreachable';

/** How an entry is sent; "unreachable" when no answer came and it must be sent again. */
export type Send = (entry: Waiting) => Promise<Answer>;

const KEY = 'kettle-outbox';

/**
 * Entries are written to the device first and sent in order. An entry leaves the box only when the
 * server took it or refused it; its id makes sending it twice harmless.
 */
export class Outbox {
	private turn: Promise<void> = Promise.resolve();

	constructor(
		private readonly storage: Pick<Storage, 'getItem' | 'setItem'>,
		private readonly send: Send
	) {}

	waiting(): Waiting[] {
		return JSON.parse(this.storage.getItem(KEY) ?? '[]') as Waiting[];
	}

	add(entry: Waiting) {
		this.keep([...this.waiting(), entry]);
	}

	/** Sends what waits, oldest first, one caller at a time; stops where the server cannot be reached. */
	flush(told: (entry: Waiting, answer: Exclude<Answer, 'unreachable'>) => void): Promise<boolean> {
		const run = this.turn.then(() => this.drain(told));
		this.turn = run.then(
			() => undefined,
			() => undefined
		);
		return run;
	}

	private async drain(told: (entry: Waiting, answer: Exclude<Answer, 'unreachable'>) => void) {
		for (let next = this.waiting()[0]; next; next = this.waiting()[0]) {
			const entry = next;
			const answer = await this.send(entry);
			if (answer === 'unreachable') return false;
			this.keep(this.waiting().filter((other) => other.id !== entry.id));
			told(entry, answer);
		}
		return true;
	}

	private keep(entries: Waiting[]) {
		this.storage.setItem(KEY, JSON.stringify(entries));
	}
}
