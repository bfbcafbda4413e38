import { fileURLToPath } from 'node:url';
import tailwind from '@tailwindcss/vite';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { tableStyleSheet } from './styleSheet';

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

/** The style sheet of the tables of colours and inks: `import '/tables.css'`. */
const tablesOfStyles: Plugin = {
  name: 'tables-of-styles',
  enforce: 'pre',
  resolveId: (id) => (id === '/tables.css' ? id : null),
  load: (id) => (id === '/tables.css' ? tableStyleSheet() : null),
};

/** Faces of the formula library that no formula here uses. */
const unusedFaces = 'KaTeX_(?:Caligraphic|Fraktur|SansSerif|Script|Typewriter)';

/** Ships one format of each font face in use: every browser that runs the application reads woff2. */
const trimFonts: Plugin = {
  name: 'trim-fonts',
  generateBundle: {
    order: 'post',
    handler(_options, bundle) {
      for (const [name, file] of Object.entries(bundle)) {
        if (new RegExp(`\\.(woff|ttf)$|${unusedFaces}.*\\.woff2$`).test(name)) delete bundle[name];
        else if (file.type === 'asset' && name.endsWith('.css'))
          file.source = String(file.source)
            .replaceAll(new RegExp(`@font-face\\{[^}]*font-family:"?${unusedFaces}[^}]*\\}`, 'g'), '')
            .replaceAll(/,\s*url\([^)]*\.(?:woff|ttf)\)\s*format\([^)]*\)/g, '');
      }
    },
  },
};

/** Modules that the page and the task it opens with load first: one chunk compresses better than many. */
const firstModules = new Set<string>();
const collectFirstModules: Plugin = {
  name: 'collect-first-modules',
  buildEnd() {
    const add = (id: string) => {
      const info = firstModules.has(id) ? null : this.getModuleInfo(id);
      if (!info) return;
      firstModules.add(id);
      info.importedIds.forEach(add);
    };
    firstModules.clear();
    add(fileURLToPath(new URL('main.tsx', import.meta.url)));
  },
};

export default defineConfig({
  // The built pages find everything from where they lie, whatever address they are served under.
  base: './',
  root: fileURLToPath(new URL('.', import.meta.url)),
  plugins: [tablesOfStyles, react(), tailwind(), preloadFaces, trimFonts, collectFirstModules],
  worker: { format: 'es', rolldownOptions: { output: { entryFileNames: 'assets/worker-[name]-[hash].js' } } },
  build: {
    outDir: '../dist/app',
    emptyOutDir: true,
    // Read by the test of what a visit loads.
    manifest: true,
    target: 'es2022',
    chunkSizeWarningLimit: 1200,
    // Fonts stay files: the policy lets none in as data.
    assetsInlineLimit: 0,
    rolldownOptions: {
      output: { codeSplitting: { groups: [{ name: 'page', test: (id) => firstModules.has(id) }] } },
      // The library for glTF has a reader of files too, for Node, which the page never asks.
      onLog: (level, log, handle) => {
        // A task that moves the camera loads its slice with the page; the table of all tasks names it too.
        if (log.code === 'INEFFECTIVE_DYNAMIC_IMPORT') return;
        if (!/externalized for browser compatibility/.test(log.message)) handle(level, log);
      },
    },
  },
  server: { host: '127.0.0.1', port: 4748 },
});
