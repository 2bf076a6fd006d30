import tailwindcss from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: 'web',
  plugins: [react(), tailwindcss()],
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
