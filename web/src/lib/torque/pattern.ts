export type Layout = 'single' | 'circle' | 'rectangle' | 'flange';

/** Where each fastener sits on the drawing, 1 first, in a box of 200 by 120. */
export function places(layout: Layout, count: number): { x: number; y: number }[] {
	if (layout === 'single' || count === 1) {
		return Array.from({ length: count }, (_, i) => ({ x: (200 * (i + 1)) / (count + 1), y: 60 }));
	}
	if (layout === 'flange') {
		const columns = Math.ceil(count / 2);
		return Array.from({ length: count }, (_, i) => ({
			x: (200 * (Math.floor(i / 2) + 1)) / (columns + 1),
			y: i % 2 === 0 ? 90 : 30
		}));
	}
	return Array.from({ length: count }, (_, i) => {
		// The first of a circle stands at the top; a rectangle begins at its upper left corner.
		const turn = (2 * Math.PI * i) / count - Math.PI / 2 - (layout === 'rectangle' ? Math.PI / count : 0);
		if (layout === 'circle') return { x: 100 + 46 * Math.cos(turn), y: 60 + 46 * Math.sin(turn) };
		const reach = 1 / Math.max(Math.abs(Math.cos(turn)), Math.abs(Math.sin(turn)));
		return { x: 100 + 62 * reach * Math.cos(turn), y: 60 + 42 * reach * Math.sin(turn) };
	});
}
