import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** Above this it is a library for drawing charts, papers or hulls in space: no place needs it to open. */
const AHEAD_BYTES = 400_000;

/** The list of all scripts and fonts of the build that the page fetches ahead: made with it, so that nothing is forgotten. */
const ahead: Plugin = {
  name: 'ahead',
  generateBundle(_options, bundle) {
    const size = (name: string) => {
      const file = bundle[name];
      const content = file?.type === 'chunk' ? file.code : (file?.source ?? '');
      return content.length;
    };
    const files = Object.keys(bundle)
      .filter((name) => /\.(js|woff2)$/.test(name) && !/(^|\/)index-[^/]*\.js$/.test(name) && size(name) < AHEAD_BYTES)
      .sort((a, b) => size(a) - size(b) || a.localeCompare(b))
      .map((name) => `/${name}`);
    this.emitFile({ type: 'asset', fileName: 'ahead.json', source: JSON.stringify(files) });
  },
};

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss(), ahead],
  // The chart and the forms' checking are large, and loaded only where they are used.
  build: {
    outDir: '../dist',
    emptyOutDir: true,
    target: 'es2022',
    manifest: true,
    chunkSizeWarningLimit: 600,
    // Every browser of these years fetches ahead by itself.
    modulePreload: { polyfill: false },
    // The first screen names all the others: without words in them their names are half as long.
    rolldownOptions: { output: { chunkFileNames: 'assets/[hash].js' } },
  },
  server: {
    host: '127.0.0.1',
    port: 4621,
    proxy: { '^/(demo/)?api/': `http://127.0.0.1:${process.env.API_PORT ?? 4620}` },
  },
});
