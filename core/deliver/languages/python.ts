import type { Language } from '../print';
import { inputCount } from '../vectorKinds';
import { simple, place, cTypes, cWords, indented } from './shared';

export const Python: Language = {
  ...cWords,
  truth: (value) => (value ? 'True' : 'False'),
  gap: 2,
  asNumber: (truth) => `int(${truth})`,
  ...{ name: 'Python', file: 'camera.py', operators: true, depth: 0, comment: '#' },
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
      ...(uses.has('vectors') ? ['from dataclasses import dataclass'] : []),
      ...(!uses.has('vectors')
        ? []
        : [
            '',
            '',
            '@dataclass(frozen=True)',
            'class Vec2:',
            '    x: float',
            '    y: float',
            ...(uses.has('vec2') ? [...op('__sub__', ', b: "Vec2"', 'Vec2', 'Vec2(self.x - b.x, self.y - b.y)'), ...op('__mul__', ', k: float', 'Vec2', 'Vec2(self.x * k, self.y * k)')] : []), // prettier-ignore
            ...(uses.has('vec3')
              ? [
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
                ]
              : []),
            ...(uses.has('cross') ? ['', '', 'def cross(a: Vec3, b: Vec3) -> Vec3:', '    return Vec3(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x)'] : []), // prettier-ignore
            ...(uses.has('length') || uses.has('normalize') ? ['', '', 'def length(v: Vec3) -> float:', '    return math.sqrt(dot(v, v))'] : []), // prettier-ignore
            ...(uses.has('normalize')
              ? ['', '', 'def normalize(v: Vec3) -> Vec3:', '    return v * (1 / length(v))']
              : []),
            ...(uses.has('mul')
              ? [
                  '',
                  '',
                  'def mul(a: list[float], b: list[float]) -> list[float]:',
                  '    product = [0.0] * 16',
                  '    for r in range(4):',
                  '        for c in range(4):',
                  `            product[${place(style.listing, 'r', 'c')}] = sum(a[${place(style.listing, 'r', 'k')}] * b[${place(style.listing, 'k', 'c')}] for k in range(4))`, // prettier-ignore
                  '    return product',
                ]
              : []),
          ]),
    ];
  },
  closing: () => [],
  main: (values, _, fields) => [
    'from camera import *',
    '',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`# ${comment}`] : []), `v${i} = ${text}`, ...fields(type, `v${i}`).map((one) => `print(repr(float(${one})))`)]), // prettier-ignore
    '',
  ],
  mainFile: 'main.py',
  harnessFile: 'harness.py',

  harness: ({ cases, frame }) => [
    '# Runs camera.py over test vectors: python3 harness.py vectors.csv > answers.csv',
    '# To try functions of your own, call them where those of camera.py are called.',
    'import csv',
    'import sys',
    '',
    'from camera import *',
    '',
    '',
    'def answer(kind, given):',
    '    """The numbers of a row, none of them for no picture; None for what is not asked here."""',
    `    frame = ${indented(frame)}`,
    ...cases.flatMap(({ kind, text, matrix, guard, numbers }) =>
      matrix
        ? [`    if kind == "${kind}":`, `        return ${text}`]
        : [
            `    if kind == "${kind}":`,
            `        v = ${text}`,
            `        return [${numbers.join(', ')}]${guard ? ` if ${guard} else []` : ''}`,
          ],
    ),
    '    return None',
    '',
    '',
    'with open(sys.argv[1] if len(sys.argv) > 1 else "vectors.csv", newline="") as table:',
    '    for cells in list(csv.reader(table))[1:]:',
    `        found = answer(cells[1], [float(cell) for cell in cells[2:${2 + inputCount}] if cell])`,
    '        if found is not None:',
    '            print(cells[0], *found, sep=",")',
    '',
  ],
};
