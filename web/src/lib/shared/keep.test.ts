import { beforeEach, expect, it, vi } from 'vitest';
import { keep, recall } from './keep';

const store = new Map<string, string>();
beforeEach(() => {
	store.clear();
	vi.stubGlobal('localStorage', {
		getItem: (key: string) => store.get(key) ?? null,
		setItem: (key: string, value: string) => store.set(key, value)
	});
});

const empty = { diameter: '', further: [] as string[], backups: 0 };

it('gives back what was kept', () => {
	keep('ring', { diameter: '44.1 mm', further: ['section 3.5 mm'], backups: 1 });
	expect(recall('ring', empty)).toEqual({ diameter: '44.1 mm', further: ['section 3.5 mm'], backups: 1 });
});

it('is empty when nothing, nonsense or another shape was kept', () => {
	expect(recall('ring', empty)).toEqual(empty);
	store.set('ring', '{broken');
	expect(recall('ring', empty)).toEqual(empty);
	store.set('ring', '{"diameter": 7, "colour": "red", "backups": 2}');
	expect(recall('ring', empty)).toEqual({ ...empty, backups: 2 });
});

it('goes on when the device keeps nothing', () => {
	vi.stubGlobal('localStorage', {
		setItem: () => {
			throw new Error('full');
		}
	});
	expect(() => keep('ring', empty)).not.toThrow();
});
