import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import ts from 'typescript';
import { soaks } from './seed';

/* The compilers that the code of each language is put through, without a warning. */

export const there = (program: string): boolean => spawnSync('sh', ['-c', `command -v ${program}`]).status === 0;

type Command = readonly [program: string, args: readonly string[]];
type Env = Readonly<Record<string, string>>;
/** Runs a program; anything on standard error, or a failure, is a fault. */
export function quiet(folder: string, program: string, args: readonly string[], env: Env = {}): string {
  const { status, stdout, stderr } = spawnSync(program, args, { cwd: folder, encoding: 'utf8', env: { ...process.env, ...env } }); // prettier-ignore
  if (status !== 0 || stderr.trim()) throw new Error(`${program} ${args.join(' ')}\n${stderr}\n${stdout}`.slice(0, 4000)); // prettier-ignore
  return stdout;
}

interface Compiler {
  readonly needs: readonly string[];
  /** Puts files into a folder as the language wants them. */
  files(folder: string, texts: Readonly<Record<string, string>>): void;
  /** Compiles a program of a folder, without a warning; the command that runs it. */
  build(folder: string, main: string): Command;
}
const files: Compiler['files'] = (folder, texts) => {
  mkdirSync(folder, { recursive: true });
  for (const [name, text] of Object.entries(texts)) writeFileSync(join(folder, name), text);
};
/** Optimised in `npm run soak` alone: the numbers asked for do not depend on it, and the builds take half the time. */
const strict = ['-Wall', '-Wextra', '-Wpedantic', '-Werror', soaks ? '-O1' : '-O0'];
/** Conversions that lose digits or signs are errors. */
const conversions = ['-Wconversion', '-Wsign-conversion'];
const bare = (main: string) => main.replace(/\.\w+$/, '');

const typeScriptOptions: ts.CompilerOptions = {
  strict: true,
  noUncheckedIndexedAccess: true,
  noUnusedLocals: true,
  noImplicitReturns: true,
  allowImportingTsExtensions: true,
  noEmit: true,
  target: ts.ScriptTarget.ES2022,
  module: ts.ModuleKind.ESNext,
  moduleResolution: ts.ModuleResolutionKind.Bundler,
  // The tests are about the emitted code, not about the libraries' declarations.
  skipLibCheck: true,
  types: ['node'],
  typeRoots: [join(process.cwd(), 'node_modules/@types')],
  lib: ['lib.es2022.d.ts'],
};

/** A host that parses each declaration file of the libraries once. */
const typeScriptHost: ts.CompilerHost = (() => {
  const host = ts.createCompilerHost(typeScriptOptions);
  const libraries = new Map<string, ts.SourceFile | undefined>();
  const getSourceFile: ts.CompilerHost['getSourceFile'] = (name, ...rest) => {
    if (!name.includes('node_modules')) return host.getSourceFile(name, ...rest);
    if (!libraries.has(name)) libraries.set(name, host.getSourceFile(name, ...rest));
    return libraries.get(name);
  };
  return { ...host, getSourceFile };
})();

/** What a test adds to its title when it is skipped for want of a compiler. */
export const skippedFor = (needs: readonly string[]): string => {
  const missing = needs.filter((program) => !there(program));
  return missing.length ? ` (skipped: no ${missing.join(', ')} here)` : '';
};

let pythonPath: string | undefined;
/** The interpreter itself: what the path finds may be a launcher that takes longer than the program. */
const python = (): string =>
  (pythonPath ??= execFileSync('python3', ['-c', 'import sys; print(sys.executable)'], { encoding: 'utf8' }).trim());

export const compilers: Readonly<Record<string, Compiler>> = {
  C: {
    ...{ needs: ['gcc'], files },
    build: (at, main) => (
      quiet(at, 'gcc', ['-std=c99', ...strict, ...conversions, main, '-o', 'main', '-lm']),
      ['./main', []]
    ),
  },
  'C++': {
    ...{ needs: ['g++'], files },
    build: (at, main) => (
      quiet(at, 'g++', ['-std=c++11', ...strict, ...conversions, main, '-o', 'main']),
      ['./main', []]
    ),
  },
  'C#': {
    ...{ needs: ['mcs', 'mono'], files },
    build: (at, main) => (quiet(at, 'mcs', ['-warnaserror', main, 'CameraMath.cs', '-out:main.exe']), ['mono', ['main.exe']]), // prettier-ignore
  },
  Rust: {
    ...{ needs: ['rustc'], files },
    build: (at, main) => (quiet(at, 'rustc', ['--edition=2021', '-D', 'warnings', '-A', 'dead_code', ...(soaks ? ['-O'] : []), main, '-o', 'main.out']), ['./main.out', []]), // prettier-ignore
  },
  Go: {
    needs: ['go'],
    files: (at, texts) => {
      const { 'camera.go': own, ...rest } = texts;
      files(at, { ...rest, 'go.mod': 'module example\n\ngo 1.19\n' });
      files(join(at, 'camera'), { 'camera.go': own! });
    },
    build: (at) => {
      // One cache for all builds: the first compiles Go's own library.
      const env = {
        GOCACHE: join(tmpdir(), 'astrolabe-go-cache'),
        GOFLAGS: '-mod=mod',
        GOTOOLCHAIN: 'local',
        HOME: at,
      };
      quiet(at, 'go', ['vet', './...'], env);
      quiet(at, 'go', ['build', '-o', 'main', '.'], env);
      return ['./main', []];
    },
  },
  TypeScript: {
    ...{ needs: ['node'], files },
    build: (at, main) => {
      const program = ts.createProgram([join(at, main)], typeScriptOptions, typeScriptHost);
      const found = ts.getPreEmitDiagnostics(program);
      if (found.length) throw new Error(ts.formatDiagnostics(found, { getCanonicalFileName: (one) => one, getCurrentDirectory: () => at, getNewLine: () => '\n' })); // prettier-ignore
      for (const name of [bare(main), 'camera']) {
        const text = readFileSync(join(at, `${name}.ts`), 'utf8');
        const made = ts.transpileModule(text, { compilerOptions: { target: ts.ScriptTarget.ES2022, module: ts.ModuleKind.ESNext } }).outputText; // prettier-ignore
        writeFileSync(join(at, `${name}.mjs`), made.replace('./camera.ts', './camera.mjs'));
      }
      return [process.execPath, [`${bare(main)}.mjs`]];
    },
  },
  JavaScript: {
    needs: ['node'],
    files: (at, texts) => files(at, { ...texts, 'package.json': '{ "type": "module" }' }),
    build: (_, main) => [process.execPath, [main]],
  },
  Python: { ...{ needs: ['python3'], files }, build: (_, main) => [python(), ['-W', 'error', main]] },
  Java: {
    ...{ needs: ['javac', 'java'], files },
    build: (at, main) => (quiet(at, 'javac', ['-J-XX:TieredStopAtLevel=1', '-Xlint:all', '-Werror', main, 'CameraMath.java']), ['java', ['-Xshare:auto', '-XX:TieredStopAtLevel=1', bare(main)]]), // prettier-ignore
  },
  Lua: { ...{ needs: ['lua5.4'], files }, build: (_, main) => ['lua5.4', ['-W', main]] },
};
