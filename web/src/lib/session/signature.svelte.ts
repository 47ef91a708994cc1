import type { Problem } from '$lib/api';

const OF_THE_PIN = ['/problems/wrong-pin', '/problems/wait'];

/** What is signed with a PIN, and what came of it. */
export class Signature {
	problem = $state.raw<Problem | null>(null);
	busy = $state(false);

	constructor(
		private readonly sign: (pin: string) => Promise<Problem | null>,
		private readonly onSigned: () => void
	) {}

	private get ofPin(): boolean {
		return this.problem !== null && OF_THE_PIN.includes(this.problem.type);
	}

	/** What is wrong with the PIN, said at its field. */
	get fault(): string | null {
		return this.ofPin ? (this.problem?.detail ?? null) : null;
	}

	/** What else stands against it. */
	get refused(): Problem | null {
		return this.ofPin ? null : this.problem;
	}

	async give(pin: string): Promise<void> {
		if (this.busy) return;
		this.busy = true;
		this.problem = await this.sign(pin);
		this.busy = false;
		if (!this.problem) this.onSigned();
	}
}
