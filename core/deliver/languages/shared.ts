import type { Expr, Type } from '../program';
import type { HarnessCase, Listing, NumberType, Style } from '../print';

/* What several languages have alike: words of C and its kin, and how they are put together. */

export const isStruct = (type: Type): type is { readonly struct: string } =>
  typeof type === 'object' && 'struct' in type;
export const simple = (type: Type, names: Readonly<Record<string, string>>): string => isStruct(type) ? type.struct : (names[type as string] ?? String(type)); // prettier-ignore
export const pointed = (text: string): string => (/[.e]/.test(text) ? text : `${text}.0`);
/** The place of a row and a column of a matrix, as its vectors have it, in the listing: as text. */
export const place = ({ columns, vectors }: Listing, row: string, column: string): string =>
  columns === (vectors === 'column') ? `4 * ${column} + ${row}` : `4 * ${row} + ${column}`;
/** The three loops of a product of matrices, in brackets: row, column and what is summed over. */
export function productLoops(
  style: Style,
  indent: string,
  step: string,
  head: (name: string) => string,
  end = ';',
): string[] {
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
export const plainIndex = (of: string, _at: Expr, printed: string): string => `${of}[${printed}]`;

export const cTypes = (number: string) => ({ num: number, bool: 'bool', int: 'int', vec2: 'Vec2', vec3: 'Vec3', vec4: 'Vec4', mat4: 'Mat4' }); // prettier-ignore
export const cNumber = (text: string, { number }: { number: NumberType }): string => pointed(text) + (number === 'float' ? 'f' : ''); // prettier-ignore
export const cFlow = {
  open: {
    if: (test: string) => `if (${test}) {`,
    otherwise: '} else {',
    for: (name: string, to: string) => `for (int ${name} = 0; ${name} < ${to}; ++${name}) {`,
  },
  close: '}',
  fnEnd: '}',
};
export const cWords = {
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
export const called = (names: Readonly<Record<string, string>>) => (fn: string, args: readonly string[]): string => `${names[fn] ?? fn}(${args.join(', ')})`; // prettier-ignore
export const typeNaming = { fn: 'snake', value: 'snake', field: 'snake', type: 'pascal', const: 'snake' } as const;
export const flat = (fields: readonly { name: string; type: string; count: number | null; comment: string | null }[], print: (one: { name: string; type: string; count: number | null }) => string, comment = '//'): string[] => fields.map((one) => `    ${print(one)}${one.comment ? ` ${comment} ${one.comment}` : ''}`); // prettier-ignore
/** A value of several lines where it stands one step deeper. */
export const indented = (text: string, indent = '    '): string => text.replaceAll('\n', `\n${indent}`);
/** Whether any of what is asked has numbers that go in. */
export const asksInput = (cases: readonly HarnessCase[]): boolean => cases.some(({ matrix }) => !matrix);
