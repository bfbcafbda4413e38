import { writeJson } from '../core/compute/json';
import { createReadStream, createWriteStream, mkdirSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import type { Writable } from 'node:stream';
import { Command, InvalidArgumentError } from 'commander';
import { computeLazily } from '../core/compute/compute';
import { problemDocument } from '../core/compute/readRequest';
import { textProblem } from '../core/compute/requestText';
import { operationReference } from '../core/compute/reference';
import { limitsTable, serverLimits } from '../core/compute/limits';
import { emitCode, emitHarness, is2dVectors, languageOf, vectorsOfParts } from '../core/deliver/code';
import { deliverLanguages } from '../core/deliver/languages';
import { codeParts, codePartsOf, type CodePart } from '../core/deliver/library';
import type { Naming } from '../core/deliver/print';
import { scopeProblem } from '../core/deliver/scope';
import { version } from '../core/version';
import { is2d } from '../core/deliver/cameraSetup';
import { setUpOfRequest } from '../core/deliver/setUp';
import { vectorKinds } from '../core/deliver/vectorKinds';
import { vectorsOf } from '../core/deliver/vectors';
import { singlePictures, type SinglePicture } from '../app/pictures/compose/singleNames';
import type { Theme } from '../app/ui/themes';
import { readJsonText } from '../formats/jsonProblem';
import { vectorsTable } from '../formats/vectors';
import { schemaNames, schemaOf, type SchemaName } from '../formats/schemas';
import { fileTrouble } from './fileTrouble';
import type { CheckOptions } from './check';

// A failure until an answer has been written.
process.exitCode = 1;

/** Reads a file, or standard input for “-”. */
async function readBytes(file: string): Promise<Uint8Array> {
  const chunks: Buffer[] = [];
  // As a stream: what standard input is (a file, a pipe, one that does not block) makes no difference.
  const from = file === '-' ? process.stdin : createReadStream(file);
  for await (const chunk of from) chunks.push(chunk as Buffer);
  return chunks.length === 1 ? chunks[0]! : Buffer.concat(chunks);
}

/** Reads text as UTF-8, without a byte order mark. */
const readText = async (file: string): Promise<string> => new TextDecoder().decode(await readBytes(file));

function* both<T>(...lists: Iterable<T>[]): Generator<T> {
  for (const list of lists) yield* list;
}

/** Writes pieces no faster than they are taken. Ends the program where they cannot be written. */
async function write(to: Writable, pieces: Iterable<string>): Promise<void> {
  const failed = (error: NodeJS.ErrnoException): never => {
    // A reader may close the pipe when it has enough.
    if (error.code === 'EPIPE') process.exit(process.exitCode === 2 ? 2 : 1);
    process.stderr.write(`The answer could not be written: ${error.message}.\n`);
    process.exit(1);
  };
  to.once('error', failed);
  let held = '';
  const flush = () =>
    new Promise<void>((done) => {
      const text = held;
      held = '';
      to.write(text, () => done());
    });
  for (const piece of pieces) {
    held += piece;
    if (held.length > 1 << 18) await flush();
  }
  await flush();
}

/** Writes pieces to a file, or to standard output without one. Ends the program where they cannot be written. */
async function output(out: string | undefined, pieces: Iterable<string>): Promise<void> {
  if (out === undefined) return write(process.stdout, pieces);
  try {
    mkdirSync(dirname(out), { recursive: true });
  } catch (error) {
    process.stderr.write(`${out} cannot be written to: ${fileTrouble(error)}.\n`);
    process.exit(1);
  }
  const stream = createWriteStream(out);
  await write(stream, pieces);
  await new Promise<void>((done) => stream.end(done));
}

/** Rejects the name of an output file without one of the endings, as a wrong command line. */
const withEnding =
  (...endings: readonly string[]) =>
  (path: string): string => {
    if (endings.some((ending) => path.toLowerCase().endsWith(ending))) return path;
    throw new InvalidArgumentError(`“${path}” does not end in ${endings.join(' or ')}. Give it this ending.`);
  };

/** Writes files; where one cannot be, that is said. Whether all are written. */
async function saved(files: Readonly<Record<string, string | Uint8Array>>): Promise<boolean> {
  for (const [path, content] of Object.entries(files))
    try {
      mkdirSync(dirname(path), { recursive: true });
      writeFileSync(path, content);
    } catch (error) {
      process.stderr.write(`${path} cannot be written to: ${fileTrouble(error)}.\n`);
      return false;
    }
  await write(process.stdout, Object.keys(files).map((path) => `${path}\n`)); // prettier-ignore
  return true;
}

/** Says what is wrong as a problem document, and ends with 2. */
async function refuse(problem: unknown, indent = 2): Promise<null> {
  await write(process.stderr, [JSON.stringify(problem, null, indent), '\n']);
  process.exitCode = 2;
  return null;
}
/** Says that a file cannot be read, in a plain sentence, and ends with 2. */
async function unreadable(file: string, error: unknown): Promise<null> {
  await write(process.stderr, [`${file === '-' ? 'Standard input' : file} cannot be read: ${fileTrouble(error)}.\n`]);
  process.exitCode = 2;
  return null;
}
/** Reads a file; says why it cannot be read, and returns null. */
const readOrSay = <T>(file: string, read: (file: string) => Promise<T>): Promise<T | null> =>
  read(file).catch((error: unknown) => unreadable(file, error));

/** Reads a file as JSON. Reports its first problem, and returns null then. */
async function readJson(file: string, indent = 2): Promise<{ value: unknown } | null> {
  const text = await readOrSay(file, readText);
  if (text === null) return null;
  const problem = textProblem(text);
  if (problem) return refuse(problemDocument([problem]), indent);
  const read = readJsonText(text);
  if ('value' in read) return read;
  return refuse(problemDocument([{ path: '', message: `This is not JSON: ${read.problem}.` }]), indent);
}

const program = new Command('astrolabe')
  .description('Reference answers for people who write their own cameras')
  .version(version)
  .addHelpText(
    'after',
    `\nLimits of a request, and what is answered beyond them:\n${limitsTable.map(([what, most, beyond]) => `  ${what}: ${most} (${beyond})`).join('\n')}\n`,
  );

program
  .command('compute')
  .description('answer a compute request (docs/compute.md) on standard output')
  .argument('<file>', 'the request as JSON, or - for standard input')
  .option('--compact', 'one line instead of indented JSON')
  .option('--strict', 'exit with 1 when a query has an error')
  .option('--out <file>', 'where the answer goes; standard output if absent')
  .action(async (file: string, { compact, strict, out }: { compact?: boolean; strict?: boolean; out?: string }) => {
    const indent = compact ? 0 : 2;
    const given = await readJson(file, indent);
    if (!given) return;
    // Neither the text nor the value it stands for is held on to while the answer is written.
    const answered = computeLazily(given.value);
    given.value = null;
    if (!answered.ok) return void (await refuse(answered.problem, indent));
    const failed = answered.response.results.filter((result) => 'error' in result);
    await output(out, both(writeJson(answered.response, indent), ['\n']));
    process.exitCode = strict && failed.length ? 1 : 0;
  });

const choiceOf =
  <T extends string>(what: string, all: readonly T[]) =>
  (text: string): T => {
    const found = all.find((one) => one.toLowerCase() === text.toLowerCase());
    if (!found) throw new InvalidArgumentError(`${what}: one of ${all.join(', ')}.`);
    return found;
  };
const languageChoice = (text: string): string => {
  const found = languageOf(text);
  if (!found) throw new InvalidArgumentError(`The language: one of ${deliverLanguages.map(({ name }) => name).join(', ')}.`); // prettier-ignore
  return found.name;
};
const partsOf = (text: string): CodePart[] =>
  text === 'all' ? [...codeParts] : text.split(',').map((one) => choiceOf('Parts', codeParts)(one.trim()));

/** Says which of the parts asked for a camera of this kind does not have. All of them are asked for with `all`. */
async function writeMissingParts(parts: readonly CodePart[], flat: boolean): Promise<void> {
  const missing = parts.length === codeParts.length ? [] : parts.filter((part) => !codePartsOf(flat).includes(part));
  if (missing.length)
    await write(process.stderr, [`A ${flat ? '2D' : '3D'} camera has no ${missing.join(', ')}: left out.\n`]);
}

/** Returns the problem of the options of names; null where there is none. */
function scopeOdd({ language, prefix, namespace }: { language: string; prefix?: string; namespace?: string }): string | null {
  if (prefix !== undefined && language !== 'C') return `${language} takes no --prefix: only C does.`;
  if (namespace !== undefined && language !== 'C++') return `${language} takes no --namespace: only C++ does.`;
  const scope = prefix ?? namespace;
  return scope === undefined ? null : scopeProblem(language, scope);
} // prettier-ignore

program
  .command('code')
  .description('write the source of exactly this camera’s mathematics')
  .argument('<request>', 'a compute request with the camera and its conventions, or - for standard input')
  .requiredOption('--language <name>', deliverLanguages.map(({ name }) => name).join(', '), languageChoice)
  .option('--parts <list>', `all, or of ${codeParts.join(',')}`, partsOf, [...codeParts])
  .option('--number <type>', 'double or float', choiceOf('The number type', ['double', 'float'] as const), 'double')
  .option('--naming <manner>', 'own (the language’s), snake, camel or pascal', choiceOf('The naming', ['own', 'snake', 'camel', 'pascal'] as const), 'own') // prettier-ignore
  .option('--parameters', 'leave the camera’s own numbers out: it is a parameter alone')
  .option('--prefix <text>', 'before every name, in C')
  .option('--namespace <name>', 'of everything, in C++; a::b for nested ones')
  .option('--harness', 'write the harness that runs it over test vectors beside it')
  .option('--out <folder>', 'where the files go; on standard output if not said')
  .action(
    async (
      file: string,
      options: { language: string; parts: CodePart[]; number: 'double' | 'float'; naming: Naming; parameters?: boolean; prefix?: string; namespace?: string; harness?: boolean; out?: string },
    ) => {
      const scope = options.prefix ?? options.namespace;
      const odd = scopeOdd(options);
      if (odd !== null) return program.error(`error: ${odd}`, { exitCode: 2 });
      const given = await readJson(file);
      if (!given) return;
      const made = setUpOfRequest(given.value);
      if (!made.ok) return void (await refuse(made.problem));
      const { language, parts, number, naming } = options;
      if (parts.includes('spawn') && !is2d(made.setUp) && !made.setUp.footprint.length)
        process.stderr.write('The camera sees none of the ground, so the part “spawn” is left out.\n');
      await writeMissingParts(parts, is2d(made.setUp));
      const wish = { language, parts, number, naming, constants: !options.parameters, scope };
      const files = [
        emitCode(made.setUp, wish),
        ...(options.harness ? [{ name: languageOf(language)!.harnessFile, text: emitHarness(made.setUp, wish) }] : []),
      ];
      if (!options.out) await write(process.stdout, files.map(({ text }) => text));
      else if (!(await saved(Object.fromEntries(files.map(({ name, text }) => [join(options.out!, name), text]))))) return;
      process.exitCode = 0;
    },
  ); // prettier-ignore

const whole = (text: string) => {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 1 || value > 100_000) throw new InvalidArgumentError('Give a whole number, 1 to 100,000.'); // prettier-ignore
  return value;
};
const share = (text: string) => {
  const value = Number(text);
  if (!(value > 0 && value < 1))
    throw new InvalidArgumentError('Give a share of a number’s size, above 0 and below 1.');
  return value;
};
const nonNegative = (text: string) => {
  const value = Number(text);
  if (!(value >= 0 && Number.isFinite(value))) throw new InvalidArgumentError('Give a number, 0 or more.');
  return value;
};
/** Collects tolerances: one for all kinds, or KIND=SHARE. */
const tolerances = (text: string, before: CheckOptions['tolerance']): CheckOptions['tolerance'] => {
  const [name, value] = text.includes('=') ? (text.split('=') as [string, string]) : [null, text];
  return { ...before, [name === null ? 'all' : choiceOf('The kind', vectorKinds)(name)]: share(value) };
};

