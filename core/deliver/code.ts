import { readCamera } from '../request/readCamera';
import type { RequestCamera } from '../request/cameraSchema';
import { frameOf, pictureShape, type CameraFrame, type Viewport } from '../camera/frame';
import type { GroundEdge } from '../ground/distance';
import { fieldOfView } from '../camera/projection';
import type { ConventionCodec } from '../conventions/codec';
import type { Vec3 } from '../math/vec3';
import type { Checked } from '../reasons';
import { deliverLanguages } from './languages';
import type { CodeWish } from './codeWish';
import { fileComment } from './fileComment';
import { withScope } from './scope';
import { regionSource, type SpawnNumbers } from './region';
import { is2d, type SetUp, type SetUp3d } from './cameraSetup';
import { librarySource, withNeeded, type CodePart } from './library';
import { cameraText2d } from './library2d';
import type { Vectors } from './vectors';
import { callsOf, inputCount, kindsOf } from './vectorKinds';
import { plain } from './texts';
import { parseProgram, type Const, type Expr, type Item, type Statement, type Type } from './program';
import { Printer, type HarnessCase, type Language, type Style } from './print';

export type { CodeWish };

/** A file of code. */
export interface CodeFile {
  readonly name: string;
  readonly text: string;
}

/**
 * The camera of a set-up as code says it: angles, a look-at or a basis, and a vertical field of view, a
 * height, and the lens shift. A quaternion becomes its basis; other fields of view the vertical one;
 * typed extents the half sizes and the shift that they are.
 */
export function setUpOf(
  camera: RequestCamera,
  viewport: Viewport,
  e: ConventionCodec,
  footprint: readonly GroundEdge[],
): Checked<{ readonly setUp: SetUp3d; readonly frame: CameraFrame }> {
  const read = readCamera(camera, e);
  if (!read.ok) return read;
  const made = frameOf(read.value, viewport);
  if (!made.ok) return made;
  const frame = made.value;
  const { near, far } = frame;
  const { height, aspect, shift } = pictureShape(frame);
  const o = camera.orientation;
  const own = (v: Vec3): [number, number, number] => [...e.toWorld(v)];
  const orientation =
    'yaw' in o || 'lookAt' in o ? o : { right: own(frame.right), up: own(frame.up), forward: own(frame.forward) };
  const projection: RequestCamera['projection'] =
    frame.kind === 'perspective'
      ? { kind: 'perspective', near, far, verticalFov: e.toAngle(fieldOfView(height, near)), aspect, shift }
      : { kind: 'orthographic', near, far: frame.far, height, aspect, shift };
  const setUp = { camera: { position: camera.position, orientation, projection }, viewport, e, footprint };
  return { ok: true, warnings: made.warnings, value: { setUp, frame } };
}

const vec = (v: readonly number[]): string => `vec${v.length}(${v.map(plain).join(', ')})`;

/** The camera's own numbers as a value of the program. */
export function cameraText(setUp: SetUp): string {
  if (is2d(setUp)) return cameraText2d(setUp);
  const { camera, viewport, e } = setUp;
  const { orientation: o, projection: p, position } = camera;
  const pose = 'yaw' in o ? [o.yaw, o.pitch, o.roll].map(plain) : 'lookAt' in o ? [vec(o.lookAt), vec(o.up ?? e.toWorld([0, 1, 0]))] : 'right' in o ? [o.right, o.up, o.forward].map(vec) : []; // prettier-ignore
  const size = p.kind === 'orthographic' ? p.height! : p.kind === 'perspective' ? p.verticalFov! : 0;
  const aspect = 'aspect' in p ? p.aspect! : viewport.width / viewport.height;
  // An aspect of its own is that of a viewport whose pixels are not square: its width is what counts.
  const wide = Math.abs(aspect / (viewport.width / viewport.height) - 1) < 1e-12 ? viewport.width : aspect * viewport.height; // prettier-ignore
  const shift = 'shift' in p && p.shift ? p.shift : [0, 0];
  return `Camera { ${[vec(position), ...pose, plain(size), plain(p.near), ...(p.far === null ? [] : [plain(p.far)]), vec(shift), vec([viewport.x, viewport.y]), vec([wide, viewport.height])].join(', ')} }`; // prettier-ignore
}

/** Other names that people type for a language: endings of its files, and its name without signs. */
const aliases: Readonly<Record<string, string>> = {
  h: 'c',
  cpp: 'c++',
  cxx: 'c++',
  cc: 'c++',
  hpp: 'c++',
  cplusplus: 'c++',
  cs: 'c#',
  csharp: 'c#',
  rs: 'rust',
  golang: 'go',
  ts: 'typescript',
  js: 'javascript',
  mjs: 'javascript',
  node: 'javascript',
  hlsli: 'hlsl',
  fx: 'hlsl',
  py: 'python',
  python3: 'python',
  vert: 'glsl',
  frag: 'glsl',
};

