import { codePartsOf } from '../../../core/deliver/library';
import type { DeliverState } from './kept';

/** The commands that give the same on a machine without a page, of the project saved as `camera.json`: code,
 * answers, test vectors, and how an engine's own answers are checked against them. */
export function commandsOf(
  { language, parts, number, naming, constants, count, seed }: DeliverState,
  flat: boolean,
): string[] {
  const able = codePartsOf(flat);
  const all = able.every((part) => parts.includes(part));
  const listed = able.filter((part) => part === 'camera' || parts.includes(part)).join(',');
  const quoted = /^\w+$/.test(language) ? language : `'${language}'`;
  const options = [
    `--language ${quoted}`,
    `--parts ${all ? 'all' : listed}`,
    ...(number === 'float' ? ['--number float'] : []),
    ...(naming === 'own' ? [] : [`--naming ${naming}`]),
    ...(constants ? [] : ['--parameters']),
    '--harness --out generated',
  ];
  const vectors = [`--count ${count}`, `--seed ${seed}`, ...(all ? [] : [`--parts ${listed}`])].join(' ');
  return [
    `npx astrolabe code camera.json \\\n  ${options.join(' \\\n  ')}`,
    'npx astrolabe compute camera.json \\\n  > expected.json',
    'npx astrolabe report camera.json \\\n  --out report.html',
    'npx astrolabe gltf camera.json \\\n  --out camera.glb',
    `npx astrolabe vectors camera.json \\\n  ${vectors} > vectors.json`,
    'npx astrolabe check vectors.json \\\n  answers.csv --junit check.xml',
  ];
}
