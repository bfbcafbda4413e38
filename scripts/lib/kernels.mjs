import { readFileSync } from 'node:fs';
import { at } from './fresh.mjs';

export const kernelSource = at('core/kernels/machine/kernels.as.ts');
export const kernelModule = at('core/kernels/machine/module.ts');

/**
 * The TypeScript file that holds the machine form of the kernels, compiled from their source: what
 * `npm run kernels` writes.
 */
export async function compileKernels() {
  const { default: asc } = await import('assemblyscript/asc');
  const name = 'kernels.ts';
  const source = readFileSync(kernelSource, 'utf8');
  let binary = null;
  const { error, stderr } = await asc.main(
    [name, '--outFile', 'kernels.wasm', '-O3', '--runtime', 'stub', '--enable', 'simd', '--importMemory', '--noAssert'],
    {
      readFile: (file) => (file === name ? source : null),
      writeFile: (file, contents) => {
        if (file === 'kernels.wasm') binary = contents;
      },
      listFiles: () => [],
    },
  );
  if (error || !binary) throw new Error(`The kernels do not compile: ${error?.message ?? ''}\n${stderr.toString()}`);
  const lines = Buffer.from(binary)
    .toString('base64')
    .match(/.{1,120}/g);
  return `// Written by \`npm run kernels\` from kernels.as.ts; a test holds the two together.
/** The compiled module, in base 64. */
export const kernelBytes =
${lines.map((line) => `  '${line}'`).join(' +\n')};
`;
}
