import { api, ask, type Problem, type Schemas } from '$lib/api';
import { asTyped, keep, recall } from '$lib/shared';
import { WAYS } from './readings';
import { emptyRing, isTyped, readingOf, withFurther } from './typed';
import type { FurtherRead } from './types';

/** A task of a job. */
export interface TaskPath {
	job_id: string;
	task: string;
}

/** What is being typed about a ring, and the latest answer to it; kept under a name on this device. */
export class RingFinder {
	#typed = $state(emptyRing());
	#keptAs: string;
	answer = $state.raw<Schemas['RingMatchOut'] | null>(null);
	problem = $state.raw<Problem | null>(null);
	/** The answer belongs to an earlier reading: what stands in the fields now was refused, or is being asked. */
	stale = $state(false);

	constructor(
		keptAs: string,
		private readonly at: TaskPath | null = null
	) {
		this.#keptAs = `kettle-ring-${keptAs}`;
		this.#typed = recall(this.#keptAs, emptyRing());
	}

	/** The fields as typed, to bind to. */
	get typed() {
		return this.#typed;
	}

	way = $derived(WAYS.find((way) => way.key === this.#typed.across) ?? WAYS[0]);
	complete = $derived(isTyped(this.#typed));
	reading = $derived(readingOf(this.#typed));

	save() {
		keep(this.#keptAs, this.#typed);
	}

	/** Asks for this body; an answer overtaken by later typing is dropped. Gives the clean-up. */
	ask(body: Schemas['RingMatchBody']): () => void {
		this.stale = true;
		return asTyped(
			() => this.#match(body),
			(result) => {
				this.answer = result.data ?? (result.problem?.status === 422 ? null : this.answer);
				this.stale = result.data === null;
				this.problem = result.problem;
			},
			60
		);
	}

	#match(body: Schemas['RingMatchBody']) {
		if (!this.at) return ask(api.POST('/api/rings/match', { body }));
		const { groove: _, ...read } = body;
		const params = { path: this.at };
		return ask(api.POST('/api/jobs/{job_id}/tasks/{task}/match', { params, body: read }));
	}

	add(what: FurtherRead, value: string) {
		this.#typed.further = withFurther(this.#typed, what, value);
	}

	remove(what: FurtherRead) {
		this.#typed.further = this.#typed.further.filter((reading) => reading.what !== what);
	}

	/** Back to an empty bench for the next ring; how it is read stays as it was. */
	clear() {
		const { condition, across, unit } = this.#typed;
		this.#typed = { ...emptyRing(), condition, across, unit };
		this.answer = null;
		this.problem = null;
	}
}
