import { sveltekit } from '@sveltejs/kit/vite';
import tailwindcss from '@tailwindcss/vite';
import { defineConfig } from 'vite';

/**
 * The reader of formulas makes errors as it begins. For each the browser looks up where in its file it was made, and
 * reads that file once more: it stands in one of its own, which is small.
 */
const apart = {
	output: { codeSplitting: { groups: [{ name: 'formulas', test: /node_modules.(mathjs|typed-function)/ }] } }
};

export default defineConfig({
	plugins: [tailwindcss(), sveltekit()],
	worker: { format: 'es', rolldownOptions: apart },
	server: { host: '127.0.0.1', watch: { ignored: ['**/.data/**', '**/build/**', '**/test-results/**'] } },
	build: { rolldownOptions: apart, chunkSizeWarningLimit: 1500, reportCompressedSize: false }
});
