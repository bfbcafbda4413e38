import type { Expr, Type } from './program';
import type { Language, Listing, NumberType, Style } from './print';

/*
 * Eleven languages: what each has of its own, and the few lines that it is given for vectors and
 * matrices.
 */

const isStruct = (type: Type): type is { readonly struct: string } => typeof type === 'object' && 'struct' in type;
const simple = (type: Type, names: Readonly<Record<string, string>>): string => isStruct(type) ? type.struct : (names[type as string] ?? String(type)); // prettier-ignore
const pointed = (text: string): string => (/[.e]/.test(text) ? text : `${text}.0`);
/** The place of a row and a column of a matrix, as its vectors have it, in the listing: as text. */
const place = ({ columns, vectors }: Listing, row: string, column: string): string =>
  columns === (vectors === 'column') ? `4 * ${column} + ${row}` : `4 * ${row} + ${column}`;
/** The three loops of a product of matrices, in brackets: row, column and what is summed over. */
function productLoops(style: Style, indent: string, step: string, head: (name: string) => string, end = ';'): string[] {
  const at = (row: string, column: string) => place(style.listing, row, column);
  return [
    `${indent}${head('r')}`,
    `${indent}${step}${head('c')}`,
    `${indent}${step}${step}${head('k')}`,
    `${indent}${step}${step}${step}product[${at('r', 'c')}] += a[${at('r', 'k')}] * b[${at('k', 'c')}]${end}`,
    `${indent}${step}${step}}`,
    `${indent}${step}}`,
    `${indent}}`,
  ];
}
const plainIndex = (of: string, _at: Expr, printed: string): string => `${of}[${printed}]`;

const cTypes = (number: string) => ({ num: number, bool: 'bool', int: 'int', vec2: 'Vec2', vec3: 'Vec3', vec4: 'Vec4', mat4: 'Mat4' }); // prettier-ignore
const cNumber = (text: string, { number }: { number: NumberType }): string => pointed(text) + (number === 'float' ? 'f' : ''); // prettier-ignore
const cFlow = {
  open: {
    if: (test: string) => `if (${test}) {`,
    otherwise: '} else {',
    for: (name: string, to: string) => `for (int ${name} = 0; ${name} < ${to}; ++${name}) {`,
  },
  close: '}',
  fnEnd: '}',
};
const cWords = {
  comment: '//',
  indent: '    ',
  and: '&&',
  or: '||',
  not: (of: string) => `!${of}`,
  set: (to: string, value: string) => `${to} = ${value};`,
  ret: (value: string) => `return ${value};`,
  field: (of: string, name: string) => `${of}.${name}`,
  index: plainIndex,
} as const;
const called = (names: Readonly<Record<string, string>>) => (fn: string, args: readonly string[]): string => `${names[fn] ?? fn}(${args.join(', ')})`; // prettier-ignore
const typeNaming = { fn: 'snake', value: 'snake', field: 'snake', type: 'pascal', const: 'snake' } as const;
const flat = (fields: readonly { name: string; type: string; count: number | null; comment: string | null }[], print: (one: { name: string; type: string; count: number | null }) => string, comment = '//'): string[] => fields.map((one) => `    ${print(one)}${one.comment ? ` ${comment} ${one.comment}` : ''}`); // prettier-ignore

