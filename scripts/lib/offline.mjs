import { createHash } from 'node:crypto';
import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { at } from './fresh.mjs';

/** The addresses of the application: plain file servers find each as a folder. */
function routesIn(folder) {
  const manifest = JSON.parse(readFileSync(join(folder, '.vite/manifest.json'), 'utf8'));
  return [...Object.keys(manifest).flatMap((key) => /^tasks\/(\w+)\/index\.ts$/.exec(key)?.[1] ?? []), 'projects'];
}

/**
 * Makes the built application stand by itself: a page for every address, and the service worker
 * that keeps it all.
 */
export async function standAlone(folder = at('dist/app')) {
  const page = readFileSync(join(folder, 'index.html'), 'utf8');
  for (const route of routesIn(folder)) {
    mkdirSync(join(folder, route), { recursive: true });
    // What the page asks for lies one folder up from there.
    writeFileSync(join(folder, route, 'index.html'), page.replaceAll(/(src|href)="\.\//g, '$1="../'));
  }
  const files = readdirSync(folder, { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && /\.(html|js|css|svg|woff2)$/.test(entry.name) && entry.name !== 'sw.js')
    .map((entry) => join(entry.parentPath, entry.name));
  const builtFiles = files.map((path) => ({
    url: path.slice(folder.length + 1).replaceAll('\\', '/'),
    // Names in assets/ change with what is in them.
    revision: path.includes('assets')
      ? null
      : createHash('sha256').update(readFileSync(path)).digest('hex').slice(0, 16),
  }));
  const { build } = await import('esbuild');
  await build({
    entryPoints: [at('app/workers/offline.ts')],
    outfile: join(folder, 'sw.js'),
    bundle: true,
    minify: true,
    format: 'iife',
    target: 'es2022',
    logLevel: 'warning',
    define: {
      builtFiles: JSON.stringify(builtFiles),
      'process.env.NODE_ENV': '"production"',
    },
  });
}
