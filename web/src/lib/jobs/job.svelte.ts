import { api, ask, askIfChanged, type JobView, type Problem, type Schemas } from '$lib/api';
import { device, type EntryPayload } from '$lib/outbox';

export type Task = Schemas['TaskOut'];
export type Ask = Schemas['AskOut'];
export type Picture = Schemas['Picture'];

const POLL_MS = 4000;

/** One job on the screen: its state from the server, its drawing, and what is recorded on it. */
export class JobStore {
	view = $state.raw<JobView | null>(null);
	picture = $state.raw<Picture | null>(null);
	/** The drawings that came, by their view. */
	private drawings = $state.raw<Record<string, Picture>>({});
	problem = $state.raw<Problem | null>(null);
	/** What others recorded while this one worked. */
	meanwhile = $state.raw<Schemas['MeanwhileOut'][]>([]);
	/** The space somebody tapped on the drawing last. */
	pointed = $state<string | null>(null);
	/** The task that the hand is at on a card that holds several. */
	row = $state<string | null>(null);
	/** What is being recorded from one card: it stays in hand until the last of it is taken. */
	card = $state.raw<Task[] | null>(null);
	/** Under which the server knows the view that is shown; null for one that came with an entry. */
	private tag: string | null = null;
	private drawnFor = '';
	/** Views are numbered as they are asked for, and as entries bring them; an older one never takes the place of a newer. */
	private asked = 0;
	private shown = 0;

	constructor(readonly reference: string) {}

	get id() {
		return this.view?.job.id ?? this.reference;
	}

	async load() {
		const turn = ++this.asked;
		const headers = this.tag ? { 'If-None-Match': this.tag } : {};
		const { data, tag, problem } = await askIfChanged(
			api.GET('/api/jobs/{reference}', { params: { path: { reference: this.reference } }, headers })
		);
		if (!data) {
			if (!this.view) this.problem = problem;
			return;
		}
		if (turn < this.shown) return;
		this.shown = turn;
		this.problem = null;
		await this.take(data as JobView, tag);
	}

	/** A view that came; the drawing is fetched anew when a question was answered. */
	private async take(view: JobView, tag: string | null = null) {
		this.view = view;
		this.tag = tag;
		const answers = view.tasks
			.filter((task) => task.kind === 'answer')
			.map((task) => task.recorded?.words ?? '')
			.join('|');
		const wanted = `${view.job.id} ${answers}`;
		if (wanted === this.drawnFor) return;
		this.drawnFor = wanted;
		this.drawings = {};
		const picture = await this.draw();
		if (picture) this.picture = picture;
		else this.drawnFor = '';
	}

	private async draw(view?: string): Promise<Picture | null> {
		const params = { path: { job_id: this.id }, query: { view } };
		const { data } = await ask(api.GET('/api/jobs/{job_id}/picture', { params }));
		if (!data) return null;
		const picture = data as Picture;
		this.drawings = { ...this.drawings, [picture.view ?? '']: picture };
		return picture;
	}

	/** Another view of the same unit, where its sheet has several. */
	async look(view: string) {
		const picture = this.drawings[view] ?? (await this.draw(view));
		if (picture) this.picture = picture;
	}

	/** The drawing that a part is in; null where it is in none, or in one that has not come. */
	drawingWith(part: string): Picture | null {
		const known = this.picture ? [this.picture, ...Object.values(this.drawings)] : [];
		return known.find((picture) => picture.parts.some((drawn) => drawn.key === part)) ?? null;
	}

	/** Fetches the views that have not come yet. */
	async drawAll() {
		const missing = (this.view?.views ?? []).filter((view) => !(view.key in this.drawings));
		for (const view of missing) await this.draw(view.key);
	}

	/** Follows the job while its screen is open: others may work on it too. Returns the clean-up. */
	follow(): () => void {
		const poll = setInterval(() => void this.load(), POLL_MS);
		const unwatch = device.watch((job, became) => {
			if (job !== this.view?.job.id) return;
			this.shown = ++this.asked;
			if (became.meanwhile.length) this.meanwhile = became.meanwhile;
			void this.take({ ...this.view, ...became.state, tasks: became.tasks } as JobView);
		});
		// Whoever comes back to the screen sees at once what others did.
		const back = () => void this.load();
		window.addEventListener('focus', back);
		void this.load();
		return () => {
			window.removeEventListener('focus', back);
			clearInterval(poll);
			unwatch();
			device.leave();
		};
	}

	/** Records an entry: kept on the device first, then sent. Gives the problem when it was refused. `card`: with what else it is undone. */
	record(payload: EntryPayload, task?: string, card?: string): Promise<Problem | null> {
		const seen = this.view?.job.entry_count;
		return device.record(this.id, this.view?.job.unit ?? '', payload, { seen, task }, card);
	}

	/** Tasks whose entries wait on this device while the server cannot be reached. */
	get waiting(): Set<string> {
		if (!device.away) return new Set();
		const own = device.waiting.filter((entry) => entry.job === this.id);
		return new Set(own.flatMap((entry) => (entry.task ? [entry.task] : [])));
	}

	/** Signs an entry with a PIN: sent at once or not at all. */
	sign(payload: EntryPayload, pin: string): Promise<Problem | null> {
		return device.sign(this.id, this.view?.job.unit ?? '', payload, pin);
	}
}
