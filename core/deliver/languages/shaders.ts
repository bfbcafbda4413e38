import type { Type } from '../program';
import { inputCount } from '../vectorKinds';
import type { Harness, Language } from '../print';
import { simple, pointed, cFlow, cWords, flat, indented } from './shared';

/** A page that runs a shader over test vectors by `ask`, a list of rows to a list of 17 numbers each, whether there is an answer last. */
const page = (file: string, { cases, columns }: Harness, ask: readonly string[]): string[] => [
  '<!doctype html>',
  `<!-- Runs ${file} over vectors.csv: serve the folder and open this page; what it says are the answers. -->`,
  '<meta charset="utf-8" />',
  `<title>${file} over test vectors</title>`,
  '<pre></pre>',
  '<script type="module">',
  '  const load = async (file) => (await fetch(file)).text();',
  `  const [code, table] = await Promise.all(['${file}', 'vectors.csv'].map(load));`,
  `  const kinds = { ${cases.map(({ kind, matrix, numbers }) => `${kind}: ${matrix ? 16 : numbers.length}`).join(', ')} };`,
  "  const rows = table.trim().split(/\\r?\\n/).map((line) => line.split(',')).filter(([, kind]) => kinds[kind]);",
  ...ask,
  "  document.querySelector('pre').textContent = rows.map(([id, kind], row) => {",
  '    const count = answers[row][16] ? kinds[kind] : 0;',
  ...(columns
    ? ["    return [id, ...answers[row].slice(0, count)].join(',') + '\\n';"]
    : [
        '    // Matrices of shaders are listed by columns, those of the table by rows.',
        '    const place = (i) => (count === 16 ? 4 * (i % 4) + (i >> 2) : i);',
        "    return [id, ...Array.from({ length: count }, (_, i) => answers[row][place(i)])].join(',') + '\\n';",
      ]),
  "  }).join('');",
  '</script>',
  '',
];

