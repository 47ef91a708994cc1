import type { Problem } from '$lib/api';
import { filled, proposedValues, type Values } from '$lib/asks';
import type { EntryPayload } from '$lib/outbox';
import { faultAt, keep, recallText } from '$lib/shared';
import type { JobStore, Task } from '../job.svelte';

/** No two tasks are taken within this: the second tap of a tired hand is not for the next one. */
const APART_MS = 300;
let takenAt = -APART_MS;

/** How long a tap still belongs to the task before, in milliseconds. */
const settlesIn = () => Math.max(0, APART_MS - (performance.now() - takenAt));

/** Tells at once, and when it changes, whether a tap still belongs to the task before. */
export function settle(tell: (settling: boolean) => void) {
	const left = settlesIn();
	tell(left > 0);
	if (left > 0) setTimeout(() => tell(false), left);
}

/** Something was taken just now: what comes next waits for the hand. */
export const justTaken = () => {
	takenAt = performance.now();
};

/** What is typed and chosen for a task, kept on the device until it is recorded. */
export class TaskForm {
	values = $state<Values>({});
	problem = $state.raw<Problem | null>(null);
	busy = $state(false);
	/** The task before was taken just now: a tap still belongs to it. */
	settling = $state(false);
	private readonly key: string;

	constructor(
		private readonly store: JobStore,
		private readonly task: Task,
		/** What a screen keeps beside the fields of the asks. */
		private readonly beside: string[] = []
	) {
		this.key = `kettle-task-${store.id}-${task.key}`;
		this.values = { ...proposedValues(task.asks), ...this.kept() };
		this.settle();
	}

	private settle() {
		settle((settling) => (this.settling = settling));
	}

	/** What was typed into these fields before and not recorded. */
	private kept(): Values {
		try {
			const stored = JSON.parse(recallText(this.key) ?? '{}') as Values;
			return Object.fromEntries(
				[...this.task.asks.map((ask) => ask.field), ...this.beside]
					.map((field) => [field, stored[field]])
					.filter(([, value]) => value !== undefined)
			);
		} catch {
			return {};
		}
	}

	/** Keeps what stands in the fields through a reload, and through leaving the screen. */
	save() {
		keep(this.key, $state.snapshot(this.values) as Values);
	}

	/** The entry as it would be sent now. */
	payload(given: Record<string, unknown> = {}): EntryPayload {
		return { ...filled(this.task.entry, this.task.asks, $state.snapshot(this.values)), ...given };
	}

	/** The entry as it would be sent with another answer to one question. */
	payloadWith(field: string, value: unknown): EntryPayload {
		const values = { ...($state.snapshot(this.values) as Values), [field]: value };
		return filled(this.task.entry, this.task.asks, values);
	}

	/** What is wrong with a field, what fits in the words of its choices. */
	fault(field: string): string | null {
		const ask = this.task.asks.find((ask) => ask.field === field);
		return faultAt(this.problem, field, ask?.choices);
	}

	/** Records the entry with what was filled in, and what else is given; true when it was taken. `card`: with what else it is undone. */
	async record(given: Record<string, unknown> = {}, card?: string): Promise<boolean> {
		// A second tap while the first is on its way counts for nothing.
		if (this.busy || this.settling) return false;
		this.busy = true;
		this.problem = await this.store.record(this.payload(given), this.task.key, card);
		this.busy = false;
		if (!this.problem) {
			justTaken();
			this.settle();
			localStorage.removeItem(this.key);
		}
		return this.problem === null;
	}
}
