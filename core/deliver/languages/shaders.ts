import type { Type } from '../program';
import type { Language } from '../print';
import { simple, pointed, cFlow, cWords, flat } from './shared';

const shaderTypes = { num: 'float', bool: 'bool', int: 'int', vec2: 'vec2', vec3: 'vec3', vec4: 'vec4', mat4: 'mat4' };
export const Glsl: Language = {
  ...cWords,
  ...cFlow,
  ...{
    name: 'GLSL',
    file: 'camera.glsl',
    operators: true,

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
export const Wgsl: Language = {
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