program
  .command('vectors')
  .description('write test vectors: what an engine’s own functions are to give for this camera')
  .argument('<request>', 'a compute request with the camera and its conventions, or - for standard input')
  .option('--count <number>', 'points', whole, 24)
  .option('--seed <number>', 'another seed, other points', whole, 1)
  .option('--parts <list>', `of what an engine has: all, or of ${codeParts.join(',')}`, partsOf, [...codeParts])
  .option('--csv', 'as a table instead of JSON, to be read by a harness')
  .option('--out <file>', 'where the vectors go; standard output if absent')
  .action(async (file: string, { count, seed, parts, csv, out }: { count: number; seed: number; parts: CodePart[]; csv?: boolean; out?: string }) => {
    const given = await readJson(file);
    if (!given) return;
    const made = vectorsOf(given.value, count, seed);
    if (!made.ok) return void (await refuse(made.problem));
    await writeMissingParts(parts, is2dVectors(made.vectors));
    const vectors = vectorsOfParts(made.vectors, parts);
    await output(out, [csv ? vectorsTable(vectors) : `${JSON.stringify(vectors, null, 1)}\n`]);
    process.exitCode = 0;
  }); // prettier-ignore

program
  .command('check')
  .description('compare an engine’s own answers with test vectors; exit 0 all right, 1 some wrong, 2 unreadable')
  .argument('<vectors>', 'test vectors, JSON or CSV')
  .argument('<answers>', 'JSON, lists by the ids of the rows, or lines of id and numbers with commas between; - for standard input') // prettier-ignore
  .option('--tolerance <share>', 'of a number’s size; KIND=SHARE for one kind; can be given several times', tolerances, {})
  .option('--absolute <difference>', 'a difference that is always allowed', nonNegative, 0)
  .option('--json', 'the result as JSON on standard output')
  .option('--quiet', 'explanations and the sum alone')
  .option('--baseline <file>', 'the JSON of an earlier check: exit 1 for newly wrong rows alone')
  .option('--junit <file>', 'the result as JUnit XML')
  .action(async (file: string, answersFile: string, options: CheckOptions) => {
    const { runCheck } = await import('./check');
    process.exitCode = await runCheck(file, answersFile, options, { readText, write: (text) => write(process.stdout, [text]) });
  }); // prettier-ignore

