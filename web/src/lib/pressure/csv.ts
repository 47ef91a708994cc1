/** Bytes of a file that are read and sent at a time; whole lines. */
export const PART_BYTES = 2_000_000;
/** Readings a run takes from a file at most; of a longer one it takes means. */
export const MOST_READINGS = 150_000;

/** How many rows of a file are taken together, from its size and its first part. */
export function together(bytes: number, firstBytes: number, firstRows: number): number {
	if (firstBytes <= 0 || firstRows <= 0) return 1;
	return Math.max(1, Math.ceil(((bytes / firstBytes) * firstRows) / MOST_READINGS));
}

/** A text cut behind its last whole line: what is whole, and what is left for the part that follows. */
export function wholeLines(text: string): [string, string] {
	const at = text.lastIndexOf('\n');
	return at < 0 ? ['', text] : [text.slice(0, at + 1), text.slice(at + 1)];
}

/** The parts of a file in whole lines, with how many bytes were read so far; never more than one part in memory. */
export async function* partsOf(file: Blob, bytes = PART_BYTES): AsyncGenerator<[string, number]> {
	const decoder = new TextDecoder();
	let left = '';
	for (let at = 0; at < file.size; at += bytes) {
		const piece = await file.slice(at, at + bytes).arrayBuffer();
		const end = Math.min(at + bytes, file.size);
		const [whole, rest] = wholeLines(left + decoder.decode(piece, { stream: end < file.size }));
		left = rest;
		if (whole) yield [whole, end];
	}
	if (left.trim()) yield [left, file.size];
}
