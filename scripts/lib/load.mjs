// The bytes of compressed JavaScript that a visit to the built application loads, from Vite's manifest.
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { at } from './fresh.mjs';

const kilobyte = 1024;
/** The most that may be loaded at first, and for a task beyond that, in bytes. */
export const loadLimits = { first: 250 * kilobyte, task: 60 * kilobyte };

/**
 * Measures the application in a folder.
 *
 * @returns the bytes of the first load (the page and the task that it opens with), and for each other task
 *   the bytes that opening it adds. Workers are not counted: the page does not wait for them.
 */
export function measureLoad(folder = at('dist/app'), firstTask = 'frame') {
  const manifest = JSON.parse(readFileSync(join(folder, '.vite/manifest.json'), 'utf8'));
  const filesOf = (key, files = new Set()) => {
    const { file, imports = [] } = manifest[key];
    if (files.has(file)) return files;
    if (file.endsWith('.js')) files.add(file);
    for (const one of imports) filesOf(one, files);
    return files;
  };
  const sizes = new Map();
  const sizeOf = (file) => {
    if (!sizes.has(file)) sizes.set(file, gzipSync(readFileSync(join(folder, file)), { level: 9 }).length);
    return sizes.get(file);
  };
  const total = (files) => [...files].reduce((sum, file) => sum + sizeOf(file), 0);
  const parts = ['index.ts', 'state.ts', 'marks.ts'];
  const ofTask = (route) =>
    new Set(
      parts.flatMap((part) => (manifest[`tasks/${route}/${part}`] ? [...filesOf(`tasks/${route}/${part}`)] : [])),
    );
  const first = new Set([...filesOf('index.html'), ...ofTask(firstTask)]);
  const routes = Object.keys(manifest).flatMap((key) => /^tasks\/(\w+)\/index\.ts$/.exec(key)?.[1] ?? []);
  return {
    first: total(first),
    page: total(filesOf('index.html')),
    tasks: routes
      .filter((route) => route !== firstTask)
      .map((route) => ({ route, bytes: total([...ofTask(route)].filter((file) => !first.has(file))) })),
    files: [...first].map((file) => ({ file, bytes: sizeOf(file) })).sort((a, b) => b.bytes - a.bytes),
  };
}