program
  .command('diagnose')
  .description('explain the numbers that an engine printed; exit 0 they agree, 1 they do not, 2 nothing to read')
  .argument('<request>', 'a compute request with the intended camera and its conventions')
  .argument('<log>', 'the engine’s output with matrices and points in any form, or - for standard input')
  .option('--json', 'the reading and the answers of diagnose and identify as JSON')
  .action(async (file: string, logFile: string, { json }: { json?: boolean }) => {
    const given = await readJson(file);
    if (!given) return;
    const text = await readOrSay(logFile, readText);
    if (text === null) return;
    const { diagnoseLog, logDiagnosisText } = await import('../formats/logDiagnosis');
    const found = diagnoseLog(given.value, text);
    if (!found.ok) return void (await refuse(problemDocument(found.problems)));
    const { value } = found;
    await write(process.stdout, [json ? `${JSON.stringify(value, null, 2)}\n` : logDiagnosisText(value)]);
    process.exitCode = value.answer.verdict === 'agrees' ? 0 : 1;
  });

program
  .command('report')
  .description('write one page of HTML: pictures, numbers, working, test vectors and code of a set-up')
  .argument('<request>', 'a compute request with the camera and its conventions, or - for standard input')
  .requiredOption('--out <file>', 'the page, an .html', withEnding('.html', '.htm'))
  .option('--title <text>', 'what it is called')
  .option('--language <name>', 'of the code in it', languageChoice, 'C++')
  .action(async (file: string, { out, title, language }: { out: string; title?: string; language: string }) => {
    const given = await readJson(file);
    if (!given) return;
    const [{ reportOf, reportCode }, { coloured }] = await Promise.all([import('../formats/report'), import('../formats/coloured')]); // prettier-ignore
    const name = title ?? (file === '-' ? 'A camera' : basename(file).replace(/\.json$/, ''));
    const { reportFontRules, reportPictures } = await import('./pictures');
    const [{ pictures, reason }, fonts] = [await reportPictures(given.value), await reportFontRules()];
    const made = reportOf(given.value, { title: name, pictures, fonts, code: reportCode(language), coloured });
    if (!made.ok) return void (await refuse(made.problem));
    if (!(await saved({ [out]: made.html }))) return;
    if (reason !== null) await write(process.stderr, [`The report has no pictures. ${reason}\n`]);
    process.exitCode = 0;
  });

