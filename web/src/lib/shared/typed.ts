/**
 * Asks after a short pause in typing and drops an answer that later typing has overtaken.
 * Made for an `$effect`: gives its clean-up.
 */
export function asTyped<T>(call: () => Promise<T>, take: (answer: T) => void, pause = 100): () => void {
	let current = true;
	const wait = setTimeout(async () => {
		const answer = await call();
		if (current) take(answer);
	}, pause);
	return () => {
		current = false;
		clearTimeout(wait);
	};
}
