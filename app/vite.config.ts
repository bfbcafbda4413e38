import { fileURLToPath } from 'node:url';
import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/**
 * The faces that the first page is set in: fetched with the scripts, so that it is not laid out
 * twice.
 */
const firstFaces = /(ibm-plex-sans-latin-(400|600)|ibm-plex-mono-latin-(400|500)|spectral-latin-500)-normal.*\.woff2$/;
const preloadFaces: Plugin = {
  name: 'preload-faces',
  transformIndexHtml: {
    order: 'post',
    handler: (_html, { bundle = {} }) =>
      Object.keys(bundle)
        .filter((name) => firstFaces.test(name))
        .map((name) => ({
          tag: 'link',
          attrs: { rel: 'preload', as: 'font', type: 'font/woff2', href: `./${name}`, crossorigin: true },
          injectTo: 'head',
        })),
  },
};

export default defineConfig({
  // The built pages find everything from where they lie, whatever address they are served under.
  base: './',
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [react(), tailwind(), preloadFaces],
  build: {
    outDir: '../dist/app',
    emptyOutDir: true,
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    // Fonts stay files: the policy lets none in as data.
    assetsInlineLimit: 0,
    rolldownOptions: {
      // The library for glTF has a reader of files too, for Node, which the page never asks.
      onLog: (level, log, handle) => {
        if (!/externalized for browser compatibility/.test(log.message)) handle(level, log);
      },
    },
  },
  server: { host: '127.0.0.1', port: 4748 },
});
