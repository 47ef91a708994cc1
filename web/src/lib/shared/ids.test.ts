import { expect, it, vi } from 'vitest';
import { newId } from './ids';

it('makes ids of the fourth version, each another one', () => {
	const ids = Array.from({ length: 1000 }, newId);
	for (const id of ids)
		expect(id).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-4[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
	expect(new Set(ids).size).toBe(1000);
});

it('does without randomUUID, which pages on another host name lack', () => {
	vi.stubGlobal('crypto', { getRandomValues: (bytes: Uint8Array) => bytes.fill(255) });
	expect(newId()).toBe('ffffffff-ffff-4fff-bfff-ffffffffffff');
	vi.unstubAllGlobals();
});
