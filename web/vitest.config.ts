import { defineConfig } from 'vitest/config';

// The helpers under test are plain TypeScript: no Svelte, no browser.
export default defineConfig({ test: { include: ['src/**/*.test.ts'], environment: 'node' } });
