import { api, ask, onSignedOut, type Problem, type Schemas } from '$lib/api';

type Who = Schemas['SessionOut'];
const DOUBT_S = 120;

/** Who is signed in on this device. */
class Session {
	person = $state.raw<Who | null>(null);
	/** Whether the server was asked yet. */
	loaded = $state(false);
	/** Whether somebody was signed in since the page was opened: then work lies open beneath the sign-in. */
	known = $state(false);
	/** Whether the sign-in is asked for over the screen that is open. */
	asking = $state(false);
	problem = $state.raw<Problem | null>(null);
	/** By how many seconds this device's clock is ahead of the server's. */
	clockAheadS = $state(0);
	clockInDoubt = $derived(Math.abs(this.clockAheadS) > DOUBT_S);
	/** How often somebody was found signed in: an answer that was asked for before the last of them is no news. */
	private taken = 0;
	key = $derived(this.person?.person ?? '');

	/** Whether to offer something to the person signed in; the server asks again when it is done. */
	may(what: string): boolean {
		return this.person?.may.includes(what) ?? false;
	}

	constructor() {
		// An answer may belong to who was signed in before: the server is asked who is now.
		onSignedOut(() => void this.load());
	}

	async load() {
		const before = this.taken;
		const answer = await ask(api.GET('/api/session'));
		if (answer.data) this.take(answer.data);
		else if (answer.problem.status === 401 && this.taken === before) this.lost();
		this.problem = answer.problem?.status === 401 ? null : answer.problem;
		this.loaded = this.loaded || answer.problem?.status !== 0;
	}

	/** Signs in with a PIN or a badge; gives the problem when it was refused. */
	async signIn(body: Schemas['SignInBody']): Promise<Problem | null> {
		const answer = await ask(api.POST('/api/session', { body }));
		if (answer.data) this.take(answer.data);
		return answer.problem;
	}

	async first(body: Schemas['FirstLeadBody']): Promise<Problem | null> {
		const answer = await ask(api.POST('/api/session/first', { body }));
		if (answer.data) this.take(answer.data);
		return answer.problem;
	}

	async signOut() {
		await ask(api.DELETE('/api/session'));
		this.person = null;
		this.known = false;
		this.asking = false;
	}

	private take(who: Who) {
		this.taken += 1;
		this.person = who;
		this.loaded = true;
		this.known = true;
		this.asking = false;
		this.clockAheadS = Math.round((Date.now() - Date.parse(who.server_time)) / 1000);
	}

	private lost() {
		this.person = null;
		this.asking = this.known;
	}
}

export const session = new Session();
