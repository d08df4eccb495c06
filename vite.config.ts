import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [tailwindcss(), sveltekit()],
  worker: { format: 'es' },
  build: {
    assetsInlineLimit: 0,
    rolldownOptions: {
      treeshake: {
        // The component library does not say so, but its parts have no effects of their own: only those used are shipped.
        moduleSideEffects: [{ test: /node_modules\/(flowbite-svelte|date-fns)\//, sideEffects: false }]
      }
    }
  },
  test: {
    include: ['src/**/*.test.ts', 'tests/unit/**/*.test.ts'],
    environment: 'node',
    testTimeout: 60_000,
    // One would stay free for whoever watches; here nobody does.
    maxWorkers: '100%'
  }
});
