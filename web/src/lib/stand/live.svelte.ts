import { api, ask, type Problem, type Schemas } from '$lib/api';

type Live = Schemas['LiveOut'];
export interface TracePoint {
	t_s: number;
	pressure_mpa: number;
}
/** Where the pump is started. */
export const STAND_CAUTION = 'Guard down, nobody in line with rod or ports. The pump starts at once.';

/** The server begins to record a run from the stand, and raises the pressure first where that is wanted. */
export async function record(job: string, run: string, raiseFirst: boolean): Promise<Problem | null> {
	const body = { job, run, raise_first: raiseFirst };
	return (await ask(api.POST('/api/stand/recordings', { body }))).problem;
}

const AGAIN_MS = 2000;
/** So many points a screen holds; then it asks for the whole trace anew, thinned. */
const MOST_POINTS = 6000;
const RECENT_S = 120;

/** Follows the test stand as the server tells it; the server records, whoever watches. */
export class LiveStand {
	now = $state.raw<Live | null>(null);
	/** Whether the server stopped telling. */
	lost = $state(false);
	points = $state.raw<TracePoint[]>([]);
	/** What the judged channel showed in the last minutes, by the server's clock. */
	recent = $state.raw<TracePoint[]>([]);
	private source: EventSource | null = null;
	private timer = 0;

	/** The recording of a run, while it is the one the stand makes or made last. */
	recordingOf(run: string): Schemas['RecordingOut'] | null {
		const recording = this.now?.recording ?? null;
		return recording?.run === run ? recording : null;
	}

	/** Begins to follow. Returns the clean-up. */
	follow(): () => void {
		this.open();
		return () => {
			clearTimeout(this.timer);
			this.source?.close();
		};
	}

	private open() {
		this.source?.close();
		const source = new EventSource('/api/stand/live');
		this.source = source;
		source.onmessage = (event) => this.take(JSON.parse(event.data as string) as Live);
		source.onerror = () => {
			this.lost = true;
			if (source.readyState === EventSource.CLOSED)
				this.timer = window.setTimeout(() => this.open(), AGAIN_MS);
		};
	}

	private take(now: Live) {
		this.lost = false;
		const fresh = now.points.map(([t_s, pressure_mpa]) => ({ t_s, pressure_mpa }));
		this.points = now.fresh ? fresh : fresh.length ? [...this.points, ...fresh] : this.points;
		const shown = now.reading?.pressure_mpa;
		if (shown !== undefined && shown !== null) {
			const since = now.read_at - RECENT_S;
			const kept = this.recent.filter((sample) => sample.t_s >= since && sample.t_s < now.read_at);
			this.recent = [...kept, { t_s: now.read_at, pressure_mpa: shown }];
		}
		this.now = now;
		if (this.points.length > MOST_POINTS) this.open();
	}
}
