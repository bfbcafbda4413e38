import type { Language } from '../print';
import { inputCount } from '../vectorKinds';
import { simple, productLoops, cTypes, cNumber, cFlow, cWords, indented } from './shared';

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
const csharpMaths: Readonly<Record<string, string>> = { sin: 'Sin', cos: 'Cos', tan: 'Tan', sqrt: 'Sqrt', atan: 'Atan', abs: 'Abs', floor: 'Floor', min: 'Min', max: 'Max' }; // prettier-ignore
export const CSharp: Language = {
  ...cWords,
  ...cFlow,
  asNumber: (truth) => `(${truth} ? 1 : 0)`,
  ...{ name: 'C#', file: 'CameraMath.cs', operators: true, depth: 1 },
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
      ...(!uses.has('vectors')
        ? []
        : [
            ...vector('Vec2', ['X', 'Y']),
            ...(uses.has('vec3') ? [...vector('Vec3', ['X', 'Y', 'Z']), `    public static ${n} Dot(Vec3 a, Vec3 b) => a.X * b.X + a.Y * b.Y + a.Z * b.Z;`] : []), // prettier-ignore
            ...(uses.has('cross') ? ['    public static Vec3 Cross(Vec3 a, Vec3 b) => new Vec3(a.Y * b.Z - a.Z * b.Y, a.Z * b.X - a.X * b.Z, a.X * b.Y - a.Y * b.X);'] : []), // prettier-ignore
            ...(uses.has('length') || uses.has('normalize') ? [`    public static ${n} Length(Vec3 v) => ${maths}.Sqrt(Dot(v, v));`] : []), // prettier-ignore
            ...(uses.has('normalize') ? [`    public static Vec3 Normalize(Vec3 v) => v * (${cNumber('1', style)} / Length(v));`] : []), // prettier-ignore
            ...(uses.has('mul')
              ? [
                  '',
                  `    public static ${n}[] Mul(${n}[] a, ${n}[] b) {`,
                  `        var product = new ${n}[16];`,
                  ...productLoops(
                    style,
                    '        ',
                    '    ',
                    (name) => `for (int ${name} = 0; ${name} < 4; ++${name}) {`,
                  ),
                  '        return product;',
                  '    }',
                ]
              : []),
          ]),
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
  mainFile: 'Example.cs',
  harnessFile: 'Harness.cs',

  harness: ({ cases, frame, number: n }) => [
    '// Runs CameraMath.cs over test vectors: Harness vectors.csv > answers.csv',
    '// To try functions of your own, call them where those of CameraMath are called.',
    'using System;',
    'using System.Globalization;',
    'using System.IO;',
    'using System.Linq;',
    'using static CameraMath;',
    '',
    'public static class Harness {',
    '    static readonly CultureInfo Plain = CultureInfo.InvariantCulture;',
    '',
    `    static void Print(string id, params ${n}[] numbers) {`,
    '        Console.WriteLine(string.Join(",", new[] { id }.Concat(numbers.Select(v => ((double)v).ToString("R", Plain)))));',
    '    }',
    '',
    '    // A row: its id, what is asked, and the numbers that go in.',
    `    static void Answer(string id, string kind, ${n}[] given) {`,
    `        Frame frame = ${indented(frame, '        ')};`,
    ...cases.flatMap(({ kind, text, matrix, guard, numbers }) =>
      matrix
        ? [`        if (kind == "${kind}") Print(id, ${text});`]
        : [
            `        if (kind == "${kind}") {`,
            `            var v = ${text};`,
            ...(guard ? [`            if (!${guard}) Print(id);`] : []),
            `            ${guard ? 'else ' : ''}Print(id, ${numbers.join(', ')});`,
            '        }',
          ],
    ),
    '    }',
    '',
    '    public static void Main(string[] args) {',
    '        foreach (var line in File.ReadLines(args.Length > 0 ? args[0] : "vectors.csv").Skip(1)) {',
    "            var cells = line.Split(',');",
    `            var given = cells.Skip(2).Take(${inputCount}).Where(one => one != "");`,
    `            Answer(cells[0], cells[1], given.Select(one => ${n}.Parse(one, Plain)).ToArray());`,
    '        }',
    '    }',
    '}',
    '',
  ],
};
