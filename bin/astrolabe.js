#!/usr/bin/env node
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { at } from '../scripts/lib/fresh.mjs';

if (!existsSync(at('node_modules'))) {
  console.error('The packages are not installed yet. Run npm ci (or npm start) first.');
  process.exit(1);
}
const { buildApp, buildNode } = await import('../scripts/lib/build.mjs');
const folder = await buildNode();
if (process.argv[2] === 'serve') await buildApp();
await import(pathToFileURL(join(folder, 'cli.js')).href);
