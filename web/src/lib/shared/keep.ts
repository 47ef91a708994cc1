/**
 * What was being typed, kept on this device over an interruption, a reload or a pulled plug.
 * Fields the stored text lacks keep their empty value, so an older one never breaks a newer screen.
 */
export function recall<T extends object>(key: string, empty: T): T {
	try {
		const stored: unknown = JSON.parse(localStorage.getItem(key) ?? 'null');
		if (stored === null || typeof stored !== 'object') return empty;
		const known = Object.entries(stored).filter(
			([name, value]) => name in empty && typeof value === typeof empty[name as keyof T]
		);
		return { ...empty, ...Object.fromEntries(known) };
	} catch {
		return empty;
	}
}

/** Keeps a value; a device that keeps nothing is no reason to stop. */
export function keep(key: string, value: object): void {
	try {
		localStorage.setItem(key, JSON.stringify(value));
	} catch {
		// Storage full or switched off: the screen goes on, only the interruption is not covered.
	}
}