/** Finds the language of a name, in any case, or of another name for it; null for none. */
export function languageOf(name: string): Language | null {
  const wanted = name.trim().toLowerCase();
  return deliverLanguages.find((one) => one.name.toLowerCase() === (aliases[wanted] ?? wanted)) ?? null;
}

const walk = (of: Expr, see: (one: Expr) => void): void => {
  see(of);
  if (of.kind === 'field' || of.kind === 'unary') walk(of.of, see);
  if (of.kind === 'index') [of.of, of.at].forEach((one) => walk(one, see));
  if (of.kind === 'binary') [of.left, of.right].forEach((one) => walk(one, see));
  if (of.kind === 'call' || of.kind === 'make') of.args.forEach((one) => walk(one, see));
};
const inStatements = (list: readonly Statement[], see: (one: Expr) => void): void =>
  list.forEach((one) => {
    if (one.kind === 'let' || one.kind === 'return') walk(one.value, see);
    if (one.kind === 'set') [one.to, one.value].forEach((own) => walk(own, see));
    if (one.kind === 'if') {
      walk(one.test, see);
      inStatements([...one.then, ...one.otherwise], see);
    }
    if (one.kind === 'for') inStatements(one.body, see);
  });

/** What of its helpers a program uses. */
function usesOf(items: readonly Item[]): ReadonlySet<string> {
  const uses = new Set<string>();
  const see = (one: Expr) => {
    if (one.kind === 'call') uses.add(one.fn);
    if (one.kind === 'call' && !['dot', 'cross', 'mul'].includes(one.fn)) uses.add('maths');
    if (one.kind === 'unary' && one.type === 'vec3') uses.add('negate');
    if (one.kind === 'binary' && one.type === 'vec2') uses.add('vec2');
    // Without any, a program is not given what vectors and matrices are made of.
    if (/^(?:vec|mat)/.test(String(one.type))) uses.add('vectors');
    if (one.type === 'vec3' || one.type === 'mat4') uses.add(one.type);
  };
  for (const item of items) {
    if (item.kind === 'fn') inStatements(item.body, see);
    if (item.kind === 'const') walk(item.value, see);
  }
  return uses;
}

/** How a wish is met: of a language that has floats alone, in floats. */
const styleOf = (e: ConventionCodec, { number, naming }: CodeWish, { floatsAlone }: Language): Style => {
  const { vectors } = e.conventions.matrix;
  return { number: floatsAlone ? 'float' : number, naming, listing: { vectors, columns: e.listsColumns } };
};

/** The source of a program with the camera's own numbers, if they are wanted. */
export const sourceOf = (setUp: SetUp, wish: CodeWish): string =>
  librarySource(setUp, wish.parts) +
  (wish.constants ? `\n// This very camera.\nfn this_camera(): Camera {\n  return ${cameraText(setUp)};\n}` : '');

/** The frame of this very camera: by its own function, or of its numbers where the code has none of them. */
export const frameText = (setUp: SetUp, { constants }: CodeWish): string => `frame_of(${constants ? 'this_camera()' : cameraText(setUp)})`; // prettier-ignore

/** A program in the small language, as a file of a language. */
export function printSource(source: string, e: ConventionCodec, wish: CodeWish): CodeFile {
  const language = languageOf(wish.language)!;
  const usesPi = /\bpi\b/.test(source.replace(/^const pi.*$/m, ''));
  const items = parseProgram(source).filter((item) => item.kind !== 'const' || item.name !== 'pi' || usesPi);
  return { name: language.file, text: new Printer(language, styleOf(e, wish, language)).program(items, usesOf(items)) }; // prettier-ignore
}
/** Writes the code of a setup in a language, with the version, the command and the conventions as its first comment. */
export function emitCode(setUp: SetUp, wish: CodeWish): CodeFile {
  const language = languageOf(wish.language)!;
  const { name, text } = printSource(sourceOf(setUp, wish), setUp.e, wish);
  const comment = fileComment({ ...wish, language: language.name }, setUp.e, is2d(setUp), language.comment);
  return { name, text: comment + withScope(language.name, wish.scope, text, text) };
}

/** Something that a program prints: an expression of the parts, and what it is expected to be. */
export interface Asked {
  readonly text: string;
  readonly comment: string | null;
}

/** The numbers of a value, one after another, as a language reaches them. */
function numbersOf(items: readonly Item[], printer: Printer) {
  const of = (type: Type, text: string): string[] => {
    const { language: l } = printer;
    const field = (name: string) => l.field(text, printer.fieldName(type, name));
    if (type === 'num' || type === 'int') return [text];
    if (type === 'bool') return [l.asNumber?.(text, printer.style) ?? text];
    const entry = (i: number, matrix: boolean) => l.entry?.(text, i, matrix) ?? `${text}[${i}]`;
    if (type === 'mat4') return Array.from({ length: 16 }, (_, i) => entry(i, true));
    if (type === 'vec2' || type === 'vec3') return [...(type === 'vec2' ? 'xy' : 'xyz')].map((one) => field(one));
    if (typeof type === 'object' && 'of' in type) return Array.from({ length: type.count }, (_, i) => of(type.of, entry(i, false))).flat(); // prettier-ignore
    if (typeof type === 'object') {
      const struct = items.find((one) => one.kind === 'struct' && one.name === type.struct);
      return struct?.kind === 'struct' ? struct.fields.flatMap((one) => of(one.type, field(one.name))) : [];
    }
    return [];
  };
  return of;
}

