import type { Language } from '../print';
import { inputCount } from '../vectorKinds';
import { simple, place, cTypes, cWords } from './shared';

/** What a program outside of the module says: functions by its name. */
const fromOutside = (text: string): string => text.replace(/(?<![\w.])([a-z]\w*)(?=\()/g, 'camera.$1');
export const TypeScript: Language = {
  ...cWords,
  entry: (list, i, matrix) => `${list}[${i}]${matrix ? '' : '!'}`,
  asNumber: (truth) => `Number(${truth})`,
  ...{ name: 'TypeScript', file: 'camera.ts', operators: false, depth: 0, indent: '  ' },
  naming: (of) => (of === 'type' ? 'pascal' : 'camel'),
  type: (type) => (type === 'mat4' ? 'readonly number[]' : simple(type, { ...cTypes('number'), bool: 'boolean', int: 'number' })), // prettier-ignore
  number: (text) => text,
  builtin: (fn, args) => ['dot', 'length', 'cross', 'normalize', 'mul'].includes(fn) ? `${fn}(${args.join(', ')})` : fn === 'exp2' ? `2 ** (${args[0]})` : `Math.${fn}(${args.join(', ')})`, // prettier-ignore
  vectorCall: (op, type, args) => `${{ '+': 'add', '-': 'sub', '*': 'scale', neg: 'negate' }[op]}${type === 'vec2' ? '2' : ''}(${args.join(', ')})`, // prettier-ignore
  makeVector: (type, args) => `${String(type)}(${args.join(', ')})`,
  makeStruct: (_, fields, args) => ({ open: '{', items: args.map((one, i) => (one === fields[i] ? one : `${fields[i]}: ${one}`)), close: '}', roomy: true, trailing: true }), // prettier-ignore
  makeMatrix: (rows) => ({ open: '[', items: rows, close: ']', trailing: true }),
  makeList: (_, items) => ({ open: '[', items, close: ']', trailing: true }),
  index: (of, _, printed) => `${of}[${printed}]!`,
  let: (name, _, value, mutable) => `${mutable ? 'let' : 'const'} ${name} = ${value};`,
  open: { if: (test) => `if (${test}) {`, otherwise: '} else {', for: (name, to) => `for (let ${name} = 0; ${name} < ${to}; ${name}++) {` }, // prettier-ignore
  ...{ close: '}', fnEnd: '}' },
  fnHead: (name, params, result) => `export function ${name}(${params.map((one) => `${one.name}: ${one.type}`).join(', ')}): ${result} {`, // prettier-ignore
  struct: ({ name, fields }) => [`export interface ${name} {`, ...fields.map((one) => `  readonly ${one.name}: ${one.count ? `readonly ${one.type}[]` : one.type};${one.comment ? ` // ${one.comment}` : ''}`), '}'], // prettier-ignore
  constant: (name, type, value) => typeof type === 'object' && 'of' in type ? [`export const ${name} = ${value};`] : [`const ${name} = ${value};`], // prettier-ignore
  prelude: (style, uses) => {
    const fn = (head: string, type: string, body: string) => [
      `const ${head.replace('(', ' = (')}: ${type} => ${body};`,
    ];
    const ab = 'a: Vec3, b: Vec3';
    return [
      ...(!uses.has('vectors')
        ? []
        : [
            'export interface Vec2 {',
            '  readonly x: number;',
            '  readonly y: number;',
            '}',
            ...(uses.has('vec3') ? ['export interface Vec3 {', '  readonly x: number;', '  readonly y: number;', '  readonly z: number;', '}'] : []), // prettier-ignore
            '',
            ...fn('vec2(x: number, y: number)', 'Vec2', '({ x, y })').map((one) => `export ${one}`),
            ...(uses.has('vec3')
              ? [
                  ...fn('vec3(x: number, y: number, z: number)', 'Vec3', '({ x, y, z })').map((one) => `export ${one}`),
                  ...fn(`add(${ab})`, 'Vec3', 'vec3(a.x + b.x, a.y + b.y, a.z + b.z)'),
                  ...fn(`sub(${ab})`, 'Vec3', 'vec3(a.x - b.x, a.y - b.y, a.z - b.z)'),
                ]
              : []),
            ...(uses.has('negate') ? fn('negate(v: Vec3)', 'Vec3', 'vec3(-v.x, -v.y, -v.z)') : []),
            ...(uses.has('vec3') ? fn('scale(v: Vec3, k: number)', 'Vec3', 'vec3(v.x * k, v.y * k, v.z * k)') : []),
            ...(uses.has('vec2') ? [...fn('sub2(a: Vec2, b: Vec2)', 'Vec2', 'vec2(a.x - b.x, a.y - b.y)'), ...fn('scale2(v: Vec2, k: number)', 'Vec2', 'vec2(v.x * k, v.y * k)')] : []), // prettier-ignore
            ...(uses.has('vec3') ? fn(`dot(${ab})`, 'number', 'a.x * b.x + a.y * b.y + a.z * b.z') : []),
            ...(uses.has('cross') ? fn(`cross(${ab})`, 'Vec3', 'vec3(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x)') : []), // prettier-ignore
            ...(uses.has('length') || uses.has('normalize')
              ? fn('length(v: Vec3)', 'number', 'Math.sqrt(dot(v, v))')
              : []),
            ...(uses.has('normalize') ? fn('normalize(v: Vec3)', 'Vec3', 'scale(v, 1 / length(v))') : []),
            ...(uses.has('mul')
              ? [
                  '',
                  'function mul(a: readonly number[], b: readonly number[]): number[] {',
                  '  const product = new Array<number>(16).fill(0);',
                  '  for (let r = 0; r < 4; r++) {',
                  '    for (let c = 0; c < 4; c++) {',
                  `      for (let k = 0; k < 4; k++) product[${place(style.listing, 'r', 'c')}]! += a[${place(style.listing, 'r', 'k')}]! * b[${place(style.listing, 'k', 'c')}]!;`, // prettier-ignore
                  '    }',
                  '  }',
                  '  return product;',
                  '}',
                ]
              : []),
          ]),
    ];
  },
  closing: () => [],
  main: (values, _, fields) => [
    "import * as camera from './camera.ts';",
    '',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`// ${comment}`] : []), `const v${i} = ${fromOutside(text)};`, ...fields(type, `v${i}`).map((one) => `console.log(Number(${one}));`)]), // prettier-ignore
    '',
  ],
  mainFile: 'main.ts',
  harnessFile: 'harness.ts',

  harness: ({ cases, frame }) => [
    '// Runs camera.ts over test vectors: node harness.ts vectors.csv > answers.csv',
    '// To try functions of your own, call them where those of camera.ts are called.',
    "import { readFileSync } from 'node:fs';",
    "import * as camera from './camera.ts';",
    '',
    `const frame = ${fromOutside(frame)};`,
    '// By what a row asks its numbers, none of them for no picture.',
    'const answers: Record<string, (given: readonly number[]) => readonly number[]> = {',
    ...cases.flatMap(({ kind, text, matrix, guard, numbers }) =>
      matrix
        ? [`  ${kind}: () => ${fromOutside(text)},`]
        : [
            `  ${kind}: (given) => {`,
            `    const v = ${fromOutside(text)};`,
            `    return ${guard ? `!${guard} ? [] : ` : ''}[${numbers.join(', ')}];`,
            '  },',
          ],
    ),
    '};',
    '',
    "for (const line of readFileSync(process.argv[2] ?? 'vectors.csv', 'utf8').trim().split(/\\r?\\n/)) {",
    "  const [id, kind = '', ...cells] = line.split(',');",
    `  const found = answers[kind]?.(cells.slice(0, ${inputCount}).map(Number));`,
    "  if (found) console.log([id, ...found].join(','));",
    '}',
    '',
  ],
};

