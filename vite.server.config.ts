import { defineConfig } from 'vite';

/** The server in one file, so that it starts at once: only what brings files of its own is left outside. */
export default defineConfig({
  ssr: { noExternal: true, external: ['@electric-sql/pglite', 'fs-native-extensions', 'pino', 'pino-http'] },
  build: {
    ssr: true,
    target: 'node20',
    minify: true,
    outDir: 'dist-server',
    emptyOutDir: true,
    chunkSizeWarningLimit: 3000,
    rollupOptions: {
      input: { main: 'server/main.ts', recover: 'server/recover.ts', prepare: 'server/prepare.ts' },
      output: { entryFileNames: '[name].js', chunkFileNames: '[name].js' },
    },
  },
});
