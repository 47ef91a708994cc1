import { getContext, setContext, type Snippet } from 'svelte';

const PLACE = Symbol('the place of the drawing');

/** The place of the drawing on the screen: a task shows there what is worked at, in its stead. */
export class DrawingPlace {
	shows = $state.raw<Snippet | null>(null);

	/** Shows something in it. Returns the clean-up. */
	show(snippet: Snippet): () => void {
		this.shows = snippet;
		return () => {
			if (this.shows === snippet) this.shows = null;
		};
	}
}

export const provideDrawingPlace = (): DrawingPlace => setContext(PLACE, new DrawingPlace());
export const drawingPlace = (): DrawingPlace => getContext(PLACE);