const cMaths: Readonly<Record<string, string>> = { abs: 'fabs', min: 'fmin', max: 'fmax' };
const C: Language = {
  ...cWords,
  ...cFlow,
  entry: (list, i, matrix) => (matrix ? `${list}.m[${i}]` : `${list}[${i}]`),
  ...{ name: 'C', file: 'camera.h', operators: false, pointed: true, depth: 0 },
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
      `typedef struct { ${n} x, y; } Vec2;`,
      `typedef struct { ${n} x, y, z; } Vec3;`,
      `typedef struct { ${n} m[16]; } Mat4;`,
      ...fn('Vec3 vec3_add(Vec3 a, Vec3 b)', sum('Vec3')),
      ...fn('Vec3 vec3_sub(Vec3 a, Vec3 b)', difference('Vec3')),
      ...fn(`Vec3 vec3_scale(Vec3 v, ${n} k)`, times('Vec3')),
      ...(uses.has('negate') ? fn('Vec3 vec3_negate(Vec3 v)', ['    return (Vec3){-v.x, -v.y, -v.z};']) : []),
      ...(uses.has('vec2') ? [...fn('Vec2 vec2_sub(Vec2 a, Vec2 b)', difference('Vec2')), ...fn(`Vec2 vec2_scale(Vec2 v, ${n} k)`, times('Vec2'))] : []), // prettier-ignore
      ...fn(`${n} vec3_dot(Vec3 a, Vec3 b)`, ['    return a.x * b.x + a.y * b.y + a.z * b.z;']),
      ...(uses.has('cross') ? fn('Vec3 vec3_cross(Vec3 a, Vec3 b)', ['    return (Vec3){a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x};']) : []), // prettier-ignore
      ...(uses.has('length') || uses.has('normalize') ? fn(`${n} vec3_length(Vec3 v)`, [`    return sqrt${f}(vec3_dot(v, v));`]) : []), // prettier-ignore
      ...(uses.has('normalize') ? fn('Vec3 vec3_normalize(Vec3 v)', [`    return vec3_scale(v, ${cNumber('1', style)} / vec3_length(v));`]) : []), // prettier-ignore
      ...fn('Mat4 mat4_mul(Mat4 a, Mat4 b)', [
        '    Mat4 product;',
        '    for (int r = 0; r < 4; ++r) {',
        '        for (int c = 0; c < 4; ++c) {',
        `            ${n} sum = 0;`,
        `            for (int k = 0; k < 4; ++k) sum += a.m[${place(style.listing, 'r', 'k')}] * b.m[${place(style.listing, 'k', 'c')}];`, // prettier-ignore
        `            product.m[${place(style.listing, 'r', 'c')}] = sum;`,
        '        }',
        '    }',
        '    return product;',
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
};

const stdMaths: Readonly<Record<string, string>> = Object.fromEntries(['sin', 'cos', 'tan', 'sqrt', 'atan', 'exp2', 'abs', 'min', 'max'].map((fn) => [fn, `std::${fn}`])); // prettier-ignore
const Cpp: Language = {
  ...cWords,
  ...cFlow,
  ...{ name: 'C++', file: 'camera.hpp', operators: true, pointed: true, depth: 0 },
  naming: (of) => typeNaming[of],
  type: (type, { number }) => simple(type, cTypes(number)),
  number: cNumber,
  builtin: called(stdMaths),
  makeVector: (type, args) => `${simple(type, cTypes(''))}{${args.join(', ')}}`,
  makeStruct: (name, _, items) => ({ open: `${name}{`, items, close: '}' }),
  makeMatrix: (rows) => ({ open: 'Mat4{', items: rows, close: '}' }),
  makeList: (_, items) => ({ open: '{', items, close: '}' }),
  let: (name, type, value, mutable) => `${mutable ? '' : 'const '}${type} ${name} = ${value};`,
  fnHead: (name, params, result) => `inline ${result} ${name}(${params.map(({ type, name: own }) => (/^(?:double|float|bool|int|Vec2)$/.test(type) ? `${type} ${own}` : `const ${type}& ${own}`)).join(', ')}) {`, // prettier-ignore
  struct: ({ name, fields }) => [`struct ${name} {`, ...flat(fields, (one) => `${one.count ? `std::array<${one.type}, ${one.count}>` : one.type} ${one.name};`), '};'], // prettier-ignore
  constant: (name, type, value, style) => typeof type === 'object' && 'of' in type ? [`inline constexpr std::array<${Cpp.type(type.of, style)}, ${type.count}> ${name}${value};`] : [`inline constexpr ${Cpp.type(type, style)} ${name} = ${value};`], // prettier-ignore
  prelude: (style, uses) => {
    const n = style.number;
    const ref = 'const Vec3&';
    const fn = (head: string, body: string) => [`inline ${head} {`, `    return ${body};`, '}'];
    return [
      '#pragma once',
      '',
      '#include <algorithm>',
      '#include <array>',
      '#include <cmath>',
      '',
      'namespace camera {',
      '',
      `struct Vec2 {`,
      `    ${n} x, y;`,
      '};',
      `struct Vec3 {`,
      `    ${n} x, y, z;`,
      '};',
      `using Mat4 = std::array<${n}, 16>;`,
      '',
      ...fn(`Vec3 operator+(${ref} a, ${ref} b)`, '{a.x + b.x, a.y + b.y, a.z + b.z}'),
      ...fn(`Vec3 operator-(${ref} a, ${ref} b)`, '{a.x - b.x, a.y - b.y, a.z - b.z}'),
      ...(uses.has('negate') ? fn(`Vec3 operator-(${ref} v)`, '{-v.x, -v.y, -v.z}') : []),
      ...fn(`Vec3 operator*(${ref} v, ${n} k)`, '{v.x * k, v.y * k, v.z * k}'),
      ...(uses.has('vec2') ? [...fn('Vec2 operator-(Vec2 a, Vec2 b)', '{a.x - b.x, a.y - b.y}'), ...fn(`Vec2 operator*(Vec2 v, ${n} k)`, '{v.x * k, v.y * k}')] : []), // prettier-ignore
      ...fn(`${n} dot(${ref} a, ${ref} b)`, 'a.x * b.x + a.y * b.y + a.z * b.z'),
      ...(uses.has('cross') ? fn(`Vec3 cross(${ref} a, ${ref} b)`, '{a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}') : []), // prettier-ignore
      ...(uses.has('length') || uses.has('normalize') ? fn(`${n} length(${ref} v)`, 'std::sqrt(dot(v, v))') : []),
      ...(uses.has('normalize') ? fn(`Vec3 normalize(${ref} v)`, `v * (${cNumber('1', style)} / length(v))`) : []),
      'inline Mat4 mul(const Mat4& a, const Mat4& b) {',
      '    Mat4 product{};',
      ...productLoops(style, '    ', '    ', (name) => `for (int ${name} = 0; ${name} < 4; ++${name}) {`),
      '    return product;',
      '}',
    ];
  },
  closing: () => ['', '}  // namespace camera'],
  main: (values, _, fields) => [
    '#include "camera.hpp"',
    '#include <cstdio>',
    '',
    'int main() {',
    '    using namespace camera;',
    ...values.flatMap(({ text, type, comment }, i) => [...(comment ? [`    // ${comment}`] : []), `    const auto v${i} = ${text};`, ...fields(type, `v${i}`).map((one) => `    std::printf("%.17g\\n", static_cast<double>(${one}));`)]), // prettier-ignore
    '}',
    '',
  ],
};

type Fields = readonly { readonly name: string; readonly type: string; readonly count: number | null; readonly comment: string | null }[]; // prettier-ignore
/** A struct of values that are set once, with the constructor that sets them. */
function csharpStruct(name: string, fields: Fields): string[] {
  const lower = (text: string) => text[0]!.toLowerCase() + text.slice(1);
  const type = (one: Fields[number]) => `${one.type}${one.count ? '[]' : ''}`;
  return [
    `public struct ${name} {`,
    ...fields.map((one) => `    public readonly ${type(one)} ${one.name};${one.comment ? ` // ${one.comment}` : ''}`),
    `    public ${name}(${fields.map((one) => `${type(one)} ${lower(one.name)}`).join(', ')}) {`,
    ...fields.map((one) => `        this.${one.name} = ${lower(one.name)};`),
    '    }',
    '}',
  ];
}
const csharpMaths: Readonly<Record<string, string>> = { sin: 'Sin', cos: 'Cos', tan: 'Tan', sqrt: 'Sqrt', atan: 'Atan', abs: 'Abs', min: 'Min', max: 'Max' }; // prettier-ignore
const CSharp: Language = {
  ...cWords,
  ...cFlow,
  asNumber: (truth) => `(${truth} ? 1 : 0)`,
  ...{ name: 'C#', file: 'CameraMath.cs', operators: true, pointed: true, depth: 1 },
  naming: (of) => (({ fn: 'pascal', value: 'camel', field: 'pascal', type: 'pascal', const: 'pascal' }) as const)[of],
  type: (type, { number }) => (type === 'mat4' ? `${number}[]` : simple(type, { ...cTypes(number) })),
  number: cNumber,
  builtin: (fn, args, { number }) => {
    const maths = number === 'float' ? 'MathF' : 'Math';
    if (fn === 'exp2') return `${maths}.Pow(${cNumber('2', { number })}, ${args[0]})`;
    return csharpMaths[fn] ? `${maths}.${csharpMaths[fn]}(${args.join(', ')})` : `${fn[0]!.toUpperCase()}${fn.slice(1)}(${args.join(', ')})`; // prettier-ignore
  },
  makeVector: (type, args) => `new ${simple(type, cTypes(''))}(${args.join(', ')})`,
  makeStruct: (name, _, items) => ({ open: `new ${name}(`, items, close: ')' }),
  makeMatrix: (rows) => ({ open: 'new[] {', items: rows, close: '}', roomy: true, trailing: true }),
  makeList: (_, items) => ({ open: 'new[] {', items, close: '}', roomy: true }),
  let: (name, type, value) => `${type} ${name} = ${value};`,
  fnHead: (name, params, result) => `public static ${result} ${name}(${params.map((one) => `${one.type} ${one.name}`).join(', ')}) {`, // prettier-ignore
  struct: ({ name, fields }) => csharpStruct(name, fields),
  constant: (name, type, value, style) => typeof type === 'object' && 'of' in type ? [`public static readonly ${CSharp.type(type.of, style)}[] ${name} = ${value};`] : [`private const ${CSharp.type(type, style)} ${name} = ${value};`], // prettier-ignore
  prelude: (style, uses) => {
    const n = style.number;
    const vector = (name: string, fields: readonly string[]) => {
      const each = (f: (one: string) => string) => fields.map(f).join(', ');
      const lines = csharpStruct(name, fields.map((one) => ({ name: one, type: n, count: null, comment: null })));
      return [
        ...lines.slice(0, -1),
        ...(name === 'Vec3' ? [`    public static Vec3 operator +(Vec3 a, Vec3 b) => new Vec3(${each((one) => `a.${one} + b.${one}`)});`] : []),
        `    public static ${name} operator -(${name} a, ${name} b) => new ${name}(${each((one) => `a.${one} - b.${one}`)});`,
        ...(name === 'Vec3' && uses.has('negate') ? [`    public static Vec3 operator -(Vec3 v) => new Vec3(${each((one) => `-v.${one}`)});`] : []),
        `    public static ${name} operator *(${name} v, ${n} k) => new ${name}(${each((one) => `v.${one} * k`)});`,
        '}',
      ].map((line) => `    ${line}`);
    }; // prettier-ignore
    const maths = n === 'float' ? 'MathF' : 'Math';
    return [
      'using System;',
      '',
      'public static class CameraMath {',
      ...vector('Vec2', ['X', 'Y']),
      ...vector('Vec3', ['X', 'Y', 'Z']),
      `    public static ${n} Dot(Vec3 a, Vec3 b) => a.X * b.X + a.Y * b.Y + a.Z * b.Z;`,
      ...(uses.has('cross') ? ['    public static Vec3 Cross(Vec3 a, Vec3 b) => new Vec3(a.Y * b.Z - a.Z * b.Y, a.Z * b.X - a.X * b.Z, a.X * b.Y - a.Y * b.X);'] : []), // prettier-ignore
      ...(uses.has('length') || uses.has('normalize') ? [`    public static ${n} Length(Vec3 v) => ${maths}.Sqrt(Dot(v, v));`] : []), // prettier-ignore
      ...(uses.has('normalize') ? [`    public static Vec3 Normalize(Vec3 v) => v * (${cNumber('1', style)} / Length(v));`] : []), // prettier-ignore
      '',
      `    public static ${n}[] Mul(${n}[] a, ${n}[] b) {`,
      `        var product = new ${n}[16];`,
      ...productLoops(style, '        ', '    ', (name) => `for (int ${name} = 0; ${name} < 4; ++${name}) {`),
      '        return product;',
      '    }',
    ];
  },
  closing: () => ['}'],
  main: (values, _, fields) => [
    'using System;',
    'using System.Globalization;',
    'using static CameraMath;',
    '',
    'public static class Example {',
    '    public static void Main() {',
    '        CultureInfo.CurrentCulture = CultureInfo.InvariantCulture;',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`        // ${comment}`] : []), `        var v${i} = ${text};`, ...fields(type, `v${i}`).map((one) => `        Console.WriteLine(((double)${one}).ToString("R"));`)]), // prettier-ignore
    '    }',
    '}',
    '',
  ],
};

