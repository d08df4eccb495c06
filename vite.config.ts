import { availableParallelism } from 'node:os';
import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';
import { handbook } from './scripts/handbook.mjs';

export default defineConfig({
  plugins: [handbook(), tailwindcss(), sveltekit()],
  worker: { format: 'es' },
  build: {
    assetsInlineLimit: 0,
    rolldownOptions: {
      treeshake: {
        // They do not say so, but their parts have no effects of their own: only those used are shipped.
        moduleSideEffects: [
          {
            test: /node_modules\/(flowbite-svelte|date-fns|rrule-temporal|temporal-polyfill)\//,
            sideEffects: false
          }
        ]
      }
    }
  },
  test: {
    include: ['src/**/*.test.ts', 'tests/unit/**/*.test.ts'],
    environment: 'node',
    // Nothing but a test that never ends: the machine may be slow, and busy with other things.
    testTimeout: process.env['LAWS'] === 'all' ? 6_000_000 : 600_000,
    // Tests share what is read and made once; none of them may hang on what another left behind.
    isolate: false,
    // One more than there are cores, since some wait for what they have asked.
    maxWorkers: availableParallelism() + 1
  }
});
