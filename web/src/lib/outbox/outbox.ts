import type { Problem } from '$lib/api';
import type { Answer, Box, Send, Waiting } from './types';

const FIRST_PAUSE_MS = 5_000;
const LONGEST_PAUSE_MS = 300_000;

/**
 * Entries go to the device first and are sent in order. One leaves only when the server took it, or when a person
 * decided about a refusal. Its id makes sending it twice harmless, so that two tabs may share a box. Sending does
 * not depend on the device keeping anything: then entries are held in this page alone, and `keeps` says so.
 */
export class Outbox {
	keeps = true;
	private entries: Waiting[] = [];
	private readonly stored = new Set<string>();
	private readonly box: Promise<Box | null>;
	private turn: Promise<unknown> = Promise.resolve();

	constructor(
		open: () => Promise<Box>,
		private readonly send: Send,
		private readonly changed: () => void,
		private readonly now: () => number = Date.now
	) {
		this.box = open().catch(() => {
			this.keeps = false;
			this.changed();
			return null;
		});
	}

	all(): Waiting[] {
		return [...this.entries].sort((a, b) => a.order - b.order);
	}

	/** Reads what the device holds; another tab may have changed it. */
	async load() {
		const box = await this.box;
		if (!box) return;
		try {
			const found = await box.all();
			const here = new Set(found.map((entry) => entry.id));
			const unsaved = this.entries.filter((entry) => !this.stored.has(entry.id) && !here.has(entry.id));
			this.entries = [...found, ...unsaved];
			for (const entry of found) this.stored.add(entry.id);
		} catch {
			this.keeps = false;
		}
		this.changed();
	}

	async add(entry: Waiting) {
		this.entries = [...this.entries.filter((other) => other.id !== entry.id), entry];
		await this.keep(entry);
	}

	async remove(id: string) {
		this.entries = this.entries.filter((entry) => entry.id !== id);
		this.changed();
		try {
			await (await this.box)?.remove(id);
		} catch {
			// It comes back with the next load and is sent again, which changes nothing on the server.
			this.keeps = false;
			this.changed();
		}
	}

	/**
	 * Sends what waits of this person, oldest first, one caller at a time. Gives the problem when nothing can be
	 * sent just now. An entry the server fails at is kept, tried later, and does not hold up the others.
	 */
	flush(who: string, onAnswer: (entry: Waiting, answer: Answer) => void): Promise<Problem | null> {
		const run = this.turn.then(() => this.drain(who, onAnswer));
		this.turn = run.catch(() => undefined);
		return run;
	}

	private async drain(
		who: string,
		onAnswer: (entry: Waiting, answer: Answer) => void
	): Promise<Problem | null> {
		await this.load();
		const ready = this.all().filter(
			(entry) => entry.who === who && !entry.refused && (entry.pausedUntil ?? 0) <= this.now()
		);
		for (const entry of ready) {
			const answer = await this.send(entry);
			if (answer.kind === 'away') return answer.problem;
			if (answer.kind === 'signed_out') return null;
			if (answer.kind === 'taken') {
				// Told first: at no moment does a screen see neither the entry waiting nor what came of it.
				onAnswer(entry, answer);
				await this.remove(entry.id);
				continue;
			}
			if (answer.kind === 'refused') await this.add({ ...entry, refused: answer.problem });
			else await this.add(paused(entry, answer.problem, this.now()));
			onAnswer(entry, answer);
		}
		return null;
	}

	private async keep(entry: Waiting) {
		this.changed();
		const box = await this.box;
		if (!box) return;
		try {
			await box.put(entry);
			this.stored.add(entry.id);
			this.keeps = true;
		} catch {
			this.keeps = false;
		}
		this.changed();
	}
}

function paused(entry: Waiting, fault: Problem, now: number): Waiting {
	const tries = (entry.tries ?? 0) + 1;
	const pause = Math.min(FIRST_PAUSE_MS * 2 ** (tries - 1), LONGEST_PAUSE_MS);
	return { ...entry, fault, tries, pausedUntil: now + pause };
}
