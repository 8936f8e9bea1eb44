import { svelte } from '@sveltejs/vite-plugin-svelte';
import { defineConfig } from 'vitest/config';

/** The front end's own logic, without a browser. */
export default defineConfig({
    plugins: [svelte()],
    // Whoever runs tests may not write among the packages.
    cacheDir: 'storage/vite',
    resolve: { conditions: ['browser'] },
    test: { include: ['tests/front/**/*.test.ts'], environment: 'happy-dom', restoreMocks: true },
});
