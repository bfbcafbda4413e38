// `npm start`: installs and builds what is missing, then serves. Node built-ins alone until the
// packages are there.
import { installPackages } from './lib/install.mjs';

installPackages();
const { buildApp, buildNode } = await import('./lib/build.mjs');
await Promise.all([buildNode(), buildApp()]);
process.argv.splice(2, 0, 'serve');
await import('../dist/node/cli.js');