const Java: Language = {
  ...cWords,
  ...cFlow,
  asNumber: (truth) => `(${truth} ? 1 : 0)`,
  ...{ name: 'Java', file: 'CameraMath.java', operators: false, pointed: true, depth: 1 },
  naming: (of) => (({ fn: 'camel', value: 'camel', field: 'camel', type: 'pascal', const: 'upper' }) as const)[of],
  type: (type, { number }) => (type === 'mat4' ? `${number}[]` : simple(type, { ...cTypes(number), bool: 'boolean' })),
  number: cNumber,
  field: (of, name) => `${of}.${name}()`,
  builtin: (fn, args, { number }) => {
    const own = ['dot', 'length', 'cross', 'normalize', 'mul'].includes(fn);
    const text = own ? `${fn}(${args.join(', ')})` : fn === 'exp2' ? `Math.pow(2, ${args[0]})` : `Math.${fn}(${args.join(', ')})`; // prettier-ignore
    return number === 'float' && !own && !['abs', 'min', 'max'].includes(fn) ? `(float) ${text}` : text;
  },
  vectorCall: (op, _, args) => `${{ '+': 'add', '-': 'sub', '*': 'scale', neg: 'negate' }[op]}(${args.join(', ')})`,
  makeVector: (type, args) => `new ${simple(type, cTypes(''))}(${args.join(', ')})`,
  makeStruct: (name, _, items) => ({ open: `new ${name}(`, items, close: ')' }),
  makeMatrix: (rows, { number }) => ({ open: `new ${number}[] {`, items: rows, close: '}', roomy: true }),
  makeList: (type, items, style) => ({ open: `new ${Java.type((type as { of: Type }).of, style)}[] {`, items, close: '}', roomy: true }), // prettier-ignore
  let: (name, type, value, mutable) => `${mutable ? '' : 'final '}${type} ${name} = ${value};`,
  fnHead: (name, params, result) => `public static ${result} ${name}(${params.map((one) => `${one.type} ${one.name}`).join(', ')}) {`, // prettier-ignore
  struct: ({ name, fields }) => [`public record ${name}(${fields.map((one) => `${one.type}${one.count ? '[]' : ''} ${one.name}`).join(', ')}) {}`], // prettier-ignore
  constant: (name, type, value, style) => typeof type === 'object' && 'of' in type ? [`private static final ${Java.type(type.of, style)}[] ${name} = ${value};`] : [`private static final ${Java.type(type, style)} ${name} = ${value};`], // prettier-ignore
  prelude: (style, uses) => {
    const n = style.number;
    const fn = (head: string, body: string) => [`    private static ${head} {`, `        return ${body};`, '    }'];
    const root = n === 'float' ? '(float) Math.sqrt(dot(v, v))' : 'Math.sqrt(dot(v, v))';
    return [
      'public final class CameraMath {',
      '    private CameraMath() {}',
      '',
      `    public record Vec2(${n} x, ${n} y) {}`,
      `    public record Vec3(${n} x, ${n} y, ${n} z) {}`,
      '',
      ...fn('Vec3 add(Vec3 a, Vec3 b)', 'new Vec3(a.x() + b.x(), a.y() + b.y(), a.z() + b.z())'),
      ...fn('Vec3 sub(Vec3 a, Vec3 b)', 'new Vec3(a.x() - b.x(), a.y() - b.y(), a.z() - b.z())'),
      ...(uses.has('negate') ? fn('Vec3 negate(Vec3 v)', 'new Vec3(-v.x(), -v.y(), -v.z())') : []),
      ...fn(`Vec3 scale(Vec3 v, ${n} k)`, 'new Vec3(v.x() * k, v.y() * k, v.z() * k)'),
      ...(uses.has('vec2') ? [...fn('Vec2 sub(Vec2 a, Vec2 b)', 'new Vec2(a.x() - b.x(), a.y() - b.y())'), ...fn(`Vec2 scale(Vec2 v, ${n} k)`, 'new Vec2(v.x() * k, v.y() * k)')] : []), // prettier-ignore
      ...fn(`${n} dot(Vec3 a, Vec3 b)`, 'a.x() * b.x() + a.y() * b.y() + a.z() * b.z()'),
      ...(uses.has('cross') ? fn('Vec3 cross(Vec3 a, Vec3 b)', 'new Vec3(a.y() * b.z() - a.z() * b.y(), a.z() * b.x() - a.x() * b.z(), a.x() * b.y() - a.y() * b.x())') : []), // prettier-ignore
      ...(uses.has('length') || uses.has('normalize') ? fn(`${n} length(Vec3 v)`, root) : []),
      ...(uses.has('normalize') ? fn('Vec3 normalize(Vec3 v)', `scale(v, ${cNumber('1', style)} / length(v))`) : []),
      `    private static ${n}[] mul(${n}[] a, ${n}[] b) {`,
      `        final ${n}[] product = new ${n}[16];`,
      ...productLoops(style, '        ', '    ', (name) => `for (int ${name} = 0; ${name} < 4; ++${name}) {`),
      '        return product;',
      '    }',
    ];
  },
  closing: () => ['}'],
  main: (values, { number }, fields) => [
    'public final class Example {',
    '    public static void main(String[] args) {',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`        // ${comment}`] : []), `        final var v${i} = ${text.replace(/(?<![\w.])(?:new (?!double|float)|(?=[a-z]\w*\())/g, (found) => (found ? 'new CameraMath.' : 'CameraMath.'))};`, ...fields(type, `v${i}`).map((one) => `        System.out.println(${number === 'float' ? '(double) ' : ''}${one});`)]), // prettier-ignore
    '    }',
    '}',
    '',
  ],
};