/** A program that prints the numbers of some expressions, a line each, beside the code itself. */
export const emitExample = (setUp: SetUp, wish: CodeWish, asked: readonly Asked[]): string =>
  printExample(sourceOf(setUp, wish), setUp.e, wish, asked);

/** The same beside any program in the small language. */
export function printExample(source: string, e: ConventionCodec, wish: CodeWish, asked: readonly Asked[]): string {
  const language = languageOf(wish.language)!;
  const items = parseProgram(`${source}\n${asked.map(({ text }, i) => `const asked_${i} = ${text};`).join('\n')}`);
  const values = items.filter((one): one is Const => one.kind === 'const' && one.name.startsWith('asked_'));
  const own = items.filter((one) => !values.includes(one as Const));
  const style = styleOf(e, wish, language);
  const printer = new Printer(language, style).knows(own);
  return language.main(values.map(({ value }, i) => ({ text: printer.expr(value), type: value.type, comment: asked[i]!.comment })), style, numbersOf(own, printer)).join('\n'); // prettier-ignore
}

/** The code of a region of Spawn, by these very terms, in a language: doubles where it has them. */
export function emitRegion(numbers: SpawnNumbers, e: ConventionCodec, language: string): CodeFile {
  const made = printSource(regionSource(numbers), e, { language, parts: [], number: 'double', naming: 'own', constants: true }); // prettier-ignore
  const renamed = (text: string) => text.replace(/CAMERA_H/g, 'SPAWN_H').replace(/CameraMath/g, 'SpawnRegion').replace(/(namespace|package) camera/g, '$1 spawn'); // prettier-ignore
  return { name: made.name.replace('CameraMath', 'SpawnRegion').replace('camera', 'spawn'), text: renamed(made.text) };
}

/** Whether test vectors are of a 2D camera. */
export const is2dVectors = ({ request }: Pick<Vectors, 'request'>): boolean =>
  (request as { camera?: { kind?: unknown } } | null)?.camera?.kind === '2d';

/** Returns the test vectors that some parts answer, in their order. */
export function vectorsOfParts(vectors: Vectors, parts: readonly CodePart[]): Vectors {
  const kinds = kindsOf(parts, is2dVectors(vectors));
  return { ...vectors, rows: vectors.rows.filter(({ kind }) => kinds.includes(kind)) };
}

/**
 * A program that runs the code over the table of test vectors (`vectorsTable`), and prints answers as
 * `astrolabe check` reads them: an id and its numbers, none for no picture; rows of what the parts do
 * not answer are passed over.
 */
export function emitHarness(setUp: SetUp, wish: CodeWish): string {
  const language = languageOf(wish.language)!;
  const own = parseProgram(sourceOf(setUp, wish));
  const asked = callsOf(setUp, withNeeded(setUp, wish.parts));
  const fns = asked.map(({ call, type }, i) => `fn asked_${i}(frame: Frame, given: [${inputCount}] num): ${type} { return ${call}; }`); // prettier-ignore
  const all = parseProgram(`${sourceOf(setUp, wish)}\n${fns.join('\n')}\nconst the_frame = ${frameText(setUp, wish)};`); // prettier-ignore
  const style = styleOf(setUp.e, wish, language);
  const printer = new Printer(language, style).knows(own);
  const numbers = numbersOf(own, printer);
  const cases = all.flatMap((item): HarnessCase[] => {
    if (item.kind !== 'fn' || !item.name.startsWith('asked_')) return [];
    const { kind } = asked[Number(item.name.slice(6))]!;
    const last = item.body.at(-1)!;
    if (last.kind !== 'return') return [];
    const { value } = last;
    const list = numbers(value.type, 'v');
    const guard =
      kind === 'worldToScreen' && !is2d(setUp) ? language.field('v', printer.fieldName(value.type, 'in_front')) : null;
    return [{ kind, text: printer.expr(value), type: printer.type(value.type), matrix: value.type === 'mat4', guard, numbers: guard ? list.slice(0, 4) : list }]; // prettier-ignore
  });
  const last = all.at(-1)!;
  if (last.kind !== 'const') throw new Error('the frame stands last');
  const text = language.harness({
    ...{ cases, frame: printer.expr(last.value), number: language.type('num', style) },
    columns: setUp.e.listsColumns,
  }).join('\n'); // prettier-ignore
  return wish.scope ? withScope(language.name, wish.scope, printSource(sourceOf(setUp, wish), setUp.e, wish).text, text) : text; // prettier-ignore
}
