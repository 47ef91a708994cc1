/** Whether a line of a list holds the words that were typed, in the order they were typed. */
export const holds = (line: string, words: string): boolean =>
	line.toLowerCase().includes(words.trim().toLowerCase());