const widthOf = (text: string): number => {
  const width = Number(text);
  if (!Number.isInteger(width) || width < 160 || width > 8192)
    throw new InvalidArgumentError('The width: an integer from 160 to 8192 pixels.');
  return width;
};

program
  .command('picture')
  .description('write a picture as the page shows it: through the camera, from above, or from the side')
  .argument('<request>', 'a compute request or a project, or - for standard input')
  .requiredOption('--out <file>', 'an .svg, or a .png')
  .option('--picture <name>', singlePictures.join(', '), choiceOf('The picture', singlePictures), 'camera')
  .option('--theme <name>', 'paper or night', choiceOf('The theme', ['paper', 'night'] as const), 'paper')
  .option('--width <pixels>', 'how wide it is, 160 to 8192', widthOf, 1280)
  .action(
    async (
      file: string,
      { out, picture, theme, width }: { out: string; picture: SinglePicture; theme: Theme; width: number },
    ) => {
      if (!/\.(svg|png)$/i.test(out))
        return void (await refuse(
          problemDocument([{ path: '', message: `“${out}” is neither .svg nor .png. Give --out one of these endings.` }], 422, 'No picture'), // prettier-ignore
        ));
      const given = await readJson(file);
      if (!given) return;
      const { projectOf, projectPicture, writePicturePng, writePictureSvg } = await import('./pictures');
      const read = projectOf(given.value, basename(file).replace(/\.json$/, ''));
      if (!read.ok) return void (await refuse(problemDocument(read.problems)));
      const made = projectPicture(read.project, picture, theme);
      if (!made.ok) return void (await refuse(problemDocument(made.problems, 422, 'No picture')));
      const content = /\.svg$/i.test(out) ? await writePictureSvg(made, width) : await writePicturePng(made, width);
      if (!(await saved({ [out]: content }))) return;
      process.exitCode = 0;
    },
  );

