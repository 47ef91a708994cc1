import type { Schemas } from '$lib/api';
import { letterOf, type Frame } from './paint';

export type Picture = Schemas['Picture'];
export type Dimension = Schemas['DrawnDimension'];
type Ring = readonly (readonly [number, number])[] | readonly number[][];

/** A shape with its holes as one SVG path: z to the right, r upwards. */
export function pathOf(shape: { outer: unknown; holes: unknown }): string {
	const rings = [shape.outer, ...(shape.holes as unknown[])] as Ring[];
	return rings.map((ring) => `M ${ring.map(([z, r]) => `${z},${-(r ?? 0)}`).join(' L ')} Z`).join(' ');
}

/** A picture with one of several alike that are drawn in one place: the one named, else the first. */
export function ofPosition(picture: Picture, named: string | null): Picture {
	const first = [...picture.stations, ...picture.parts].find((drawn) => drawn.position)?.position ?? null;
	if (first === null) return picture;
	const shown = named ?? first;
	const stations = picture.stations.filter((station) => !station.position || station.position === shown);
	const keys = new Set(stations.map((station) => station.key));
	return {
		...picture,
		stations,
		parts: picture.parts.filter((part) => !part.position || part.position === shown),
		elements: picture.elements.filter((element) => keys.has(element.station))
	};
}

/** The share of a large picture that the figures of its diameters take. */
const FIGURES = 0.32;

type Box = readonly [number, number, number, number] | readonly number[];

/** The share of the unit that is shown around a part. */
export const AMONG_OTHERS = 0.6;

/** The box around a part, above the axis where it is mirrored; none for a part that is not drawn. */
export function partBox(picture: Picture, part: string | null): { box: Box } | null {
	const shapes = picture.parts.find((listed) => listed.key === part)?.shapes ?? [];
	const points = shapes.flatMap((shape) => shape.outer as unknown as number[][]);
	if (!points.length) return null;
	const z = points.map(([along]) => along ?? 0);
	const r = points.map(([, off]) => off ?? 0);
	return { box: [Math.min(...z), Math.min(...r), Math.max(...z), Math.max(...r)] };
}

/** Whether a part is shown larger than it stands in the whole unit. */
export function isCloser(picture: Picture, part: string | null): boolean {
	const box = partBox(picture, part);
	return box !== null && pictureFrame(picture, box, AMONG_OTHERS).width < pictureFrame(picture, null).width;
}

/**
 * The part of the picture shown: the whole unit, or a station as large as it goes with its name and figures beside it;
 * `least`: no less than this share of the unit, so that a part is seen among its neighbours.
 */
export function pictureFrame(picture: Picture, station: { box: Box } | null, least = 0): Frame {
	const [z0, r0, z1, r1] = picture.extent as [number, number, number, number];
	const width = z1 - z0 + 12;
	const line = letterOf(width);
	const low = Math.min(r0, 0) < 0 ? r0 : -r1;
	const whole = { x: z0 - 6, y: -r1 - 6.4 * line, width, height: r1 - low + 8.2 * line };
	if (!station) return whole;
	const [a, b, c, d] = station.box as [number, number, number, number];
	const wide = Math.max((c - a) * 1.9, (d - b) * 4.2, 12, least * width);
	// What is as large as the unit is shown with the whole of it.
	if (wide >= width) return whole;
	const high = (wide * 9) / 16;
	// To the left there is room for the figures of the diameters: they never lie on an element.
	const x = Math.min((a + c) / 2 - wide / 2, a - FIGURES * wide);
	return { x, y: -(b + d) / 2 - high / 2, width: wide, height: high };
}
