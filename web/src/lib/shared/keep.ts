/** A text kept on this device; null when there is none, or when the device keeps nothing. */
export function recallText(key: string): string | null {
	try {
		return localStorage.getItem(key);
	} catch {
		return null;
	}
}

/** Keeps a text; a device that keeps nothing (full, switched off) is no reason to stop. */
export function keepText(key: string, text: string): void {
	try {
		localStorage.setItem(key, text);
	} catch {
		// The screen goes on, only the interruption is not covered.
	}
}

/**
 * What was being typed, kept on this device over an interruption, a reload or a pulled plug.
 * Fields the stored text lacks keep their empty value, so an older one never breaks a newer screen.
 */
export function recall<T extends object>(key: string, empty: T): T {
	try {
		const stored: unknown = JSON.parse(recallText(key) ?? 'null');
		if (stored === null || typeof stored !== 'object') return empty;
		const known = Object.entries(stored).filter(
			([name, value]) => name in empty && typeof value === typeof empty[name as keyof T]
		);
		return { ...empty, ...Object.fromEntries(known) };
	} catch {
		return empty;
	}
}

/** Keeps a value. */
export function keep(key: string, value: object): void {
	keepText(key, JSON.stringify(value));
}
