// `npm run docs`: writes docs/compute.schema.json from the schema in force.
import { writeFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { at } from './lib/fresh.mjs';
import { installPackages } from './lib/install.mjs';

installPackages();
writeFileSync(
  at('docs/compute.schema.json'),
  execFileSync('node', [at('bin/astrolabe.js'), 'schema'], { encoding: 'utf8' }),
);