const rustMaths: ReadonlySet<string> = new Set(['sin', 'cos', 'tan', 'sqrt', 'atan', 'exp2', 'abs', 'min', 'max']);
const Rust: Language = {
  ...cWords,
  asNumber: (truth) => `${truth} as u8 as f64`,
  ...{ name: 'Rust', file: 'camera.rs', operators: true, pointed: true, depth: 0 },
  tail: (line) => line.replace('return ', ''),
  argument: (type, text) => (isStruct(type) ? `&${text}` : text),
  naming: (of) => (of === 'const' ? 'upper' : of === 'type' ? 'pascal' : 'snake'),
  type: (type, { number }) => { const n = number === 'float' ? 'f32' : 'f64'; return type === 'mat4' ? `[${n}; 16]` : simple(type, { ...cTypes(n), int: 'usize' }); }, // prettier-ignore
  number: (text) => pointed(text),
  builtin: (fn, args) => {
    if (!rustMaths.has(fn)) return `${fn}(${args.join(', ')})`;
    // A number by itself has no type to call upon: of two the other is called.
    const [self = '', ...rest] = args.length > 1 && /^[\d.]+$/.test(args[0]!) ? [...args].reverse() : args;
    return `${/^[A-Za-z_][\w.]*(?:\[\w+\])?$/.test(self) ? self : `(${self})`}.${fn}(${rest.join(', ')})`;
  },
  makeVector: (type, args) => `${simple(type, cTypes(''))}::new(${args.join(', ')})`,
  makeStruct: (name, fields, args) => ({ open: `${name} {`, items: args.map((one, i) => (one === fields[i] ? one : `${fields[i]}: ${one}`)), close: '}', roomy: true, trailing: true }), // prettier-ignore
  makeMatrix: (rows) => ({ open: '[', items: rows, close: ']', trailing: true }),
  makeList: (_, items) => ({ open: '[', items, close: ']', trailing: true }),
  let: (name, type, value, mutable) => `let ${mutable ? `mut ${name}: ${type}` : name} = ${value};`,
  open: { if: (test) => `if ${test} {`, otherwise: '} else {', for: (name, to) => `for ${name} in 0..${to} {` },
  ...{ close: '}', fnEnd: '}' },
  fnHead: (name, params, result) => `pub fn ${name}(${params.map((one) => `${one.name}: ${/^[A-Z]/.test(one.type) && !/^Vec/.test(one.type) ? '&' : ''}${one.type}`).join(', ')}) -> ${result} {`, // prettier-ignore
  struct: ({ name, fields }) => ['#[derive(Clone, Copy, Debug)]', `pub struct ${name} {`, ...flat(fields, (one) => `pub ${one.name}: ${one.count ? `[${one.type}; ${one.count}]` : one.type},`), '}'], // prettier-ignore
  constant: (name, type, value, style) => typeof type === 'object' && 'of' in type ? [`pub const ${name}: [${Rust.type(type.of, style)}; ${type.count}] = ${value};`] : [`const ${name}: ${Rust.type(type, style)} = ${value};`], // prettier-ignore
  prelude: (style, uses) => {
    const n = Rust.type('num', style);
    const op = (trait: string, fn: string, of: string, other: string, body: string) => [`impl ${trait} for ${of} {`, `    type Output = ${of};`, `    fn ${fn}(self${other}) -> ${of} {`, `        ${body}`, '    }', '}']; // prettier-ignore
    const vector = (name: string, fields: readonly string[]) => [
      '#[derive(Clone, Copy, Debug)]',
      `pub struct ${name} {`,
      ...fields.map((one) => `    pub ${one}: ${n},`),
      '}',
      '',
      `impl ${name} {`,
      `    pub const fn new(${fields.map((one) => `${one}: ${n}`).join(', ')}) -> Self {`,
      `        Self { ${fields.join(', ')} }`,
      '    }',
      '}',
      '',
    ];
    return [
      ...(style.naming === 'camel' || style.naming === 'pascal' ? ['#![allow(non_snake_case)]', ''] : []),
      `use std::ops::{${['Add', 'Mul', ...(uses.has('negate') ? ['Neg'] : []), 'Sub'].join(', ')}};`,
      '',
      ...vector('Vec2', ['x', 'y']),
      ...vector('Vec3', ['x', 'y', 'z']),
      ...op('Add', 'add', 'Vec3', ', b: Vec3', 'Vec3::new(self.x + b.x, self.y + b.y, self.z + b.z)'),
      ...op('Sub', 'sub', 'Vec3', ', b: Vec3', 'Vec3::new(self.x - b.x, self.y - b.y, self.z - b.z)'),
      ...(uses.has('negate') ? op('Neg', 'neg', 'Vec3', '', 'Vec3::new(-self.x, -self.y, -self.z)') : []),
      ...op(`Mul<${n}>`, 'mul', 'Vec3', `, k: ${n}`, 'Vec3::new(self.x * k, self.y * k, self.z * k)'),
      ...(uses.has('vec2') ? [...op('Sub', 'sub', 'Vec2', ', b: Vec2', 'Vec2::new(self.x - b.x, self.y - b.y)'), ...op(`Mul<${n}>`, 'mul', 'Vec2', `, k: ${n}`, 'Vec2::new(self.x * k, self.y * k)')] : []), // prettier-ignore
      '',
      `pub fn dot(a: Vec3, b: Vec3) -> ${n} {`,
      '    a.x * b.x + a.y * b.y + a.z * b.z',
      '}',
      ...(uses.has('cross') ? ['', 'pub fn cross(a: Vec3, b: Vec3) -> Vec3 {', '    Vec3::new(', '        a.y * b.z - a.z * b.y,', '        a.z * b.x - a.x * b.z,', '        a.x * b.y - a.y * b.x,', '    )', '}'] : []), // prettier-ignore
      ...(uses.has('length') || uses.has('normalize') ? ['', `pub fn length(v: Vec3) -> ${n} {`, '    dot(v, v).sqrt()', '}'] : []), // prettier-ignore
      ...(uses.has('normalize') ? ['', 'pub fn normalize(v: Vec3) -> Vec3 {', '    v * (1.0 / length(v))', '}'] : []),
      '',
      `pub fn mul(a: [${n}; 16], b: [${n}; 16]) -> [${n}; 16] {`,
      '    let mut product = [0.0; 16];',
      ...productLoops(style, '    ', '    ', (name) => `for ${name} in 0..4 {`),
      '    product',
      '}',
    ];
  },
  closing: () => [],
  main: (values, _, fields) => [
    'mod camera;',
    'use camera::*;',
    '',
    'fn main() {',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`    // ${comment}`] : []), `    let v${i} = ${text};`, ...fields(type, `v${i}`).map((one) => `    println!("{:?}", ${one});`)]), // prettier-ignore
    '}',
    '',
  ],
};

