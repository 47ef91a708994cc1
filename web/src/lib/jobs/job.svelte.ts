import {
	api,
	ask,
	problemOf,
	UNREACHABLE,
	type JobView,
	type Problem,
	type Schemas,
	type SheetView
} from '$lib/api';
import { people } from '$lib/people';
import { Outbox, type Answer, type Waiting } from './outbox';

export type StageName = Schemas['Stage'];
export type EntryPayload = { kind: Schemas['NoteMade']['kind'] | string } & Record<string, unknown>;

export const STAGES: { key: StageName; name: string }[] = [
	{ key: 'intake', name: 'Intake' },
	{ key: 'safe', name: 'Make safe' },
	{ key: 'strip', name: 'Strip-down' },
	{ key: 'match', name: 'Match' },
	{ key: 'kit', name: 'Kit check' },
	{ key: 'rebuild', name: 'Rebuild' },
	{ key: 'tighten', name: 'Tighten' },
	{ key: 'test', name: 'Test' },
	{ key: 'release', name: 'Release' }
];

const POLL_MS = 4000;
const RETRY_MS = 2500;
const BEYOND_RECALL = 500;

async function send(entry: Waiting): Promise<Answer> {
	const { job, ...body } = entry;
	try {
		const { data, error, response } = await api.POST('/api/jobs/{job_id}/entries', {
			params: { path: { job_id: job } },
			// The payload's kind was chosen by the screen; the server checks it against the union.
			body: body as Schemas['EntryBody']
		});
		// The client widens tuples to arrays; the answer itself is what the schema says.
		if (data) return { view: data as JobView };
		if (response.status >= BEYOND_RECALL) return 'unreachable';
		return { problem: problemOf(error) };
	} catch {
		return 'unreachable';
	}
}

/** One job on the screen: its state from the server, its sheet, and what still waits to be sent. */
export class JobStore {
	view = $state.raw<JobView | null>(null);
	sheet = $state.raw<SheetView | null>(null);
	problem = $state.raw<Problem | null>(null);
	waiting = $state(0);
	offline = $state(false);

	private readonly outbox = new Outbox(localStorage, send);
	private readonly answers = new Map<string, (problem: Problem | null) => void>();

	constructor(readonly id: string) {}

	stage(key: StageName) {
		return this.view?.stages.find((report) => report.stage === key) ?? null;
	}

	async load() {
		await this.flush();
		const { data, problem } = await ask(
			api.GET('/api/jobs/{job_id}', { params: { path: { job_id: this.id } } })
		);
		this.offline = problem?.status === 0;
		if (!data) {
			if (!this.view) this.problem = problem;
			return;
		}
		this.problem = null;
		this.view = data as JobView;
		if (!this.sheet) await this.loadSheet(this.view);
	}

	private async loadSheet(view: JobView) {
		const path = { key: view.job.sheet_key, version: view.job.sheet_version };
		const { data, problem } = await ask(api.GET('/api/sheets/{key}/{version}', { params: { path } }));
		if (data) this.sheet = data as SheetView;
		else this.problem = problem;
	}

	/** Follows the job while its screen is open: others may work on it too. Returns the clean-up. */
	follow(): () => void {
		const poll = setInterval(() => void this.load(), POLL_MS);
		const retry = setInterval(() => void (this.waiting && this.flush()), RETRY_MS);
		void this.load();
		return () => {
			clearInterval(poll);
			clearInterval(retry);
		};
	}

	/** Records an entry: kept on the device first, then sent. Gives the problem when it was refused. */
	async record(payload: EntryPayload): Promise<Problem | null> {
		if (!people.current)
			return {
				...UNREACHABLE,
				title: 'Who is at the bench',
				detail: 'Choose your name at the top of the screen first.'
			};
		const id = crypto.randomUUID();
		const answered = new Promise<Problem | null>((resolve) => this.answers.set(id, resolve));
		this.outbox.add({
			job: this.id,
			id,
			who: people.current.key,
			bench_time: new Date().toISOString(),
			payload
		});
		const sent = await this.flush();
		if (!sent) {
			this.answers.delete(id);
			return null;
		}
		return answered;
	}

	private async flush(): Promise<boolean> {
		this.waiting = this.outbox.waiting().length;
		const sent = await this.outbox.flush((entry, answer) => {
			if ('view' in answer && entry.job === this.id) this.view = answer.view;
			const resolve = this.answers.get(entry.id);
			this.answers.delete(entry.id);
			if (resolve) resolve('problem' in answer ? answer.problem : null);
			else if ('problem' in answer) this.problem = answer.problem;
		});
		this.waiting = this.outbox.waiting().length;
		this.offline = !sent;
		return sent;
	}
}
