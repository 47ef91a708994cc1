import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import { asTyped } from './typed';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

it('asks once typing has paused', async () => {
	const take = vi.fn();
	asTyped(async () => 'answer', take);
	await vi.advanceTimersByTimeAsync(99);
	expect(take).not.toHaveBeenCalled();
	await vi.advanceTimersByTimeAsync(1);
	expect(take).toHaveBeenCalledWith('answer');
});

it('never asks for what was typed over, and drops an answer that comes too late', async () => {
	const call = vi.fn(async () => 'early');
	const take = vi.fn();
	asTyped(call, take)();
	await vi.advanceTimersByTimeAsync(200);
	expect(call).not.toHaveBeenCalled();

	let answer = (_text: string) => {};
	const stop = asTyped(() => new Promise<string>((done) => (answer = done)), take);
	await vi.advanceTimersByTimeAsync(100);
	stop();
	answer('late');
	await vi.advanceTimersByTimeAsync(0);
	expect(take).not.toHaveBeenCalled();
});