const goMaths: Readonly<Record<string, string>> = { sin: 'Sin', cos: 'Cos', tan: 'Tan', sqrt: 'Sqrt', atan: 'Atan', exp2: 'Exp2', abs: 'Abs', min: 'Min', max: 'Max' }; // prettier-ignore
const Go: Language = {
  ...cWords,
  asNumber: (truth) => `map[bool]int{true: 1}[${truth}]`,
  ...{ name: 'Go', file: 'camera.go', operators: false, pointed: false, depth: 0, indent: '\t' },
  // A capital is what makes a name known outside.
  fixedNames: true,
  naming: (of) => (({ fn: 'pascal', value: 'camel', field: 'pascal', type: 'pascal', const: 'camel' }) as const)[of],
  type: (type, { number }) => { const n = number === 'float' ? 'float32' : 'float64'; return type === 'mat4' ? `[16]${n}` : simple(type, cTypes(n)); }, // prettier-ignore
  number: (text) => text,
  builtin: (fn, args, { number }) => {
    if (!goMaths[fn]) return `${fn}(${args.join(', ')})`;
    if (number === 'double') return `math.${goMaths[fn]}(${args.join(', ')})`;
    return `float32(math.${goMaths[fn]}(${args.map((one) => `float64(${one})`).join(', ')}))`;
  },
  vectorCall: (op, type, args) => `${{ '+': 'add', '-': 'sub', '*': 'scale', neg: 'negate' }[op]}${type === 'vec2' ? '2' : ''}(${args.join(', ')})`, // prettier-ignore
  // Numbers alone are named: what stands outside the package must name them.
  makeVector: (type, args) =>
    `${simple(type, cTypes(''))}{${args.map((one, i) => (args.every((own) => /^-?[\d.e+-]+$/.test(own)) ? `${'XYZ'[i]}: ${one}` : one)).join(', ')}}`,
  makeStruct: (name, fields, args) => ({ open: `${name}{`, items: args.map((one, i) => `${fields[i]}: ${one}`), close: '}', trailing: true }), // prettier-ignore
  makeMatrix: (rows, style) => ({ open: `${Go.type('mat4', style)}{`, items: rows, close: '}', trailing: true }),
  makeList: (type, items, style) => { const list = type as { of: Type; count: number }; return { open: `[${list.count}]${Go.type(list.of, style)}{`, items, close: '}', trailing: true }; }, // prettier-ignore
  let: (name, type, value) => (/^-?[\d.e+-]+$/.test(value) ? `var ${name} ${type} = ${value}` : `${name} := ${value}`),
  set: (to, value) => `${to} = ${value}`,
  ret: (value) => `return ${value}`,
  open: { if: (test) => `if ${test} {`, otherwise: '} else {', for: (name, to) => `for ${name} := 0; ${name} < ${to}; ${name}++ {` }, // prettier-ignore
  ...{ close: '}', fnEnd: '}' },
  fnHead: (name, params, result) => `func ${name}(${params.map((one) => `${one.name} ${one.type}`).join(', ')}) ${result} {`, // prettier-ignore
  struct: ({ name, fields }) => [`type ${name} struct {`, ...fields.map((one) => `\t${one.name} ${one.count ? `[${one.count}]` : ''}${one.type}${one.comment ? ` // ${one.comment}` : ''}`), '}'], // prettier-ignore
  constant: (name, type, value, style) => typeof type === 'object' && 'of' in type ? [`var ${name} = ${value}`] : [`const ${name} ${Go.type(type, style)} = ${value}`], // prettier-ignore
  prelude: (style, uses) => {
    const n = Go.type('num', style);
    const fn = (head: string, body: string) => ['', `func ${head} {`, `\treturn ${body}`, '}'];
    const root = n === 'float32' ? 'float32(math.Sqrt(float64(dot(v, v))))' : 'math.Sqrt(dot(v, v))';
    return [
      'package camera',
      ...(uses.has('maths') ? ['', 'import "math"'] : []),
      '',
      `type Vec2 struct{ X, Y ${n} }`,
      `type Vec3 struct{ X, Y, Z ${n} }`,
      ...fn('add(a, b Vec3) Vec3', 'Vec3{a.X + b.X, a.Y + b.Y, a.Z + b.Z}'),
      ...fn('sub(a, b Vec3) Vec3', 'Vec3{a.X - b.X, a.Y - b.Y, a.Z - b.Z}'),
      ...(uses.has('negate') ? fn('negate(v Vec3) Vec3', 'Vec3{-v.X, -v.Y, -v.Z}') : []),
      ...fn(`scale(v Vec3, k ${n}) Vec3`, 'Vec3{v.X * k, v.Y * k, v.Z * k}'),
      ...(uses.has('vec2') ? [...fn('sub2(a, b Vec2) Vec2', 'Vec2{a.X - b.X, a.Y - b.Y}'), ...fn(`scale2(v Vec2, k ${n}) Vec2`, 'Vec2{v.X * k, v.Y * k}')] : []), // prettier-ignore
      ...fn(`dot(a, b Vec3) ${n}`, 'a.X*b.X + a.Y*b.Y + a.Z*b.Z'),
      ...(uses.has('cross') ? fn('cross(a, b Vec3) Vec3', 'Vec3{a.Y*b.Z - a.Z*b.Y, a.Z*b.X - a.X*b.Z, a.X*b.Y - a.Y*b.X}') : []), // prettier-ignore
      ...(uses.has('length') || uses.has('normalize') ? fn(`length(v Vec3) ${n}`, root) : []),
      ...(uses.has('normalize') ? fn('normalize(v Vec3) Vec3', 'scale(v, 1/length(v))') : []),
      '',
      `func mul(a, b [16]${n}) [16]${n} {`,
      `\tvar product [16]${n}`,
      ...productLoops(style, '\t', '\t', (name) => `for ${name} := 0; ${name} < 4; ${name}++ {`, ''),
      '\treturn product',
      '}',
    ];
  },
  closing: () => [],
  main: (values, _, fields) => [
    'package main',
    '',
    'import (',
    '\t"fmt"',
    '',
    '\t"example/camera"',
    ')',
    '',
    'func main() {',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`\t// ${comment}`] : []), `\tv${i} := ${text.replace(/(?<![\w.\])])([A-Z]\w*)(?=[({])/g, 'camera.$1')}`, ...fields(type, `v${i}`).map((one) => `\tfmt.Println(${one})`)]), // prettier-ignore
    '}',
    '',
  ],
};

