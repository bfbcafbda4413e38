import type { Language } from '../print';
import { inputCount } from '../vectorKinds';
import { isStruct, simple, pointed, productLoops, cTypes, cWords, flat, indented, asksInput } from './shared';

const rustMaths: ReadonlySet<string> = new Set([
  'sin',
  'cos',
  'tan',
  'sqrt',
  'atan',
  'exp2',
  'abs',
  'floor',
  'min',
  'max',
]);
export const Rust: Language = {
  ...cWords,
  asNumber: (truth, { number }) => `${truth} as u8 as ${number === 'float' ? 'f32' : 'f64'}`,
  ...{ name: 'Rust', file: 'camera.rs', operators: true, depth: 0 },
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
      ...(!uses.has('vectors')
        ? []
        : [
            ...(uses.has('vec3') || uses.has('vec2') ? [`use std::ops::{${[...(uses.has('vec3') ? ['Add'] : []), 'Mul', ...(uses.has('negate') ? ['Neg'] : []), 'Sub'].join(', ')}};`, ''] : []), // prettier-ignore
            ...vector('Vec2', ['x', 'y']),
            ...(uses.has('vec3')
              ? [
                  ...vector('Vec3', ['x', 'y', 'z']),
                  ...op('Add', 'add', 'Vec3', ', b: Vec3', 'Vec3::new(self.x + b.x, self.y + b.y, self.z + b.z)'),
                  ...op('Sub', 'sub', 'Vec3', ', b: Vec3', 'Vec3::new(self.x - b.x, self.y - b.y, self.z - b.z)'),
                ]
              : []),
            ...(uses.has('negate') ? op('Neg', 'neg', 'Vec3', '', 'Vec3::new(-self.x, -self.y, -self.z)') : []),
            ...(uses.has('vec3') ? op(`Mul<${n}>`, 'mul', 'Vec3', `, k: ${n}`, 'Vec3::new(self.x * k, self.y * k, self.z * k)') : []), // prettier-ignore
            ...(uses.has('vec2') ? [...op('Sub', 'sub', 'Vec2', ', b: Vec2', 'Vec2::new(self.x - b.x, self.y - b.y)'), ...op(`Mul<${n}>`, 'mul', 'Vec2', `, k: ${n}`, 'Vec2::new(self.x * k, self.y * k)')] : []), // prettier-ignore
            ...(uses.has('vec3') ? ['', `pub fn dot(a: Vec3, b: Vec3) -> ${n} {`, '    a.x * b.x + a.y * b.y + a.z * b.z', '}'] : []), // prettier-ignore
            ...(uses.has('cross') ? ['', 'pub fn cross(a: Vec3, b: Vec3) -> Vec3 {', '    Vec3::new(', '        a.y * b.z - a.z * b.y,', '        a.z * b.x - a.x * b.z,', '        a.x * b.y - a.y * b.x,', '    )', '}'] : []), // prettier-ignore
            ...(uses.has('length') || uses.has('normalize') ? ['', `pub fn length(v: Vec3) -> ${n} {`, '    dot(v, v).sqrt()', '}'] : []), // prettier-ignore
            ...(uses.has('normalize')
              ? ['', 'pub fn normalize(v: Vec3) -> Vec3 {', '    v * (1.0 / length(v))', '}']
              : []),
            ...(uses.has('mul')
              ? [
                  '',
                  `pub fn mul(a: [${n}; 16], b: [${n}; 16]) -> [${n}; 16] {`,
                  '    let mut product = [0.0; 16];',
                  ...productLoops(style, '    ', '    ', (name) => `for ${name} in 0..4 {`),
                  '    product',
                  '}',
                ]
              : []),
          ]),
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
  mainFile: 'main.rs',
  harnessFile: 'harness.rs',

  harness: ({ cases, frame, number: n }) => [
    '// Runs camera.rs over test vectors: harness vectors.csv > answers.csv',
    '// To try functions of your own, call them where those of camera.rs are called.',
    'mod camera;',
    'use camera::*;',
    '',
    `fn print(id: &str, numbers: &[${n}]) {`,
    '    let text: Vec<String> = numbers.iter().map(|v| format!(",{v:?}")).collect();',
    '    println!("{id}{}", text.concat());',
    '}',
    '',
    '// A row: its id, what is asked, and the numbers that go in.',
    `fn answer(id: &str, kind: &str, ${asksInput(cases) ? '' : '_'}given: &[${n}]) {`,
    `    let frame = &${indented(frame)};`,
    '    match kind {',
    ...cases.flatMap(({ kind, text, matrix, guard, numbers }) =>
      matrix
        ? [`        "${kind}" => print(id, &${text}),`]
        : [
            `        "${kind}" => {`,
            `            let v = ${text};`,
            ...(guard ? [`            let numbers = [${numbers.join(', ')}];`] : []),
            `            print(id, ${guard ? `if ${guard} { &numbers } else { &[] }` : `&[${numbers.join(', ')}]`});`,
            '        }',
          ],
    ),
    '        _ => {}',
    '    }',
    '}',
    '',
    'fn main() {',
    '    let path = std::env::args().nth(1).unwrap_or("vectors.csv".to_string());',
    '    let table = std::fs::read_to_string(&path).expect("the test vectors can be read");',
    '    for line in table.lines().skip(1) {',
    "        let cells: Vec<&str> = line.split(',').collect();",
    `        let given: Vec<${n}> = cells[2..${2 + inputCount}].iter().filter_map(|cell| cell.parse().ok()).collect();`,
    '        answer(cells[0], cells[1], &given);',
    '    }',
    '}',
    '',
  ],
};
