import { api, ask as asked } from '$lib/api';
import type { Ask, JobStore, Task } from '../job.svelte';
import type { TaskForm } from './form.svelte';

const EXCLUSIVE = ['choice', 'zone', 'yes_no', 'go_no_go'];
const MOST = 6;
/** What a look is answered with when there is nothing to see. */
export const NOTHING = 'none';

/** What an answer's key stands for in the entry. */
export const given = (ask: Ask, key: string): unknown =>
	ask.read === 'yes_no' || ask.read === 'go_no_go' ? key === 'yes' : key;

/**
 * The only question of a task: its answer is recorded by its own tap. What is proposed beside it is told under each
 * answer first, as the log will have it.
 */
export class Sole {
	/** What the log would say, by answer, where more than the answer is recorded. */
	words = $state.raw<Record<string, string>>({});
	/** How it is recorded: by the tap or by a button below; unknown until the server has said what each answer records. */
	by = $state<'tap' | 'button' | 'unknown'>('button');
	readonly ask: Ask | null;
	/** Whether the last of several answers is recorded by its own tap: all are picked, and nothing else goes on the record. */
	readonly last: boolean;
	private readonly more: boolean;

	constructor(
		private readonly store: JobStore,
		task: Task,
		private readonly form: TaskForm,
		open: Ask[]
	) {
		const only = open.length === 1 ? open[0] : undefined;
		const picked = open.every((ask) => EXCLUSIVE.includes(ask.read) || ask.read === 'look');
		// What hangs on the answer is asked once it is there.
		const leads = task.asks.some((ask) =>
			ask.choices.some((choice) => Object.keys(choice.only ?? {}).includes(only?.field ?? ''))
		);
		this.ask = only && picked && !leads && task.status !== 'done' ? only : null;
		this.more = task.asks.some((ask) => ask !== only && ask.proposed !== null && ask.proposed !== undefined);
		this.last = open.length > 1 && picked && !this.more && task.status !== 'done';
		if (this.ask) this.by = !this.more ? 'tap' : this.keys.length > MOST ? 'button' : 'unknown';
	}

	/** Whether the answer itself records: of several signs more may follow. */
	records(key: string): boolean {
		return this.by === 'tap' && this.ask !== null && this.ends(this.ask, key);
	}

	/** Whether an answer to a question ends it: of several signs more may follow. */
	ends(ask: Ask, key: string): boolean {
		return ask.read !== 'look' || key === NOTHING;
	}

	/** Whether every answer does, so that no button is needed. */
	get always(): boolean {
		return this.by === 'tap' && this.ask?.read !== 'look';
	}

	private get keys(): string[] {
		if (!this.ask) return [];
		// Of several signs more may follow: only that there is none ends the question.
		if (this.ask.read === 'look') return [NOTHING];
		return this.ask.choices.length ? this.ask.choices.map((choice) => choice.key) : ['yes', 'no'];
	}

	/** Asks the server what each answer would put on the record. */
	async tell() {
		const { ask } = this;
		if (!ask || this.by !== 'unknown') return;
		const params = { path: { job_id: this.store.id } };
		const found = await Promise.all(
			this.keys.map(async (key) => {
				const payload = this.form.payloadWith(ask.field, given(ask, key));
				const { data } = await asked(api.POST('/api/jobs/{job_id}/describe', { params, body: { payload } }));
				return [key, data?.whole ? data.words : ''] as const;
			})
		);
		this.words = Object.fromEntries(found.filter(([, words]) => words));
		this.by = this.keys.every((key) => key in this.words) ? 'tap' : 'button';
	}
}
