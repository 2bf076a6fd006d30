import { defineConfig } from 'vite';

/** The measures, built like the server: a loader that names every inner function would be measured too. */
export default defineConfig({
  build: { ssr: 'bench/run.ts', target: 'node20', outDir: 'dist-server/bench', emptyOutDir: true, minify: false },
});
