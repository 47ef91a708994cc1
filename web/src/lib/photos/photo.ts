/** Where a photo of a job is fetched from. */
export const sourceOf = (job: string, photo: string, small = false): string =>
	`/api/jobs/${job}/photos/${photo}.jpg${small ? '?small=true' : ''}`;

/** Where a tap lies on a photo, as shares of its width and height. */
export function shareOf(tap: { x: number; y: number }, box: DOMRect): [number, number] {
	const within = (value: number) => Math.min(1, Math.max(0, value));
	return [within((tap.x - box.left) / box.width), within((tap.y - box.top) / box.height)];
}
