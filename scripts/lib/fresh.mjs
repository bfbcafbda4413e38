// Node built-ins alone: this runs before anything is installed.
import { existsSync, readdirSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../../', import.meta.url));
export const at = (...parts) => join(root, ...parts);

/** The newest change of any file below the given places, in milliseconds; tests do not count. */
export function newest(places) {
  let time = 0;
  const visit = (path) => {
    const stat = statSync(path);
    if (stat.isDirectory()) for (const name of readdirSync(path)) visit(join(path, name));
    else if (!/\.(test|spec)\.tsx?$/.test(path)) time = Math.max(time, stat.mtimeMs);
  };
  for (const place of places) if (existsSync(at(place))) visit(at(place));
  return time;
}

export const changed = (built, sources) => !existsSync(at(built)) || statSync(at(built)).mtimeMs < newest(sources);

export const sources = {
  node: ['core', 'formats', 'cli', 'server', 'demo', 'app/pictures', 'app/state', 'app/ui', 'package.json'],
  app: ['core', 'formats', 'app', 'demo', 'package.json', 'package-lock.json'],
};