const TypeScript: Language = {
  ...cWords,
  entry: (list, i, matrix) => `${list}[${i}]${matrix ? '' : '!'}`,
  ...{ name: 'TypeScript', file: 'camera.ts', operators: false, pointed: false, depth: 0, indent: '  ' },
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
      'export interface Vec2 {',
      '  readonly x: number;',
      '  readonly y: number;',
      '}',
      'export interface Vec3 {',
      '  readonly x: number;',
      '  readonly y: number;',
      '  readonly z: number;',
      '}',
      '',
      ...fn('vec2(x: number, y: number)', 'Vec2', '({ x, y })').map((one) => `export ${one}`),
      ...fn('vec3(x: number, y: number, z: number)', 'Vec3', '({ x, y, z })').map((one) => `export ${one}`),
      ...fn(`add(${ab})`, 'Vec3', 'vec3(a.x + b.x, a.y + b.y, a.z + b.z)'),
      ...fn(`sub(${ab})`, 'Vec3', 'vec3(a.x - b.x, a.y - b.y, a.z - b.z)'),
      ...(uses.has('negate') ? fn('negate(v: Vec3)', 'Vec3', 'vec3(-v.x, -v.y, -v.z)') : []),
      ...fn('scale(v: Vec3, k: number)', 'Vec3', 'vec3(v.x * k, v.y * k, v.z * k)'),
      ...(uses.has('vec2') ? [...fn('sub2(a: Vec2, b: Vec2)', 'Vec2', 'vec2(a.x - b.x, a.y - b.y)'), ...fn('scale2(v: Vec2, k: number)', 'Vec2', 'vec2(v.x * k, v.y * k)')] : []), // prettier-ignore
      ...fn(`dot(${ab})`, 'number', 'a.x * b.x + a.y * b.y + a.z * b.z'),
      ...(uses.has('cross') ? fn(`cross(${ab})`, 'Vec3', 'vec3(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x)') : []), // prettier-ignore
      ...(uses.has('length') || uses.has('normalize') ? fn('length(v: Vec3)', 'number', 'Math.sqrt(dot(v, v))') : []),
      ...(uses.has('normalize') ? fn('normalize(v: Vec3)', 'Vec3', 'scale(v, 1 / length(v))') : []),
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
    ];
  },
  closing: () => [],
  main: (values, _, fields) => [
    "import * as camera from './camera.ts';",
    '',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`// ${comment}`] : []), `const v${i} = ${text.replace(/(?<![\w.])([a-z]\w*)(?=\()/g, 'camera.$1')};`, ...fields(type, `v${i}`).map((one) => `console.log(Number(${one}));`)]), // prettier-ignore
    '',
  ],
};

