/** Which drawing stands for words such as “scratch” or “rust or pits”: the first that the words begin with. */
const WORDS: [string, string][] = [
	['none', 'sound'],
	['pinhole', 'pinhole'],
	['pit', 'pit'],
	['scratch', 'score'],
	['scor', 'score'],
	['crack', 'crack'],
	['rust', 'rust'],
	['scale', 'rust'],
	['burr', 'burr'],
	['nick', 'burr'],
	['chip', 'burr'],
	['dent', 'dent'],
	['mark', 'dent'],
	['worn', 'worn'],
	['wear', 'worn'],
	['bent', 'bent'],
	['bend', 'bent'],
	['fold', 'fold'],
	['torn', 'torn'],
	['tear', 'torn'],
	['gunk', 'gunk'],
	['dirt', 'gunk'],
	['water', 'water']
];

/** The fault that words name, by the earliest word in them that has a drawing; nothing where none has. */
export function faultOf(words: string): string | null {
	const plain = words.toLowerCase().split(/[^a-z]+/);
	for (const word of plain) {
		const found = WORDS.find(([start]) => word.startsWith(start));
		if (found) return found[1];
	}
	return null;
}
