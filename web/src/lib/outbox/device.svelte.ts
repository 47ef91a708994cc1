import { api, ask, localProblem, type Problem } from '$lib/api';
import { session } from '$lib/session';
import { newId } from '$lib/shared';
import { openBox } from './box';
import { Outbox } from './outbox';
import { send } from './send';
import type { Answer, Became, EntryPayload, Waiting } from './types';

const AGAIN_MS = 2500;
/** So long what was recorded last can be undone by a tap. */
const UNDO_MS = 8000;
const SIGN_IN_FIRST = localProblem('Not signed in', 'Sign in at the top of the screen first.');

/** What this device holds of entries, and what became of them; one for all screens of a tab. */
class Device {
	entries = $state.raw<Waiting[]>([]);
	/** Whether what waits would survive the page being closed. */
	keeps = $state(true);
	/** Why nothing can be sent just now. */
	away = $state.raw<Problem | null>(null);
	/** Waiting to be sent, refused ones left out. */
	waiting = $derived(this.entries.filter((entry) => !entry.refused));
	refused = $derived(this.entries.filter((entry) => entry.refused));

	/** What was recorded last on this device, with the one tap that undoes it: of a card with several, all of them. */
	last = $state.raw<{ job: string; card?: string; entries: string[] } | null>(null);

	private forget: ReturnType<typeof setTimeout> | undefined;
	private readonly outbox = new Outbox(openBox, send, () => this.show());
	private readonly watchers = new Set<(job: string, became: Became) => void>();
	private readonly attended = new Map<string, (problem: Problem | null) => void>();
	private order = Date.now() * 1000;

	private show() {
		this.entries = this.outbox.all();
		this.keeps = this.outbox.keeps;
	}

	/** Sends what waits while the application is open. Returns the clean-up. */
	follow(): () => void {
		void this.outbox.load().then(() => this.flush());
		const again = setInterval(() => void (this.entries.length && this.flush()), AGAIN_MS);
		return () => clearInterval(again);
	}

	/** Calls back with what became of a job by each entry that was taken. Returns the clean-up. */
	watch(act: (job: string, became: Became) => void): () => void {
		this.watchers.add(act);
		return () => this.watchers.delete(act);
	}

	/** From now on nobody looks at what was sent so far: refusals are kept on the device. */
	leave() {
		this.attended.clear();
	}

	/**
	 * Records an entry: kept on the device first, then sent. Gives the problem when it was refused at once, to the
	 * screen that still shows what was typed; a refusal that comes later stays on the device.
	 */
	async record(
		job: string,
		unit: string,
		payload: EntryPayload,
		beside: Pick<Waiting, 'seen' | 'task'> = {},
		card?: string
	): Promise<Problem | null> {
		if (!session.person) return SIGN_IN_FIRST;
		const entry = { ...this.make(job, unit, payload), ...beside };
		const answered = new Promise<Problem | null>((resolve) => this.attended.set(entry.id, resolve));
		await this.outbox.add(entry);
		const goOn = () => {
			// Not answered: it waits on the device, and the screen may go on.
			this.attended.get(entry.id)?.(null);
			this.attended.delete(entry.id);
			if (this.waiting.some((queued) => queued.id === entry.id)) this.remember(entry, card);
		};
		// The screen goes on with the answer itself: what was tapped on the new state is not undone a moment later.
		this.flush().then(goOn, goOn);
		return answered.then((problem) => {
			if (!problem) this.remember(entry, card);
			return problem;
		});
	}

	private remember(entry: Waiting, card?: string) {
		const before = card !== undefined && this.last?.card === card ? this.last.entries : [];
		const entries = before.includes(entry.id) ? before : [...before, entry.id];
		this.last = entry.payload.kind === 'entry_struck' ? null : { job: entry.job, card, entries };
		clearTimeout(this.forget);
		this.forget = setTimeout(() => (this.last = null), UNDO_MS);
	}

	/** Takes back what was recorded last: off the device where it waits there still, else struck out with the reason given. */
	async undo(reason: string): Promise<Problem | null> {
		const { last } = this;
		this.last = null;
		for (const id of last?.entries.toReversed() ?? []) {
			const entry = this.entries.find((entry) => entry.id === id);
			if (entry && this.away) await this.outbox.remove(entry.id);
			else {
				const struck = { kind: 'entry_struck' as const, entry: id, reason };
				const problem = await this.record(last?.job ?? '', entry?.unit ?? '', struck);
				if (problem) return problem;
			}
		}
		return null;
	}

	/** Signs: sent at once or not at all, since a PIN is never kept on a device. */
	async sign(job: string, unit: string, payload: EntryPayload, pin: string): Promise<Problem | null> {
		if (!session.person) return SIGN_IN_FIRST;
		const answer = await send(this.make(job, unit, payload), pin);
		if (answer.kind === 'taken') {
			this.tell(job, answer.became);
			return null;
		}
		return answer.kind === 'signed_out' ? SIGN_IN_FIRST : answer.problem;
	}

	/** Sends a refused entry with something changed, as a new one. */
	async change(entry: Waiting, payload: EntryPayload) {
		await this.outbox.add({ ...this.make(entry.job, entry.unit, payload), bench_time: entry.bench_time });
		await this.outbox.remove(entry.id);
		await this.flush();
	}

	/** Keeps what a refused entry said as a note on its job. */
	async asNote(entry: Waiting, words: string): Promise<Problem | null> {
		const text = `Not recorded as entered: ${words}. ${entry.refused?.detail ?? ''}`.slice(0, 1900);
		const problem = await this.record(entry.job, entry.unit, { kind: 'note_made', text });
		if (!problem) await this.outbox.remove(entry.id);
		return problem;
	}

	/** Gives up an entry, with the reason on the trail. */
	async discard(entry: Waiting, reason: string): Promise<Problem | null> {
		const answer = await ask(
			api
				.POST('/api/jobs/{job_id}/discarded', {
					params: { path: { job_id: entry.job } },
					body: {
						entry: entry.id,
						payload: entry.payload,
						refused: (entry.refused ?? entry.fault)?.detail.slice(0, 1900) ?? '',
						reason
					}
				})
				.then((done) => ({ ...done, data: done.response.ok ? true : undefined }))
		);
		if (!answer.problem) await this.outbox.remove(entry.id);
		return answer.problem;
	}

	async flush() {
		if (!session.person) return;
		this.away = await this.outbox.flush(session.person.person, (entry, answer) => this.told(entry, answer));
	}

	private told(entry: Waiting, answer: Answer) {
		const attended = this.attended.get(entry.id);
		this.attended.delete(entry.id);
		if (answer.kind === 'taken') this.tell(entry.job, answer.became);
		if (answer.kind === 'refused' && attended) {
			// The screen shows what was typed, and why it was refused: the device need not keep it as well.
			void this.outbox.remove(entry.id);
			attended(answer.problem);
		} else attended?.(null);
	}

	private tell(job: string, became: Became) {
		for (const watcher of this.watchers) watcher(job, became);
	}

	private make(job: string, unit: string, payload: EntryPayload): Waiting {
		this.order = Math.max(this.order + 1, Date.now() * 1000);
		return {
			id: newId(),
			order: this.order,
			job,
			unit,
			who: session.person?.person ?? '',
			whoName: session.person?.name ?? '',
			bench_time: new Date().toISOString(),
			payload
		};
	}
}

export const device = new Device();
