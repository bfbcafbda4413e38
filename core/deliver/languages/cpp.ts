import type { Language } from '../print';
import { inputCount } from '../vectorKinds';
import {
  simple,
  productLoops,
  cTypes,
  cNumber,
  cFlow,
  cWords,
  called,
  typeNaming,
  flat,
  indented,
  asksInput,
} from './shared';

/** `min` and `max` in brackets: a widespread platform header has macros of these names. */
const stdMaths: Readonly<Record<string, string>> = Object.fromEntries(['sin', 'cos', 'tan', 'sqrt', 'atan', 'exp2', 'abs', 'floor', 'min', 'max'].map((fn) => [fn, fn === 'min' || fn === 'max' ? `(std::${fn})` : `std::${fn}`])); // prettier-ignore
export const Cpp: Language = {
  ...cWords,
  ...cFlow,
  // Indices of the library's arrays are unsigned.
  open: { ...cFlow.open, for: (name, to) => `for (std::size_t ${name} = 0; ${name} < ${to}; ++${name}) {` },
  asNumber: (truth, style) => `(${truth} ? ${cNumber('1', style)} : ${cNumber('0', style)})`,
  ...{ name: 'C++', file: 'camera.hpp', operators: true, depth: 0 },
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
  constant: (name, type, value, style) => typeof type === 'object' && 'of' in type ? [`constexpr std::array<${Cpp.type(type.of, style)}, ${type.count}> ${name}${value};`] : [`constexpr ${Cpp.type(type, style)} ${name} = ${value};`], // prettier-ignore
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
      '#include <cstddef>',
      '',
      'namespace camera {',
      '',
      ...(!uses.has('vectors')
        ? []
        : [
            `struct Vec2 {`,
            `    ${n} x, y;`,
            '};',
            ...(uses.has('vec3') ? [`struct Vec3 {`, `    ${n} x, y, z;`, '};'] : []),
            ...(uses.has('mat4') ? [`using Mat4 = std::array<${n}, 16>;`] : []),
            ...(uses.has('vec3') ? [''] : []),
            ...(uses.has('vec3') ? [...fn(`Vec3 operator+(${ref} a, ${ref} b)`, '{a.x + b.x, a.y + b.y, a.z + b.z}'), ...fn(`Vec3 operator-(${ref} a, ${ref} b)`, '{a.x - b.x, a.y - b.y, a.z - b.z}')] : []), // prettier-ignore
            ...(uses.has('negate') ? fn(`Vec3 operator-(${ref} v)`, '{-v.x, -v.y, -v.z}') : []),
            ...(uses.has('vec3') ? fn(`Vec3 operator*(${ref} v, ${n} k)`, '{v.x * k, v.y * k, v.z * k}') : []),
            ...(uses.has('vec2') ? [...fn('Vec2 operator-(Vec2 a, Vec2 b)', '{a.x - b.x, a.y - b.y}'), ...fn(`Vec2 operator*(Vec2 v, ${n} k)`, '{v.x * k, v.y * k}')] : []), // prettier-ignore
            ...(uses.has('vec3') ? fn(`${n} dot(${ref} a, ${ref} b)`, 'a.x * b.x + a.y * b.y + a.z * b.z') : []),
            ...(uses.has('cross') ? fn(`Vec3 cross(${ref} a, ${ref} b)`, '{a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x}') : []), // prettier-ignore
            ...(uses.has('length') || uses.has('normalize') ? fn(`${n} length(${ref} v)`, 'std::sqrt(dot(v, v))') : []),
            ...(uses.has('normalize')
              ? fn(`Vec3 normalize(${ref} v)`, `v * (${cNumber('1', style)} / length(v))`)
              : []),
            ...(uses.has('mul')
              ? [
                  'inline Mat4 mul(const Mat4& a, const Mat4& b) {',
                  '    Mat4 product{};',
                  ...productLoops(
                    style,
                    '    ',
                    '    ',
                    (name) => `for (std::size_t ${name} = 0; ${name} < 4; ++${name}) {`,
                  ),
                  '    return product;',
                  '}',
                ]
              : []),
          ]),
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
  mainFile: 'main.cpp',
  harnessFile: 'harness.cpp',

  harness: ({ cases, frame, number: n }) => [
    '// Runs camera.hpp over test vectors: harness vectors.csv > answers.csv',
    '// To try functions of your own, call them where those of camera.hpp are called.',
    '#include "camera.hpp"',
    '#include <fstream>',
    '#include <iostream>',
    '#include <sstream>',
    '#include <string>',
    '#include <vector>',
    '',
    'using namespace camera;',
    '',
    'template <typename Numbers>',
    'void print(const std::string& id, const Numbers& numbers) {',
    '    std::cout << id;',
    "    for (const double v : numbers) std::cout << ',' << v;",
    "    std::cout << '\\n';",
    '}',
    '',
    '// A row: its id, what is asked, and the numbers that go in.',
    `void answer(const std::string& id, const std::string& kind, const std::vector<${n}>&${asksInput(cases) ? ' given' : ''}) {`,
    `    const Frame frame = ${indented(frame)};`,
    ...cases.flatMap(({ kind, text, matrix, guard, numbers }) =>
      matrix
        ? [`    if (kind == "${kind}") print(id, ${text});`]
        : [
            `    if (kind == "${kind}") {`,
            `        const auto v = ${text};`,
            `        print(id, ${guard ? `!${guard} ? std::vector<${n}>{} : ` : ''}std::vector<${n}>{${numbers.join(', ')}});`,
            '    }',
          ],
    ),
    '}',
    '',
    'int main(int argc, char** argv) {',
    '    std::ifstream file(argc > 1 ? argv[1] : "vectors.csv");',
    '    std::cout.precision(17);',
    '    for (std::string line, id, kind, cell; std::getline(file, line);) {',
    '        std::istringstream cells(line);',
    "        std::getline(cells, id, ',');",
    "        std::getline(cells, kind, ',');",
    '        if (kind == "kind") continue;',
    `        std::vector<${n}> given;`,
    `        while (given.size() < ${inputCount} && std::getline(cells, cell, ',')) given.push_back(cell.empty() ? ${cNumber('0', { number: n === 'float' ? 'float' : 'double' })} : ${n === 'float' ? 'std::stof(cell)' : 'std::stod(cell)'});`,
    '        answer(id, kind, given);',
    '    }',
    '}',
    '',
  ],
};