const shaderTypes = { num: 'float', bool: 'bool', int: 'int', vec2: 'vec2', vec3: 'vec3', vec4: 'vec4', mat4: 'mat4' };
export const Glsl: Language = {
  ...cWords,
  ...cFlow,
  ...{
    asNumber: (truth: string) => `float(${truth})`,
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
  mainFile: '',
  main: () => [],
  harnessFile: 'harness.html',
  harness: (of) =>
    page('camera.glsl', of, [
      "  const gl = document.createElement('canvas').getContext('webgl2');",
      '  const program = gl.createProgram();',
      '  const add = (type, text) => {',
      '    const shader = gl.createShader(type);',
      '    gl.shaderSource(shader, `#version 300 es\\nprecision highp float;\\n${text}`);',
      '    gl.compileShader(shader);',
      '    if (!gl.getShaderParameter(shader, gl.COMPILE_STATUS)) throw new Error(gl.getShaderInfoLog(shader));',
      '    gl.attachShader(program, shader);',
      '  };',
      '  add(gl.VERTEX_SHADER, `${code}',
      `    uniform int kind; uniform float given[${inputCount}]; flat out mat4 numbers; flat out float found;`,
      '    void main() {',
      `      Frame frame = ${indented(of.frame, '      ')};`,
      '      gl_Position = vec4(0.0); numbers = mat4(0.0); found = 1.0;',
      ...of.cases.map(
        ({ text, type, matrix, guard, numbers }, i) =>
          `      ${i ? 'else ' : ''}if (kind == ${i}) { ${matrix ? `numbers = ${text};` : `${type} v = ${text}; ${numbers.map((one, k) => `numbers[${k >> 2}][${k % 4}] = ${one};`).join(' ')}${guard ? ` found = float(${guard});` : ''}`} }`,
      ),
      '    }`);',
      "  add(gl.FRAGMENT_SHADER, 'void main() {}');",
      "  gl.transformFeedbackVaryings(program, ['numbers', 'found'], gl.INTERLEAVED_ATTRIBS);",
      '  gl.linkProgram(program);',
      '  gl.useProgram(program);',
      '  gl.enable(gl.RASTERIZER_DISCARD);',
      '  gl.bindBufferBase(gl.TRANSFORM_FEEDBACK_BUFFER, 0, gl.createBuffer());',
      '  gl.bufferData(gl.TRANSFORM_FEEDBACK_BUFFER, 68, gl.STREAM_READ);',
      '  const answers = rows.map(([, kind, ...cells]) => {',
      "    gl.uniform1i(gl.getUniformLocation(program, 'kind'), Object.keys(kinds).indexOf(kind));",
      `    gl.uniform1fv(gl.getUniformLocation(program, 'given'), cells.slice(0, ${inputCount}).map(Number));`,
      '    gl.beginTransformFeedback(gl.POINTS);',
      '    gl.drawArrays(gl.POINTS, 0, 1);',
      '    gl.endTransformFeedback();',
      '    const numbers = new Float32Array(17);',
      '    gl.getBufferSubData(gl.TRANSFORM_FEEDBACK_BUFFER, 0, numbers);',
      '    return numbers;',
      '  });',
    ]),
};
export const Wgsl: Language = {
  ...Glsl,
  asNumber: (truth) => `f32(${truth})`,
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
  harness: (of) =>
    page('camera.wgsl', of, [
      '  const device = await (await navigator.gpu.requestAdapter()).requestDevice();',
      '  const module = device.createShaderModule({ code: `${code}',
      `    @group(0) @binding(0) var<storage, read> rows: array<array<f32, ${1 + inputCount}>>;`,
      '    @group(0) @binding(1) var<storage, read_write> answers: array<array<f32, 17>>;',
      '    @compute @workgroup_size(1) fn main(@builtin(global_invocation_id) id: vec3u) {',
      '      let kind = i32(rows[id.x][0]);',
      `      let given = array<f32, ${inputCount}>(${Array.from({ length: inputCount }, (_, i) => `rows[id.x][${1 + i}]`).join(', ')});`,
      `      let frame = ${indented(of.frame, '      ')};`,
      '      let answer = &answers[id.x];',
      '      (*answer)[16] = 1.0;',
      ...of.cases.map(
        ({ text, matrix, guard, numbers }, i) =>
          `      if (kind == ${i}) { ${matrix ? `var v = ${text}; for (var i = 0; i < 16; i++) { (*answer)[i] = v[i / 4][i % 4]; }` : `let v = ${text}; ${numbers.map((one, k) => `(*answer)[${k}] = ${one};`).join(' ')}${guard ? ` (*answer)[16] = f32(${guard});` : ''}`} }`,
      ),
      '    }` });',
      "  const pipeline = device.createComputePipeline({ layout: 'auto', compute: { module } });",
      '  const buffer = (size, usage) => device.createBuffer({ size, usage });',
      `  const input = buffer(${4 + 4 * inputCount} * rows.length, GPUBufferUsage.STORAGE | GPUBufferUsage.COPY_DST);`,
      '  const output = buffer(68 * rows.length, GPUBufferUsage.STORAGE | GPUBufferUsage.COPY_SRC);',
      '  const back = buffer(68 * rows.length, GPUBufferUsage.MAP_READ | GPUBufferUsage.COPY_DST);',
      `  const list = rows.flatMap(([, kind, ...cells]) => [Object.keys(kinds).indexOf(kind), ...cells.slice(0, ${inputCount}).map(Number)]);`,
      '  device.queue.writeBuffer(input, 0, new Float32Array(list));',
      '  const commands = device.createCommandEncoder();',
      '  const pass = commands.beginComputePass();',
      '  pass.setPipeline(pipeline);',
      '  const entries = [input, output].map((one, binding) => ({ binding, resource: { buffer: one } }));',
      '  pass.setBindGroup(0, device.createBindGroup({ layout: pipeline.getBindGroupLayout(0), entries }));',
      '  pass.dispatchWorkgroups(rows.length);',
      '  pass.end();',
      '  commands.copyBufferToBuffer(output, 0, back, 0, 68 * rows.length);',
      '  device.queue.submit([commands.finish()]);',
      '  await back.mapAsync(GPUMapMode.READ);',
      '  const all = new Float32Array(back.getMappedRange());',
      '  const answers = rows.map((_, i) => all.slice(17 * i, 17 * i + 17));',
    ]),
};
