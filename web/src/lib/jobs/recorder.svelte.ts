import { api, ask, localProblem, type Problem, type Schemas } from '$lib/api';
import { keep, recall } from '$lib/shared';
import type { JobStore } from './job.svelte';

type Sample = Schemas['SampleRead'];
/** Readings are put into the record in portions of this length. */
const PORTION_MS = 10_000;
const OTHER_HOLD = localProblem(
	'Not recording',
	'The stand holds something else now than when this run began; was it started again? Start a new run.'
);

/** Reads the stand while the test screen is open, and records what it read in portions. */
export class StandRecorder {
	following = $state(false);
	problem = $state.raw<Problem | null>(null);
	/** Read and not recorded yet; kept on the device through a reload. */
	pending = $state.raw<Sample[]>([]);
	private hold: number | null;
	private sending = false;

	constructor(
		private readonly store: JobStore,
		private readonly run: () => Schemas['RunOut'],
		/** When the last reading that is recorded was taken; before the first, less than zero. */
		private readonly lastRecorded: () => number
	) {
		const kept = recall(this.key, { hold: 0, pending: [] as Sample[] });
		this.hold = run().hold ?? (kept.hold || null);
		this.pending = kept.pending;
	}

	private get key() {
		return `stand-${this.run().run}`;
	}

	/** Raises the pressure, shuts the valve and begins to record. */
	async begin(pressure: string) {
		const answer = await ask(api.POST('/api/stand/hold', { body: { pressure } }));
		this.problem = answer.problem;
		this.following = answer.data !== null;
	}

	/** Reads every so many seconds and records every ten. Returns the clean-up. */
	follow(everyS: number): () => void {
		this.problem = null;
		const reading = setInterval(() => void this.read(), everyS * 1000);
		const recording = setInterval(() => void this.record(), PORTION_MS);
		return () => {
			clearInterval(reading);
			clearInterval(recording);
			void this.record();
		};
	}

	/** Puts what is pending into the record; gives whether nothing is left. */
	async record(): Promise<boolean> {
		// What a reload found on the device may have been taken by the server already.
		const last = this.lastRecorded();
		this.pending = this.pending.filter((sample) => sample.t_s > last);
		if (this.sending || this.pending.length === 0) return this.pending.length === 0;
		this.sending = true;
		const portion = this.pending;
		const problem = await this.store.record({
			kind: 'test_samples',
			run: this.run().run,
			samples: portion,
			hold: this.hold
		});
		this.sending = false;
		if (problem) {
			this.problem = problem;
			this.following = false;
			return false;
		}
		this.pending = this.pending.slice(portion.length);
		this.remember();
		return true;
	}

	private async read() {
		const answer = await ask(api.GET('/api/stand/reading'));
		if (!answer.data) return this.stop(answer.problem);
		const { held_s, pressure_mpa, temperature_c, hold } = answer.data;
		if (hold === 0) return this.stop(OTHER_HOLD);
		if (this.hold === null) this.hold = hold;
		if (hold !== this.hold) return this.stop(OTHER_HOLD);
		const t_s = Math.round(held_s * 10) / 10;
		const last = this.pending.at(-1)?.t_s ?? this.lastRecorded();
		if (t_s <= last) return;
		this.pending = [...this.pending, { t_s, pressure_mpa, temperature_c }];
		this.remember();
	}

	private stop(problem: Problem) {
		this.problem = problem;
		this.following = false;
	}

	private remember() {
		keep(this.key, { hold: this.hold ?? 0, pending: this.pending });
	}
}
