import type { Language } from '../print';
import { inputCount } from '../vectorKinds';
import { place, cWords } from './shared';

/** What a program outside of the module says: functions by its name. */
const fromOutside = (text: string): string => text.replace(/(?<![\w.])([a-z]\w*)(?=\()/g, 'camera.$1');
export const Lua: Language = {
  ...cWords,
  asNumber: (truth) => `${truth} and 1 or 0`,
  entry: (list, i) => `${list}[${i + 1}]`,
  ...{ name: 'Lua', file: 'camera.lua', operators: true, depth: 0, comment: '--', indent: '  ' },
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
    ...(!uses.has('vectors')
      ? []
      : [
          'local vector = {}',
          'vector.__index = vector',
          'local function vec2(x, y)',
          '  return setmetatable({ x = x, y = y }, vector)',
          'end',
          ...(uses.has('vec3')
            ? [
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
              ]
            : uses.has('vec2')
              ? [
                  'function vector.__sub(a, b)',
                  '  return vec2(a.x - b.x, a.y - b.y)',
                  'end',
                  'function vector.__mul(v, k)',
                  '  return vec2(v.x * k, v.y * k)',
                  'end',
                ]
              : []),
          ...(uses.has('cross') ? ['local function cross(a, b)', '  return vec3(a.y * b.z - a.z * b.y, a.z * b.x - a.x * b.z, a.x * b.y - a.y * b.x)', 'end'] : []), // prettier-ignore
          ...(uses.has('length') || uses.has('normalize') ? ['local function length(v)', '  return math.sqrt(dot(v, v))', 'end'] : []), // prettier-ignore
          ...(uses.has('normalize') ? ['local function normalize(v)', '  return v * (1 / length(v))', 'end'] : []),
          ...(uses.has('mul')
            ? [
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
              ]
            : []),
        ]),
  ],
  closing: (names, uses) => ['', 'return {', ...(uses.has('vectors') ? ['  vec2 = vec2,', ...(uses.has('vec3') ? ['  vec3 = vec3,'] : [])] : []), ...names.map((one) => `  ${one} = ${one},`), '}'], // prettier-ignore
  main: (values, _, fields) => [
    "local camera = require('camera')",
    '',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`-- ${comment}`] : []), `local v${i} = ${fromOutside(text)}`, ...fields(type, `v${i}`).map((one) => `print(string.format('%.17g', ${one}))`)]), // prettier-ignore
    '',
  ],
  mainFile: 'main.lua',
  harnessFile: 'harness.lua',

  harness: ({ cases, frame }) => [
    '-- Runs camera.lua over test vectors: lua harness.lua vectors.csv > answers.csv',
    '-- To try functions of your own, call them where those of camera.lua are called.',
    "local camera = require('camera')",
    '',
    `local frame = ${fromOutside(frame)}`,
    '-- By what a row asks its numbers, none of them for no picture.',
    'local answers = {',
    ...cases.flatMap(({ kind, text, matrix, guard, numbers }) =>
      matrix
        ? [`  ${kind} = function() return ${fromOutside(text)} end,`]
        : [
            `  ${kind} = function(given)`,
            `    local v = ${fromOutside(text)}`,
            `    return ${guard ? `${guard} and ` : ''}{ ${numbers.join(', ')} }${guard ? ' or {}' : ''}`,
            '  end,',
          ],
    ),
    '}',
    '',
    "for line in io.lines(arg[1] or 'vectors.csv') do",
    '  local cells = {}',
    "  for cell in (line .. ','):gmatch('([^,\\r]*)\\r?,') do cells[#cells + 1] = cell end",
    '  local answer = answers[cells[2]]',
    '  if answer then',
    '    local text = cells[1]',
    '    local given = {}',
    `    for i = 1, ${inputCount} do given[i] = tonumber(cells[2 + i]) end`,
    '    for _, v in ipairs(answer(given)) do',
    "      text = text .. string.format(',%.17g', v)",
    '    end',
    '    print(text)',
    '  end',
    'end',
    '',
  ],
};