/** TypeScript without types: field types stay as documentation. */
const untyped = (line: string): string =>
  line
    .replace(/\]!/g, ']')
    .replace(/: Record<.*> = \{$/, ' = {')
    .replace(/new Array<number>/, 'new Array')
    .replace(/: readonly number\[\]/g, '')
    .replaceAll('.ts', '.js')
    .replace('node harness.js', 'node harness.mjs');
/** Parameters and result of a function of the prelude without their types. */
const untypedHead = (line: string): string =>
  untyped(line)
    .replace(/(\w+): (?:Vec2|Vec3|number)(?=[,)])/g, '$1')
    .replace(/\): (?:Vec2|Vec3|number(?:\[\])?)(?= (?:=>|\{))/, ')');
const jsType: Readonly<Record<string, string>> = { 'readonly number[]': 'number[]' };

export const JavaScript: Language = {
  ...TypeScript,
  ...{ name: 'JavaScript', file: 'camera.js', mainFile: 'main.mjs', harnessFile: 'harness.mjs' },
  entry: (list, i) => `${list}[${i}]`,
  index: (of, _, printed) => `${of}[${printed}]`,
  fnHead: (name, params) => `export function ${name}(${params.map((one) => one.name).join(', ')}) {`,
  struct: ({ name, fields }) => [
    '/**',
    ` * @typedef {object} ${name}`,
    ...fields.map(({ name: field, type, count, comment }) => {
      const own = jsType[type] ?? type;
      return ` * @property {${own}${count ? '[]' : ''}} ${field}${comment ? ` ${comment}` : ''}`;
    }),
    ' */',
  ],
  prelude: (style, uses) => {
    const lines = TypeScript.prelude(style, uses);
    // The interfaces of vectors are nothing but types.
    const first = lines.findIndex((line) => line.startsWith('export const vec2'));
    return lines.slice(Math.max(0, first)).map(untypedHead);
  },
  main: (values, style, fields) => TypeScript.main(values, style, fields).map(untyped),
  harness: (of) => TypeScript.harness(of).map(untyped),
};
