/** One figure of a run as it is told, whether a job recorded it or the desk worked it out. */
export interface Told {
	key: string;
	name: string;
	shown: string;
	interval?: string | null;
	within?: string | null;
	verdict?: string | null;
}
