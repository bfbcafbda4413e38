import type { Language } from '../print';
import { inputCount } from '../vectorKinds';
import { simple, place, cTypes, cNumber, cFlow, cWords, typeNaming, flat, indented, asksInput } from './shared';

const cMaths: Readonly<Record<string, string>> = { abs: 'fabs', min: 'fmin', max: 'fmax' };
export const C: Language = {
  ...cWords,
  ...cFlow,
  entry: (list, i, matrix) => (matrix ? `${list}.m[${i}]` : `${list}[${i}]`),
  ...{ name: 'C', file: 'camera.h', operators: false, depth: 0 },
  naming: (of) => typeNaming[of],
  type: (type, { number }) => simple(type, cTypes(number)),
  number: cNumber,
  builtin: (fn, args, { number }) => ['dot', 'length', 'cross', 'normalize'].includes(fn) ? `vec3_${fn}(${args.join(', ')})` : fn === 'mul' ? `mat4_${fn}(${args.join(', ')})` : `${cMaths[fn] ?? fn}${number === 'float' ? 'f' : ''}(${args.join(', ')})`, // prettier-ignore
  vectorCall: (op, type, args) => `${String(type)}_${{ '+': 'add', '-': 'sub', '*': 'scale', neg: 'negate' }[op]}(${args.join(', ')})`, // prettier-ignore
  makeVector: (type, args) => `(${simple(type, cTypes(''))}){${args.join(', ')}}`,
  makeStruct: (name, _, items) => ({ open: `(${name}){`, items, close: '}', roomy: false }),
  makeMatrix: (rows) => ({ open: '(Mat4){{', items: rows, close: '}}' }),
  makeList: (_, items) => ({ open: '{', items, close: '}' }),
  let: (name, type, value, mutable) => `${mutable ? '' : 'const '}${type} ${name} = ${value};`,
  fnHead: (name, params, result) => `static inline ${result} ${name}(${params.map((one) => `${one.type} ${one.name}`).join(', ')}) {`, // prettier-ignore
  struct: ({ name, fields }) => ['typedef struct {', ...flat(fields, (one) => `${one.type} ${one.name}${one.count ? `[${one.count}]` : ''};`), `} ${name};`], // prettier-ignore
  constant: (name, type, value, style) => typeof type === 'object' && 'of' in type ? [`static const ${C.type(type.of, style)} ${name}[${type.count}] = ${value.replaceAll('(Vec2)', '')};`] : [`static const ${C.type(type, style)} ${name} = ${value};`], // prettier-ignore
  prelude: (style, uses) => {
    const n = style.number;
    const f = n === 'float' ? 'f' : '';
    const sum = (of: string) => [`    return (${of}){a.x + b.x, a.y + b.y${of === 'Vec3' ? ', a.z + b.z' : ''}};`];
    const difference = (of: string) => [`    return (${of}){a.x - b.x, a.y - b.y${of === 'Vec3' ? ', a.z - b.z' : ''}};`]; // prettier-ignore
    const times = (of: string) => [`    return (${of}){v.x * k, v.y * k${of === 'Vec3' ? ', v.z * k' : ''}};`];
    const fn = (head: string, body: readonly string[]) => ['', `static inline ${head} {`, ...body, '}'];
    return [
      '#ifndef CAMERA_H',
      '#define CAMERA_H',
      '',
      '#include <math.h>',
      '#include <stdbool.h>',
      '',
      ...(!uses.has('vectors')
        ? []
        : [
            `typedef struct { ${n} x, y; } Vec2;`,
            ...(uses.has('vec3') ? [`typedef struct { ${n} x, y, z; } Vec3;`] : []),
            ...(uses.has('mat4') ? [`typedef struct { ${n} m[16]; } Mat4;`] : []),
            ...(uses.has('vec3') ? [...fn('Vec3 vec3_add(Vec3 a, Vec3 b)', sum('Vec3')), ...fn('Vec3 vec3_sub(Vec3 a, Vec3 b)', difference('Vec3')), ...fn(`Vec3 vec3_scale(Vec3 v, ${n} k)`, times('Vec3'))] : []), // prettier-ignore
            ...(uses.has('negate') ? fn('Vec3 vec3_negate(Vec3 v)', ['    return (Vec3){-v.x, -v.y, -v.z};']) : []),
            ...(uses.has('vec2') ? [...fn('Vec2 vec2_sub(Vec2 a, Vec2 b)', difference('Vec2')), ...fn(`Vec2 vec2_scale(Vec2 v, ${n} k)`, times('Vec2'))] : []), // prettier-ignore
            ...(uses.has('vec3') ? fn(`${n} vec3_dot(Vec3 a, Vec3 b)`, ['    return a.x * b.x + a.y * b.y + a.z * b.z;']) : []), // prettier-ignore
            ...(uses.has('cross') ? fn('Vec3 vec3_cross(Vec3 a, Vec3 b)', ['    return (Vec3){a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x};']) : []), // prettier-ignore
            ...(uses.has('length') || uses.has('normalize') ? fn(`${n} vec3_length(Vec3 v)`, [`    return sqrt${f}(vec3_dot(v, v));`]) : []), // prettier-ignore
            ...(uses.has('normalize') ? fn('Vec3 vec3_normalize(Vec3 v)', [`    return vec3_scale(v, ${cNumber('1', style)} / vec3_length(v));`]) : []), // prettier-ignore
            ...(!uses.has('mul')
              ? []
              : fn('Mat4 mat4_mul(Mat4 a, Mat4 b)', [
                  '    Mat4 product;',
                  '    for (int r = 0; r < 4; ++r) {',
                  '        for (int c = 0; c < 4; ++c) {',
                  `            ${n} sum = 0;`,
                  `            for (int k = 0; k < 4; ++k) sum += a.m[${place(style.listing, 'r', 'k')}] * b.m[${place(style.listing, 'k', 'c')}];`, // prettier-ignore
                  `            product.m[${place(style.listing, 'r', 'c')}] = sum;`,
                  '        }',
                  '    }',
                  '    return product;',
                ])),
          ]),
    ];
  },
  closing: () => ['', '#endif'],
  main: (values, style, fields) => [
    '#include "camera.h"',
    '#include <stdio.h>',
    '',
    'int main(void) {',
    ...values.flatMap(({ text, type, comment }, i) => [...(comment ? [`    // ${comment}`] : []), `    const ${C.type(type, style)} v${i} = ${text};`, ...fields(type, `v${i}`).map((one) => `    printf("%.17g\\n", (double)${one});`)]), // prettier-ignore
    '    return 0;',
    '}',
    '',
  ],
  mainFile: 'main.c',
  harnessFile: 'harness.c',

  harness: ({ cases, frame, number: n }) => [
    '// Runs camera.h over test vectors: harness vectors.csv > answers.csv',
    '// To try functions of your own, call them where those of camera.h are called.',
    '#include "camera.h"',
    '#include <stdio.h>',
    '#include <stdlib.h>',
    '#include <string.h>',
    '',
    `static void print(const char* id, const ${n}* numbers, int count) {`,
    '    printf("%s", id);',
    '    for (int i = 0; i < count; ++i) printf(",%.17g", (double)numbers[i]);',
    '    printf("\\n");',
    '}',
    '',
    '// A row: its id, what is asked, and the numbers that go in.',
    `static void answer(const char* id, const char* kind, const ${n}* given) {`,
    ...(asksInput(cases) ? [] : ['    (void)given;']),
    `    const Frame frame = ${indented(frame)};`,
    ...cases.flatMap(({ kind, text, type, matrix, guard, numbers }) =>
      matrix
        ? [`    if (strcmp(kind, "${kind}") == 0) print(id, ${text}.m, 16);`]
        : [
            `    if (strcmp(kind, "${kind}") == 0) {`,
            `        const ${type} v = ${text};`,
            `        print(id, (const ${n}[]){${numbers.join(', ')}}, ${guard ? `${guard} ? ${numbers.length} : 0` : numbers.length});`,
            '    }',
          ],
    ),
    '}',
    '',
    'int main(int argc, char** argv) {',
    '    FILE* file = fopen(argc > 1 ? argv[1] : "vectors.csv", "r");',
    '    if (!file) return 2;',
    '    for (char line[2048]; fgets(line, sizeof line, file);) {',
    `        char *cells[${2 + inputCount}], *at = line;`,
    `        for (int i = 0; i < ${2 + inputCount}; ++i) {`,
    '            cells[i] = at;',
    '            at += strcspn(at, ",\\r\\n");',
    "            if (*at) *at++ = '\\0';",
    '        }',
    `        ${n} given[${inputCount}];`,
    `        for (int i = 0; i < ${inputCount}; ++i) given[i] = (${n})strtod(cells[2 + i], NULL);`,
    '        answer(cells[0], cells[1], given);',
    '    }',
    '    return 0;',
    '}',
    '',
  ],
};
