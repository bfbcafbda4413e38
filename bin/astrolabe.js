#!/usr/bin/env node
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { at } from '../scripts/lib/fresh.mjs';

// Installed as a package there are no sources, and what was built is run.
if (!existsSync(at('cli', 'main.ts'))) await import('../dist/node/cli.js');
else await fromSources();

/** In a checkout: builds what is older than its sources first. */
async function fromSources() {
  if (!existsSync(at('node_modules'))) {
    console.error('The packages are not installed yet. Run npm ci (or npm start) first.');
    process.exit(1);
  }
  const { buildApp, buildNode } = await import('../scripts/lib/build.mjs');
  const folder = await buildNode();
  if (process.argv[2] === 'serve') await buildApp();
  await import(pathToFileURL(join(folder, 'cli.js')).href);
}
