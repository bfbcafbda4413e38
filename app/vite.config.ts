import { fileURLToPath } from 'node:url';
import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  // The built pages find everything from where they lie, whatever address they are served under.
  base: './',
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [react(), tailwind()],
  build: {
    outDir: '../dist/app',
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    // Fonts stay files: the policy lets none in as data.
    assetsInlineLimit: 0,
  },
  server: { host: '127.0.0.1', port: 4748 },
});
