import type { Language, Style } from '../print';
import { inputCount } from '../vectorKinds';
import { cFlow, cWords, flat, indented, pointed, simple } from './shared';

const types = { num: 'float', bool: 'bool', int: 'int', vec2: 'float2', vec3: 'float3', vec4: 'float4' };
/** How matrices lie in a constant buffer: the storage of the conventions. */
const storage = ({ listing }: Style): string =>
  listing.columns === (listing.vectors === 'column') ? 'column_major' : 'row_major';
/** How a point is multiplied. */
const multiplied = ({ listing }: Style): string =>
  listing.vectors === 'column'
    ? '// A point is multiplied from the right: mul(matrix, float4(point, 1)).'
    : '// A point is multiplied from the left: mul(float4(point, 1), matrix).';
const snake = (name: string): string => name.replace(/(?<!^)([A-Z])/g, '_$1').toLowerCase();

export const Hlsl: Language = {
  ...cWords,
  ...cFlow,
  asNumber: (truth) => `float(${truth})`,
  ...{ name: 'HLSL', file: 'camera.hlsl', operators: true, depth: 0, floatsAlone: true },
  naming: (of) => (of === 'const' ? 'upper' : of === 'type' ? 'pascal' : 'snake'),
  type: (type, style) => (type === 'mat4' ? `${storage(style)} float4x4` : simple(type, types)),
  number: (text) => pointed(text),
  builtin: (fn, args) => `${fn}(${args.join(', ')})`,
  makeVector: (type, args) => `${simple(type, types)}(${args.join(', ')})`,
  // Values of structs are made by functions: there is no expression for them.
  makeStruct: (name, _, items) => ({ open: `make_${snake(name)}(`, items, close: ')' }),
  makeMatrix: (rows) => ({ open: 'float4x4(', items: rows, close: ')' }),
  // A matrix is made of its rows. That of row vectors is the transpose.
  listsColumns: ({ listing }) => listing.vectors === 'row',
  makeList: (_, items) => ({ open: '', items, close: '' }),
  let: (name, type, value) => `${type} ${name} = ${value};`,
  fnHead: (name, params, result) => `${result} ${name}(${params.map((one) => `${one.type} ${one.name}`).join(', ')}) {`,
  struct: ({ name, fields }) => {
    const params = fields.flatMap(({ name: field, type, count }) =>
      count === null
        ? [{ text: `${type} ${field}`, set: `made.${field} = ${field};` }]
        : Array.from({ length: count }, (_, i) => ({
            text: `${type} ${field}_${i}`,
            set: `made.${field}[${i}] = ${field}_${i};`,
          })),
    );
    return [
      `struct ${name} {`,
      ...flat(fields, (one) => `${one.type} ${one.name}${one.count ? `[${one.count}]` : ''};`),
      '};',
      `${name} make_${snake(name)}(${params.map(({ text }) => text).join(', ')}) {`,
      `    ${name} made;`,
      ...params.map(({ set }) => `    ${set}`),
      '    return made;',
      '}',
    ];
  },
  constant: (name, type, value, style) =>
    typeof type === 'object' && 'of' in type
      ? [`static const ${Hlsl.type(type.of, style)} ${name}[${type.count}] = {${value}};`]
      : [`static const ${Hlsl.type(type, style)} ${name} = ${value};`],
  prelude: (style, uses) => [
    '// HLSL, shader model 5 or later.',
    ...(uses.has('vectors') ? ['// Constant buffers hold matrices as they are declared here.', multiplied(style)] : []),
  ],
  closing: () => [],
  mainFile: '',
  main: () => [],
  harnessFile: 'harness.hlsl',
  harness: ({ cases, frame, columns }) => [
    '// A compute shader that runs camera.hlsl over test vectors, a thread a row. `rows` has the index of the kind, as it',
    `// is listed below, and the ${inputCount} inputs of the row; “answers” 17 numbers a row, the last 1 where there is an answer.`,
    `// Kinds: ${cases.map(({ kind }, i) => `${i} ${kind}`).join(', ')}.`,
    '#include "camera.hlsl"',
    '',
    'StructuredBuffer<float> rows : register(t0);',
    'RWStructuredBuffer<float> answers : register(u0);',
    '',
    '[numthreads(1, 1, 1)]',
    'void main(uint3 id : SV_DispatchThreadID) {',
    `    uint row = ${1 + inputCount} * id.x;`,
    '    int kind = int(rows[row]);',
    `    float given[${inputCount}] = {${Array.from({ length: inputCount }, (_, i) => `rows[row + ${1 + i}]`).join(', ')}};`,
    `    Frame frame = ${indented(frame)};`,
    '    uint first = 17 * id.x;',
    '    answers[first + 16] = 1.0;',
    ...cases.flatMap(({ text, type, matrix, guard, numbers }, i) => [
      `    if (kind == ${i}) {`,
      `        ${type} v = ${text};`,
      ...(matrix
        ? Array.from({ length: 16 }, (_, k) => {
            // Row and column for column vectors; the value of row vectors is the transpose.
            const [r, c] = columns ? [k % 4, k >> 2] : [k >> 2, k % 4];
            const isTransposed = columns !== type.startsWith('column_major');
            return `        answers[first + ${k}] = ${isTransposed ? `v[${c}][${r}]` : `v[${r}][${c}]`};`;
          })
        : numbers.map((one, k) => `        answers[first + ${k}] = ${one};`)),
      ...(guard ? [`        answers[first + 16] = float(${guard});`] : []),
      '    }',
    ]),
    '}',
    '',
  ],
};