program
  .command('gltf')
  .description('write the camera, the bodies and the way of its first track as glTF 2.0')
  .argument('<request>', 'a compute request with the camera and its conventions, or - for standard input')
  .requiredOption('--out <file>', 'a .glb, or a .gltf that contains its buffers', withEnding('.glb', '.gltf'))
  .action(async (file: string, { out }: { out: string }) => {
    const given = await readJson(file);
    if (!given) return;
    const { gltfOfRequest } = await import('../formats/sceneRequest');
    const made = await gltfOfRequest(given.value, basename(file).replace(/\.json$/, ''), /\.gltf$/i.test(out));
    if (!made.ok) return void (await refuse(made.problem));
    for (const one of made.said) process.stderr.write(`${one}\n`);
    if (!(await saved({ [out]: made.content }))) return;
    process.exitCode = 0;
  });

program
  .command('scene')
  .description('write what a .glb or .gltf holds as a compute request: its first camera, its bodies')
  .argument('<file>', 'the glTF, or - for standard input')
  .option('--conventions <request>', 'a compute request whose conventions and viewport it has')
  .option('--out <file>', 'where the request goes; standard output if absent')
  .action(async (file: string, { conventions, out }: { conventions?: string; out?: string }) => {
    const like = conventions ? await readJson(conventions) : { value: {} };
    if (!like) return;
    const bytes = await readOrSay(file, readBytes);
    if (!bytes) return;
    const { requestOfGltf } = await import('../formats/sceneRequest');
    const made = await requestOfGltf(bytes, basename(file), like.value);
    if (!made.ok) return void (await refuse(made.problem));
    for (const one of made.said) process.stderr.write(`${one}\n`);
    await output(out, [JSON.stringify(made.request, null, 2), '\n']);
    process.exitCode = 0;
  });

