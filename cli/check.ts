import { writeFileSync } from 'node:fs';
import type { Tolerances } from '../core/deliver/checkedRows';
import { checkAnswers } from '../core/deliver/checkVectors';
import type { VectorKind } from '../core/deliver/vectorKinds';
import { changesSince, checkJson, checkText, junitOf, type CheckChanges } from '../formats/checkText';
import { readJsonText } from '../formats/jsonProblem';
import { readAnswers, readVectorsText } from '../formats/vectors';
import { fileTrouble } from './fileTrouble';

/** Options of `astrolabe check`. */
export interface CheckOptions {
  /** Shares of a number's size, `all` or by kind. */
  readonly tolerance: Readonly<Partial<Record<VectorKind | 'all', number>>>;
  readonly absolute: number;
  readonly json?: boolean;
  readonly quiet?: boolean;
  readonly baseline?: string;
  readonly junit?: string;
}

/** Reads files and writes standard output. */
export interface CheckFiles {
  readText(file: string): Promise<string>;
  write(text: string): Promise<void>;
}

/** Single precision keeps seven digits; a few operations leave five. */
const usualTolerance = 1e-5;

/**
 * Runs `astrolabe check`.
 *
 * @returns the exit code: 0 all right, 1 some wrong (with a baseline: some newly wrong), 2 a file cannot be read,
 *   with a sentence on standard error
 */
export async function runCheck(
  vectorsFile: string,
  answersFile: string,
  options: CheckOptions,
  { readText, write }: CheckFiles,
): Promise<number> {
  const started = performance.now();
  const unreadable = (message: string): number => {
    process.stderr.write(`${message}\n`);
    return 2;
  };
  const read = async (file: string): Promise<{ text: string } | string> =>
    readText(file).then((text) => ({ text }), (error: unknown) => `${file} cannot be read: ${fileTrouble(error)}.`); // prettier-ignore
  const [given, own] = [await read(vectorsFile), await read(answersFile)];
  if (typeof given === 'string') return unreadable(given);
  if (typeof own === 'string') return unreadable(own);
  const vectors = readVectorsText(given.text);
  if (typeof vectors === 'string') return unreadable(`${vectorsFile}: ${vectors}`);
  const answers = readAnswers(own.text);
  if (typeof answers === 'string') return unreadable(`${answersFile}: ${answers}`);

  const { all, ...byKind } = options.tolerance;
  const tolerance: Tolerances = { relative: all ?? usualTolerance, absolute: options.absolute, byKind };
  const checked = checkAnswers(vectors, answers, tolerance);
  let changes: CheckChanges | null = null;
  if (options.baseline !== undefined) {
    const earlier = await read(options.baseline);
    if (typeof earlier === 'string') return unreadable(earlier);
    const value = readJsonText(earlier.text);
    if ('problem' in value) return unreadable(`${options.baseline} is not JSON: ${value.problem}.`);
    const found = changesSince(value.value, checked);
    if (typeof found === 'string') return unreadable(`${options.baseline}: ${found}`);
    changes = found;
  }
  await write(options.json ? `${JSON.stringify(checkJson(checked, changes), null, 1)}\n` : checkText(checked, changes, options.quiet === true)); // prettier-ignore
  if (options.junit !== undefined) {
    try {
      writeFileSync(options.junit, junitOf(checked, (performance.now() - started) / 1000));
    } catch (error) {
      return unreadable(`${options.junit} cannot be written to: ${fileTrouble(error)}.`);
    }
  }
  return (changes ? changes.newlyWrong.length : checked.wrong) ? 1 : 0;
}
