type Point = readonly [number, number] | number[];

/** Points in millimetres as an SVG polygon: z to the right, r upwards. */
export function polygon(points: readonly Point[]): string {
	return points.map(([z, r]) => `${z},${-(r ?? 0)}`).join(' ');
}

/** The corners of a box, from its two ends. */
export function cornersOf([z0 = 0, r0 = 0, z1 = 0, r1 = 0]: readonly number[]): number[][] {
	return [
		[z0, r0],
		[z1, r0],
		[z1, r1],
		[z0, r1]
	];
}

export interface Frame {
	x: number;
	y: number;
	width: number;
	height: number;
}

/** Height of the lettering in a frame of this width. [mm] */
export function letterOf(width: number): number {
	return width / 58;
}

/** The middle of a text so that all of it lies within the frame; letters are about 0.55 of their height wide. */
export function textMiddle(z: number, words: string, letter: number, frame: Frame): number {
	const half = Math.min(words.length * letter * 0.275, frame.width / 2);
	return Math.min(Math.max(z, frame.x + half), frame.x + frame.width - half);
}

/** Places for the numbers above the drawing: over their stations, moved apart where they would overlap, within its edges. */
export function spread(wanted: number[], gap: number, low = -Infinity, high = Infinity): number[] {
	const order = wanted.map((_, index) => index).sort((a, b) => (wanted[a] ?? 0) - (wanted[b] ?? 0));
	const places = wanted.map((place) => Math.min(Math.max(place, low), high));
	for (let round = 0; round < 40; round++) {
		for (let i = 1; i < order.length; i++) {
			const [left, right] = [order[i - 1] as number, order[i] as number];
			const lack = gap - ((places[right] ?? 0) - (places[left] ?? 0));
			if (lack > 1e-6) {
				// At an edge the other one makes all the way.
				const room = Math.max((places[left] ?? 0) - low, 0);
				const back = Math.min(Math.max(lack / 2, (places[right] ?? 0) + lack - high), room, lack);
				places[left] = (places[left] ?? 0) - back;
				places[right] = (places[right] ?? 0) + lack - back;
			}
		}
	}
	return places;
}
