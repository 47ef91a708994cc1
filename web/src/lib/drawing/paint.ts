type Point = readonly [number, number] | number[];

/** Points in millimetres as an SVG polygon: z to the right, r upwards. */
export function polygon(points: readonly Point[]): string {
	return points.map(([z, r]) => `${z},${-(r ?? 0)}`).join(' ');
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

/** Places for the numbers above the drawing: over their stations, moved apart where they would overlap. */
export function spread(wanted: number[], gap: number): number[] {
	const order = wanted.map((_, index) => index).sort((a, b) => (wanted[a] ?? 0) - (wanted[b] ?? 0));
	const places = [...wanted];
	for (let round = 0; round < 40; round++) {
		for (let i = 1; i < order.length; i++) {
			const [left, right] = [order[i - 1] as number, order[i] as number];
			const lack = gap - ((places[right] ?? 0) - (places[left] ?? 0));
			if (lack > 1e-6) {
				places[left] = (places[left] ?? 0) - lack / 2;
				places[right] = (places[right] ?? 0) + lack / 2;
			}
		}
	}
	return places;
}
