import { svelte } from '@sveltejs/vite-plugin-svelte';
import tailwindcss from '@tailwindcss/vite';
import laravel from 'laravel-vite-plugin';
import { defineConfig } from 'vite';

export default defineConfig({
    plugins: [
        tailwindcss(),
        svelte(),
        laravel({
            input: ['resources/css/app.css', 'resources/js/app.ts', 'resources/js/draw.ts'],
            refresh: false,
        }),
    ],
    build: { chunkSizeWarningLimit: 1500 },
});
