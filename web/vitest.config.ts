import { defineConfig } from 'vitest/config';

// The helpers under test are plain TypeScript: no Svelte, no browser. None changes what another reads: one worker does for all.
export default defineConfig({
	test: { include: ['src/**/*.test.ts'], environment: 'node', isolate: false }
});
