import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	worker: { format: 'es' },
	server: { host: '127.0.0.1', watch: { ignored: ['**/.data/**', '**/build/**', '**/test-results/**'] } },
	build: { chunkSizeWarningLimit: 1500, reportCompressedSize: false }
});
