// `npm run kernels`: compiles the machine form of the kernels after a change of its source.
import { writeFileSync } from 'node:fs';
import { compileKernels, kernelModule } from './lib/kernels.mjs';

writeFileSync(kernelModule, await compileKernels());
