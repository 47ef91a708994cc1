import type { JobView, Schemas } from '$lib/api';

export type Scene = Schemas['Scene'];
export type ElementShape = Schemas['ElementShape'];
type Point = readonly [number, number] | number[];

/** Which picture of the unit is wanted: as it came apart, or as it goes together. */
export type Mode = 'found' | 'built';
export type Status = 'unknown' | 'there' | 'missing' | 'reversed' | 'to-fit' | 'fitted';

/** Points in millimetres as an SVG polygon: z to the right, r upwards. */
export function polygon(points: readonly Point[]): string {
	return points.map(([z, r]) => `${z},${-(r ?? 0)}`).join(' ');
}

/** How an element stands in the picture wanted. */
export function statusOf(element: ElementShape, view: JobView | null, mode: Mode): Status {
	if (mode === 'built') return view?.fitted[element.key] ? 'fitted' : 'to-fit';
	const found = view?.found[element.key]?.value;
	if (!found) return 'unknown';
	if (!found.present) return 'missing';
	return found.faced && element.faces && found.faced !== element.faces ? 'reversed' : 'there';
}

/** The zone an element faces in the picture: as found where that was recorded, else as it must. */
export function outlineOf(element: ElementShape, view: JobView | null, mode: Mode): readonly Point[] {
	const faced =
		mode === 'found' ? view?.found[element.key]?.value.faced : view?.fitted[element.key]?.value.faces;
	const outline = element.outlines[faced ?? element.faces ?? '-'] ?? Object.values(element.outlines)[0];
	return (outline ?? []) as readonly Point[];
}

export interface Frame {
	x: number;
	y: number;
	width: number;
	height: number;
}

/** The part of the drawing shown: the whole unit, or one station with its surroundings. */
export function frameOf(scene: Scene, station: string | null, zoom: boolean): Frame {
	const [start, end, radius] = scene.extent as [number, number, number];
	const width0 = end - start + 10;
	const line = letterOf(width0);
	const whole = { x: start - 5, y: -radius - 3 * line, width: width0, height: 2 * radius + 4.6 * line };
	const at = scene.stations.find((one) => one.key === station);
	if (!zoom || !at) return whole;
	const [z0, r0, z1, r1] = at.box as [number, number, number, number];
	const width = Math.max((z1 - z0) * 3.2, (r1 - r0) * 9, 34);
	const height = (width * whole.height) / whole.width;
	const middle = (r0 + r1) / 2;
	return { x: (z0 + z1) / 2 - width / 2, y: -middle - height / 2, width, height };
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

export const STATUS_WORDS: Record<Status, string> = {
	unknown: 'not looked at yet',
	there: 'as found',
	missing: 'missing',
	reversed: 'reversed',
	'to-fit': 'still to fit',
	fitted: 'fitted'
};
