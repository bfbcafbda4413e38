import { fileURLToPath } from 'node:url';
import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig } from 'vite';

export default defineConfig({
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [react(), tailwind()],
  build: { outDir: '../dist/app', emptyOutDir: true, target: 'es2022', chunkSizeWarningLimit: 900 },
  server: { host: '127.0.0.1', port: 4748 },
});
