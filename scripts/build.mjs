import { installPackages } from './lib/install.mjs';

installPackages();
const { buildApp, buildNode } = await import('./lib/build.mjs');
await Promise.all([buildNode({ force: true }), buildApp({ force: true })]);