const Python: Language = {
  ...cWords,
  truth: (value) => (value ? 'True' : 'False'),
  gap: 2,
  ...{ name: 'Python', file: 'camera.py', operators: true, pointed: false, depth: 0, comment: '#' },
  ...{ and: 'and', or: 'or', close: '', fnEnd: '' },
  naming: (of) => (of === 'const' ? 'upper' : of === 'type' ? 'pascal' : 'snake'),
  type: (type) => (type === 'mat4' ? 'list[float]' : simple(type, cTypes('float'))),
  number: (text) => text,
  not: (of) => `not ${of}`,
  builtin: (fn, args) => ['dot', 'length', 'cross', 'normalize', 'mul', 'abs', 'min', 'max'].includes(fn) ? `${fn}(${args.join(', ')})` : fn === 'exp2' ? `2 ** (${args[0]})` : `math.${fn}(${args.join(', ')})`, // prettier-ignore
  makeVector: (type, args) => `${simple(type, cTypes(''))}(${args.join(', ')})`,
  makeStruct: (name, _, items) => ({ open: `${name}(`, items, close: ')', trailing: true }),
  makeMatrix: (rows) => ({ open: '[', items: rows, close: ']', trailing: true }),
  makeList: (_, items) => ({ open: '[', items, close: ']', trailing: true }),
  let: (name, _, value) => `${name} = ${value}`,
  set: (to, value) => `${to} = ${value}`,
  ret: (value) => `return ${value}`,
  open: { if: (test) => `if ${test}:`, otherwise: 'else:', for: (name, to) => `for ${name} in range(${to}):` },
  fnHead: (name, params, result) => `def ${name}(${params.map((one) => `${one.name}: ${one.type}`).join(', ')}) -> ${result}:`, // prettier-ignore
  struct: ({ name, fields }) => ['@dataclass(frozen=True)', `class ${name}:`, ...fields.map((one) => `    ${one.name}: ${one.count ? `list[${one.type}]` : one.type}${one.comment ? `  # ${one.comment}` : ''}`)], // prettier-ignore
  constant: (name, _, value) => [`${name} = ${value}`],
  prelude: (style, uses) => {
    const op = (name: string, args: string, of: string, body: string) => ['', `    def ${name}(self${args}) -> "${of}":`, `        return ${body}`]; // prettier-ignore
    return [
      'import math',
      'from dataclasses import dataclass',
      '',
      '',
      '@dataclass(frozen=True)',
      'class Vec2:',
      '    x: float',
      '    y: float',
      ...(uses.has('vec2') ? [...op('__sub__', ', b: "Vec2"', 'Vec2', 'Vec2(self.x - b.x, self.y - b.y)'), ...op('__mul__', ', k: float', 'Vec2', 'Vec2(self.x * k, self.y * k)')] : []), // prettier-ignore
      '',
      '',
      '@dataclass(frozen=True)',
      'class Vec3:',
      '    x: float',
      '    y: float',
      '    z: float',
      ...op('__add__', ', b: "Vec3"', 'Vec3', 'Vec3(self.x + b.x, self.y + b.y, self.z + b.z)'),
      ...op('__sub__', ', b: "Vec3"', 'Vec3', 'Vec3(self.x - b.x, self.y - b.y, self.z - b.z)'),
      ...(uses.has('negate') ? op('__neg__', '', 'Vec3', 'Vec3(-self.x, -self.y, -self.z)') : []),
      ...op('__mul__', ', k: float', 'Vec3', 'Vec3(self.x * k, self.y * k, self.z * k)'),
      '',
      '',
      'def dot(a: Vec3, b: Vec3) -> float:',
      '    return a.x * b.x + a.y * b.y + a.z * b.z',
      ...(uses.has('cross') ? ['', '', 'def cross(a: Vec3, b: Vec3) -> Vec3:', '    return Vec3(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x)'] : []), // prettier-ignore
      ...(uses.has('length') || uses.has('normalize') ? ['', '', 'def length(v: Vec3) -> float:', '    return math.sqrt(dot(v, v))'] : []), // prettier-ignore
      ...(uses.has('normalize') ? ['', '', 'def normalize(v: Vec3) -> Vec3:', '    return v * (1 / length(v))'] : []),
      '',
      '',
      'def mul(a: list[float], b: list[float]) -> list[float]:',
      '    product = [0.0] * 16',
      '    for r in range(4):',
      '        for c in range(4):',
      `            product[${place(style.listing, 'r', 'c')}] = sum(a[${place(style.listing, 'r', 'k')}] * b[${place(style.listing, 'k', 'c')}] for k in range(4))`, // prettier-ignore
      '    return product',
    ];
  },
  closing: () => [],
  main: (values, _, fields) => [
    'from camera import *',
    '',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`# ${comment}`] : []), `v${i} = ${text}`, ...fields(type, `v${i}`).map((one) => `print(repr(float(${one})))`)]), // prettier-ignore
    '',
  ],
};

