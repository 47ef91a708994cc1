import { openDB, type IDBPDatabase } from 'idb';
import { keepText, recallText } from '../shared/keep';
import type { Box, Waiting } from './types';

const STORE = 'waiting';
const ASIDE = 'set-aside';
/** Where versions before this one kept their entries. */
const FORMER_KEY = 'kettle-outbox';
/** A database that cannot be opened is left as it is, and the next name taken. */
const NAMES = ['kettle-outbox', 'kettle-outbox-2', 'kettle-outbox-3'];

/** True for what reads as an entry. */
export function isEntry(value: unknown): value is Waiting {
	if (value === null || typeof value !== 'object') return false;
	const entry = value as Record<string, unknown>;
	const payload = entry.payload as Record<string, unknown> | null | undefined;
	return (
		['id', 'job', 'who', 'bench_time'].every((name) => typeof entry[name] === 'string') &&
		typeof payload === 'object' &&
		typeof payload?.kind === 'string'
	);
}

/** The entries in a text that a former version kept; what is no entry is left out. */
export function formerEntries(text: string | null): Waiting[] {
	if (text === null) return [];
	const list: unknown = JSON.parse(text);
	if (!Array.isArray(list)) return [];
	return list.filter(isEntry).map((entry, order) => ({
		...entry,
		order,
		unit: entry.unit ?? '',
		whoName: entry.whoName ?? entry.who
	}));
}

/** An entry that an earlier version kept: what is a task was called a move. */
export function underNewNames(entry: Waiting & { move?: string }): Waiting {
	const { move, ...kept } = entry;
	return move && !kept.task ? { ...kept, task: move } : kept;
}

class DatabaseBox implements Box {
	constructor(private readonly database: IDBPDatabase) {}

	async all() {
		const found: Waiting[] = [];
		const keys = await this.database.getAllKeys(STORE);
		for (const key of keys) {
			const value: unknown = await this.database.get(STORE, key);
			if (isEntry(value)) found.push(underNewNames(value));
			else await this.setAside(key, value);
		}
		return found;
	}

	async put(entry: Waiting) {
		await this.database.put(STORE, entry);
	}

	async remove(id: string) {
		await this.database.delete(STORE, id);
	}

	private async setAside(key: IDBValidKey, value: unknown) {
		const change = this.database.transaction([STORE, ASIDE], 'readwrite');
		await change.objectStore(ASIDE).put({ value }, key);
		await change.objectStore(STORE).delete(key);
		await change.done;
	}
}

/** The box of this device. Rejects when it keeps nothing (switched off, broken, full). */
export async function openBox(): Promise<Box> {
	let problem: unknown;
	for (const name of NAMES) {
		try {
			const database = await openDB(name, 1, {
				upgrade(fresh) {
					fresh.createObjectStore(STORE, { keyPath: 'id' });
					fresh.createObjectStore(ASIDE);
				}
			});
			const box = new DatabaseBox(database);
			await box.all();
			await takeOver(box);
			// Ask the browser not to clear it away when the disk runs short; a no changes nothing.
			void navigator.storage?.persist?.();
			return box;
		} catch (error) {
			problem = error;
		}
	}
	throw problem;
}

/** Entries of a version that kept them elsewhere move in; a text that cannot be read is set aside. */
async function takeOver(box: Box) {
	const text = recallText(FORMER_KEY);
	if (text === null) return;
	const entries = readFormer(text);
	if (entries) for (const entry of entries) await box.put(entry);
	else {
		const aside = `${FORMER_KEY}-set-aside-${Date.now()}`;
		keepText(aside, text);
		if (recallText(aside) !== text) return;
	}
	localStorage.removeItem(FORMER_KEY);
}

function readFormer(text: string): Waiting[] | null {
	try {
		return formerEntries(text);
	} catch {
		return null;
	}
}
