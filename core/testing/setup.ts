import fc from 'fast-check';
import { runSeed } from './seed';

/* Runs before every test file. A failed property prints its seed and path, which repeat it. */

fc.configureGlobal({ seed: 1 + runSeed, endOnFailure: Boolean(process.env['NO_SHRINK']) });
