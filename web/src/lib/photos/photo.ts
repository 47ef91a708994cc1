import type { Schemas } from '$lib/api';

export type Arrow = Schemas['ArrowOut'];
export type Circle = Schemas['CircleOut'];
/** A photo and the job it belongs to. */
export type Shown = Omit<Schemas['EarlierPhotoOut'], 'number'> & {
	/** The number of an earlier repair; of this one where there is none. */
	number?: number;
};

/** Where a photo of a job is fetched from. */
export const sourceOf = (job: string, photo: string, small = false): string =>
	`/api/jobs/${job}/photos/${photo}.jpg${small ? '?small=true' : ''}`;

type Place = [number, number];

/** Where a tap lies on a photo, as shares of its width and height. */
export function shareOf(tap: { x: number; y: number }, box: DOMRect): Place {
	const within = (value: number) => Math.min(1, Math.max(0, value));
	return [within((tap.x - box.left) / box.width), within((tap.y - box.top) / box.height)];
}

/** The radius of a circle from its centre to a place on it, as a share of the photo's width. */
export const radiusOf = (centre: Place, rim: Place, box: { width: number; height: number }): number =>
	Math.min(1, Math.hypot(rim[0] - centre[0], ((rim[1] - centre[1]) * box.height) / box.width));

/** What is compared with a photo: those of the same place, the other side of the work first, then the last repairs. */
export function comparable(photo: Shown, own: Shown[], earlier: Shown[]): Shown[] {
	const others = own.filter((other) => other.id !== photo.id && other.about === photo.about);
	const rank = (other: Shown) => (other.time !== photo.time && other.time && photo.time ? 0 : 1);
	return [
		...others.toSorted((other, two) => rank(other) - rank(two)),
		...earlier.filter((other) => other.about === photo.about)
	];
}
