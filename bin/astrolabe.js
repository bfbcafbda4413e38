#!/usr/bin/env node
import { existsSync } from 'node:fs';
import { at } from '../scripts/lib/fresh.mjs';

if (!existsSync(at('node_modules'))) {
  console.error('The packages are not installed yet. Run npm ci (or npm start) first.');
  process.exit(1);
}
const { buildNode } = await import('../scripts/lib/build.mjs');
await buildNode();
await import('../dist/node/cli.js');
