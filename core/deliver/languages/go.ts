import type { Type } from '../program';
import type { Language } from '../print';
import { inputCount } from '../vectorKinds';
import { simple, productLoops, cTypes, cWords, indented } from './shared';

const goMaths: Readonly<Record<string, string>> = { sin: 'Sin', cos: 'Cos', tan: 'Tan', sqrt: 'Sqrt', atan: 'Atan', exp2: 'Exp2', abs: 'Abs', floor: 'Floor', min: 'Min', max: 'Max' }; // prettier-ignore
/** What a program outside of the package says: its names with the package's, and the numbers of vectors by their names. */
const fromOutside = (text: string): string =>
  text
    .replace(/(?<![\w.\])])([A-Z]\w*)(?=[({])/g, 'camera.$1')
    .replace(
      /(Vec[23])\{(given\[\d\]), (given\[\d\])(?:, (given\[\d\]))?\}/g,
      (_, name, x, y, z) => `${name}{X: ${x}, Y: ${y}${z ? `, Z: ${z}` : ''}}`,
    );
export const Go: Language = {
  ...cWords,
  asNumber: (truth, { number }) => `map[bool]float${number === 'float' ? 32 : 64}{true: 1}[${truth}]`,
  ...{ name: 'Go', file: 'camera.go', operators: false, depth: 0, indent: '\t' },
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
      ...(!uses.has('vectors')
        ? []
        : [
            `type Vec2 struct{ X, Y ${n} }`,
            ...(uses.has('vec3') ? [`type Vec3 struct{ X, Y, Z ${n} }`, ...fn('add(a, b Vec3) Vec3', 'Vec3{a.X + b.X, a.Y + b.Y, a.Z + b.Z}'), ...fn('sub(a, b Vec3) Vec3', 'Vec3{a.X - b.X, a.Y - b.Y, a.Z - b.Z}')] : []), // prettier-ignore
            ...(uses.has('negate') ? fn('negate(v Vec3) Vec3', 'Vec3{-v.X, -v.Y, -v.Z}') : []),
            ...(uses.has('vec3') ? fn(`scale(v Vec3, k ${n}) Vec3`, 'Vec3{v.X * k, v.Y * k, v.Z * k}') : []),
            ...(uses.has('vec2') ? [...fn('sub2(a, b Vec2) Vec2', 'Vec2{a.X - b.X, a.Y - b.Y}'), ...fn(`scale2(v Vec2, k ${n}) Vec2`, 'Vec2{v.X * k, v.Y * k}')] : []), // prettier-ignore
            ...(uses.has('vec3') ? fn(`dot(a, b Vec3) ${n}`, 'a.X*b.X + a.Y*b.Y + a.Z*b.Z') : []),
            ...(uses.has('cross') ? fn('cross(a, b Vec3) Vec3', 'Vec3{a.Y*b.Z - a.Z*b.Y, a.Z*b.X - a.X*b.Z, a.X*b.Y - a.Y*b.X}') : []), // prettier-ignore
            ...(uses.has('length') || uses.has('normalize') ? fn(`length(v Vec3) ${n}`, root) : []),
            ...(uses.has('normalize') ? fn('normalize(v Vec3) Vec3', 'scale(v, 1/length(v))') : []),
            ...(uses.has('mul')
              ? [
                  '',
                  `func mul(a, b [16]${n}) [16]${n} {`,
                  `\tvar product [16]${n}`,
                  ...productLoops(style, '\t', '\t', (name) => `for ${name} := 0; ${name} < 4; ${name}++ {`, ''),
                  '\treturn product',
                  '}',
                ]
              : []),
          ]),
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
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`\t// ${comment}`] : []), `\tv${i} := ${fromOutside(text)}`, ...fields(type, `v${i}`).map((one) => `\tfmt.Println(${one})`)]), // prettier-ignore
    '}',
    '',
  ],
  mainFile: 'main.go',
  harnessFile: 'harness.go',

  harness: ({ cases, frame, number: n }) => [
    '// Runs package camera over test vectors: go run . vectors.csv > answers.csv',
    '// To try functions of your own, call them where those of the package are called.',
    'package main',
    '',
    'import (',
    '\t"encoding/csv"',
    '\t"fmt"',
    '\t"os"',
    '\t"strconv"',
    '\t"example/camera"',
    ')',
    '',
    ...(cases.some(({ matrix }) => matrix) ? [`func list(m [16]${n}) []${n} { return m[:] }`, ''] : []),
    '// The numbers of a row: empty without a picture, nil for other kinds.',
    `func answer(kind string, given [${inputCount}]${n}) []${n} {`,
    `\tframe := ${indented(fromOutside(frame), '\t')}`,
    '\tswitch kind {',
    ...cases.flatMap(({ kind, text, matrix, guard, numbers }) =>
      matrix
        ? [`\tcase "${kind}":`, `\t\treturn list(${fromOutside(text)})`]
        : guard
          ? [
              `\tcase "${kind}":`,
              `\t\tv := ${fromOutside(text)}`,
              `\t\tif ${guard} {`,
              `\t\t\treturn []${n}{${numbers.join(', ')}}`,
              '\t\t}',
              `\t\treturn []${n}{}`,
            ]
          : [`\tcase "${kind}":`, `\t\tv := ${fromOutside(text)}`, `\t\treturn []${n}{${numbers.join(', ')}}`],
    ),
    '\t}',
    '\treturn nil',
    '}',
    '',
    'func main() {',
    '\tfile, err := os.Open(append(os.Args, "vectors.csv")[1])',
    '\tif err != nil {',
    '\t\tpanic(err)',
    '\t}',
    '\ttable, _ := csv.NewReader(file).ReadAll()',
    '\tfor _, cells := range table[1:] {',
    `\t\tvar given [${inputCount}]${n}`,
    '\t\tfor i := range given {',
    ...(n === 'float64'
      ? ['\t\t\tgiven[i], _ = strconv.ParseFloat(cells[2+i], 64)']
      : ['\t\t\tv, _ := strconv.ParseFloat(cells[2+i], 32)', `\t\t\tgiven[i] = ${n}(v)`]),
    '\t\t}',
    '\t\tnumbers := answer(cells[1], given)',
    '\t\tif numbers == nil {',
    '\t\t\tcontinue',
    '\t\t}',
    '\t\tfmt.Print(cells[0])',
    '\t\tfor _, v := range numbers {',
    '\t\t\tfmt.Print(",", v)',
    '\t\t}',
    '\t\tfmt.Println()',
    '\t}',
    '}',
    '',
  ],
};