program
  .command('schema')
  .description('print the JSON Schema of a compute request, or of another document')
  .argument('[document]', schemaNames.join(', '), choiceOf('The document', schemaNames), 'request')
  .option('--answers', 'the same as “schema answers”')
  .option('--reference', 'print the reference of the operations as Markdown')
  .action(async (name: SchemaName, { answers, reference }: { answers?: boolean; reference?: boolean }) => {
    const schema = () => JSON.stringify(schemaOf(answers ? 'answers' : name), null, 2);
    await write(process.stdout, [reference ? operationReference() : schema(), '\n']);
    process.exitCode = 0;
  });

const port = (text: string) => {
  const value = Number(text);
  if (!Number.isInteger(value) || value < 0 || value > 65535)
    throw new InvalidArgumentError('A port is a whole number from 0 to 65535.');
  return value;
};

const seconds = (text: string) => {
  const value = Number(text);
  if (!(value > 0 && value <= 3600)) throw new InvalidArgumentError('Give seconds above 0, up to 3600.');
  return value;
};

/** Collects origins of pages that may ask the server. */
const origins = (text: string, before: readonly string[]): readonly string[] => {
  if (text !== '*' && !(URL.canParse(text) && new URL(text).origin === text))
    throw new InvalidArgumentError('Give an origin, as https://example.org, or *.');
  return [...before, text];
};

program
  .command('serve')
  .description('serve the application and its interface over HTTP (GET /api)')
  .option('--port <number>', 'the first port to try', port, 4747)
  .option('--host <address>', 'the address to listen on', '127.0.0.1')
  .option(
    '--allow-origin <origin>',
    'answer pages of this origin (https://example.org), or * for all; can be given several times',
    origins,
    [],
  ) // prettier-ignore
  .option('--seconds <number>', 'how long a request may compute', seconds, serverLimits.seconds)
  .action(async (options: { port: number; host: string; seconds: number; allowOrigin: readonly string[] }) => {
    // Loaded only here: `compute` starts without a server's packages.
    const { serve } = await import('../server/main');
    const { address, taken } = await serve(options).catch((error: Error) => {
      console.error(
        `Nothing can be served on ${options.host}, port ${options.port}: ${error.message}. Try another --host or --port.`,
      );
      process.exit(1);
    });
    if (taken.length)
      console.log(
        `Port ${taken.join(', ')} is taken, so this is the next free one. A browser keeps projects for each address by itself: those made at another port are seen there alone.`,
      );
    console.log(`Astrolabe is at ${address}`);
    process.exitCode = 0;
  });

// Help and the version are answers; whatever is wrong with a command line ends with 2, as bad input does.
for (const command of [program, ...program.commands])
  command.exitOverride((error) => process.exit(error.exitCode === 0 || error.code === 'commander.help' ? 0 : 2));
await program.parseAsync();