const Lua: Language = {
  ...cWords,
  asNumber: (truth) => `${truth} and 1 or 0`,
  entry: (list, i) => `${list}[${i + 1}]`,
  ...{ name: 'Lua', file: 'camera.lua', operators: true, pointed: false, depth: 0, comment: '--', indent: '  ' },
  ...{ and: 'and', or: 'or', close: 'end', fnEnd: 'end' },
  naming: () => 'snake',
  type: () => '',
  number: (text) => text,
  not: (of) => `not ${of}`,
  // Lists begin at 1.
  index: (of, at, printed) => `${of}[${at.kind === 'number' ? Number(printed) + 1 : printed}]`,
  builtin: (fn, args) => ['dot', 'length', 'cross', 'normalize', 'mul'].includes(fn) ? `${fn}(${args.join(', ')})` : fn === 'exp2' ? `2 ^ (${args[0]})` : `math.${fn}(${args.join(', ')})`, // prettier-ignore
  makeVector: (type, args) => `${String(type)}(${args.join(', ')})`,
  makeStruct: (_, fields, args) => ({ open: '{', items: args.map((one, i) => `${fields[i]} = ${one}`), close: '}', roomy: true, trailing: true }), // prettier-ignore
  makeMatrix: (rows) => ({ open: '{', items: rows, close: '}', trailing: true }),
  makeList: (_, items) => ({ open: '{', items, close: '}', roomy: true, trailing: true }),
  let: (name, _, value) => `local ${name} = ${value}`,
  set: (to, value) => `${to} = ${value}`,
  ret: (value) => `return ${value}`,
  open: { if: (test) => `if ${test} then`, otherwise: 'else', for: (name, to) => `for ${name} = 1, ${to} do` },
  fnHead: (name, params) => `local function ${name}(${params.map((one) => one.name).join(', ')})`,
  struct: ({ name, fields }) => [`-- ${name}: { ${fields.map((one) => one.name).join(', ')} }`],
  constant: (name, _, value) => [`local ${name} = ${value}`],
  prelude: (style, uses) => [
    'local vector = {}',
    'vector.__index = vector',
    'local function vec2(x, y)',
    '  return setmetatable({ x = x, y = y }, vector)',
    'end',
    'local function vec3(x, y, z)',
    '  return setmetatable({ x = x, y = y, z = z }, vector)',
    'end',
    'function vector.__add(a, b)',
    '  return vec3(a.x + b.x, a.y + b.y, a.z + b.z)',
    'end',
    'function vector.__sub(a, b)',
    '  if not a.z then return vec2(a.x - b.x, a.y - b.y) end',
    '  return vec3(a.x - b.x, a.y - b.y, a.z - b.z)',
    'end',
    'function vector.__unm(v)',
    '  return vec3(-v.x, -v.y, -v.z)',
    'end',
    'function vector.__mul(v, k)',
    '  if not v.z then return vec2(v.x * k, v.y * k) end',
    '  return vec3(v.x * k, v.y * k, v.z * k)',
    'end',
    'local function dot(a, b)',
    '  return a.x * b.x + a.y * b.y + a.z * b.z',
    'end',
    ...(uses.has('cross') ? ['local function cross(a, b)', '  return vec3(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x)', 'end'] : []), // prettier-ignore
    ...(uses.has('length') || uses.has('normalize') ? ['local function length(v)', '  return math.sqrt(dot(v, v))', 'end'] : []), // prettier-ignore
    ...(uses.has('normalize') ? ['local function normalize(v)', '  return v * (1 / length(v))', 'end'] : []),
    'local function mul(a, b)',
    '  local product = {}',
    '  for r = 0, 3 do',
    '    for c = 0, 3 do',
    '      local sum = 0',
    `      for k = 0, 3 do sum = sum + a[${place(style.listing, 'r', 'k')} + 1] * b[${place(style.listing, 'k', 'c')} + 1] end`,
    `      product[${place(style.listing, 'r', 'c')} + 1] = sum`,
    '    end',
    '  end',
    '  return product',
    'end',
  ],
  closing: (names) => ['', 'return {', '  vec2 = vec2,', '  vec3 = vec3,', ...names.map((one) => `  ${one} = ${one},`), '}'], // prettier-ignore
  main: (values, _, fields) => [
    "local camera = require('camera')",
    '',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`-- ${comment}`] : []), `local v${i} = ${text.replace(/(?<![\w.])([a-z]\w*)(?=\()/g, 'camera.$1')}`, ...fields(type, `v${i}`).map((one) => `print(string.format('%.17g', ${one}))`)]), // prettier-ignore
    '',
  ],
};

const shaderTypes = { num: 'float', bool: 'bool', int: 'int', vec2: 'vec2', vec3: 'vec3', vec4: 'vec4', mat4: 'mat4' };
const Glsl: Language = {
  ...cWords,
  ...cFlow,
  ...{
    name: 'GLSL',
    file: 'camera.glsl',
    operators: true,
    pointed: true,
    depth: 0,
    ownMatrices: true,
    floatsAlone: true,
  },
  naming: (of) => (of === 'const' ? 'upper' : of === 'type' ? 'pascal' : 'snake'),
  type: (type) => simple(type, shaderTypes),
  number: (text) => pointed(text),
  // Of row vectors the factors stand the other way round; here they are always those of column vectors.
  builtin: (fn, args, { listing }) => fn === 'mul' ? (listing.vectors === 'row' ? [...args].reverse() : args).join(' * ') : `${fn}(${args.join(', ')})`, // prettier-ignore
  makeVector: (type, args) => `${String(type)}(${args.join(', ')})`,
  makeStruct: (name, _, items) => ({ open: `${name}(`, items, close: ')' }),
  makeMatrix: (rows) => ({ open: 'mat4(', items: rows, close: ')' }),
  makeList: (type, items) => { const list = type as { of: Type; count: number }; return { open: `${simple(list.of, shaderTypes)}[${list.count}](`, items, close: ')' }; }, // prettier-ignore
  let: (name, type, value, mutable) => `${mutable ? '' : ''}${type} ${name} = ${value};`,
  fnHead: (name, params, result) => `${result} ${name}(${params.map((one) => `${one.type} ${one.name}`).join(', ')}) {`,
  struct: ({ name, fields }) => [`struct ${name} {`, ...flat(fields, (one) => `${one.type} ${one.name}${one.count ? `[${one.count}]` : ''};`), '};'], // prettier-ignore
  constant: (name, type, value) => typeof type === 'object' && 'of' in type ? [`const ${simple(type.of, shaderTypes)} ${name}[${type.count}] = ${value};`] : [`const ${simple(type, shaderTypes)} ${name} = ${value};`], // prettier-ignore
  prelude: () => ['// GLSL ES 3.00. Matrices are those of column vectors, whatever the conventions elsewhere.'],
  closing: () => [],
  main: () => [],
};
const Wgsl: Language = {
  ...Glsl,
  ...{ name: 'WGSL', file: 'camera.wgsl' },
  type: (type) => simple(type, { num: 'f32', bool: 'bool', int: 'i32', vec2: 'vec2f', vec3: 'vec3f', vec4: 'vec4f', mat4: 'mat4x4f' }), // prettier-ignore
  makeVector: (type, args) => `${String(type)}f(${args.join(', ')})`,
  makeMatrix: (rows) => ({ open: 'mat4x4f(', items: rows, close: ')', trailing: true }),
  makeList: (type, items, style) => { const list = type as { of: Type; count: number }; return { open: `array<${Wgsl.type(list.of, style)}, ${list.count}>(`, items, close: ')', trailing: true }; }, // prettier-ignore
  let: (name, _, value, mutable) => `${mutable ? 'var' : 'let'} ${name} = ${value};`,
  open: { ...cFlow.open, for: (name, to) => `for (var ${name} = 0; ${name} < ${to}; ${name}++) {` },
  fnHead: (name, params, result) => `fn ${name}(${params.map((one) => `${one.name}: ${one.type}`).join(', ')}) -> ${result} {`, // prettier-ignore
  struct: ({ name, fields }) => [`struct ${name} {`, ...flat(fields, (one) => `${one.name}: ${one.count ? `array<${one.type}, ${one.count}>` : one.type},`), '}'], // prettier-ignore
  constant: (name, type, value, style) => typeof type === 'object' && 'of' in type ? [`const ${name} = ${value};`] : [`const ${name}: ${Wgsl.type(type, style)} = ${value};`], // prettier-ignore
  prelude: () => ['// Matrices are those of column vectors, whatever the conventions elsewhere.'],
};

export const deliverLanguages: readonly Language[] = [
  C,
  Cpp,
  CSharp,
  Rust,
  Go,
  TypeScript,
  Python,
  Java,
  Lua,
  Glsl,
  Wgsl,
];
