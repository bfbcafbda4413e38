import { codeParts } from '../../../core/deliver/library';
import type { DeliverState } from './state';

/** The commands that give the same on a machine without a page, of the project saved as `camera.json`: code,
 * answers, test vectors, and how an engine's own answers are checked against them. */
export function commandsOf({ language, parts, number, naming, constants }: DeliverState): string[] {
  const all = codeParts.every((part) => parts.includes(part));
  const quoted = /^\w+$/.test(language) ? language : `'${language}'`;
  const options = [
    `--language ${quoted}`,
    `--parts ${all ? 'all' : codeParts.filter((part) => part === 'camera' || parts.includes(part)).join(',')}`,
    ...(number === 'float' ? ['--number float'] : []),
    ...(naming === 'own' ? [] : [`--naming ${naming}`]),
    ...(constants ? [] : ['--parameters']),
    '--out generated',
  ];
  return [
    `node bin/astrolabe.js code camera.json \\\n  ${options.join(' \\\n  ')}`,
    'node bin/astrolabe.js compute camera.json \\\n  > expected.json',
    'node bin/astrolabe.js vectors camera.json \\\n  > vectors.json',
    'node bin/astrolabe.js check vectors.json \\\n  answers.csv --junit check.xml',
  ];
}
