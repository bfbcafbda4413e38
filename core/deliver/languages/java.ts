import type { Type } from '../program';
import type { Language } from '../print';
import { inputCount } from '../vectorKinds';
import { simple, productLoops, cTypes, cNumber, cFlow, cWords, indented } from './shared';

/** What another class says: functions and types by the class that has them. */
const fromOutside = (text: string): string =>
  text.replace(/(?<![\w.])(?:new (?!double|float)|(?=[a-z]\w*\())/g, (found) =>
    found ? 'new CameraMath.' : 'CameraMath.',
  );
export const Java: Language = {
  ...cWords,
  ...cFlow,
  asNumber: (truth) => `(${truth} ? 1 : 0)`,
  ...{ name: 'Java', file: 'CameraMath.java', operators: false, depth: 1 },
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
      ...(!uses.has('vectors')
        ? []
        : [
            `    public record Vec2(${n} x, ${n} y) {}`,
            ...(uses.has('vec3') ? [`    public record Vec3(${n} x, ${n} y, ${n} z) {}`] : []),
            '',
            ...(uses.has('vec3') ? [...fn('Vec3 add(Vec3 a, Vec3 b)', 'new Vec3(a.x() + b.x(), a.y() + b.y(), a.z() + b.z())'), ...fn('Vec3 sub(Vec3 a, Vec3 b)', 'new Vec3(a.x() - b.x(), a.y() - b.y(), a.z() - b.z())')] : []), // prettier-ignore
            ...(uses.has('negate') ? fn('Vec3 negate(Vec3 v)', 'new Vec3(-v.x(), -v.y(), -v.z())') : []),
            ...(uses.has('vec3') ? fn(`Vec3 scale(Vec3 v, ${n} k)`, 'new Vec3(v.x() * k, v.y() * k, v.z() * k)') : []),
            ...(uses.has('vec2') ? [...fn('Vec2 sub(Vec2 a, Vec2 b)', 'new Vec2(a.x() - b.x(), a.y() - b.y())'), ...fn(`Vec2 scale(Vec2 v, ${n} k)`, 'new Vec2(v.x() * k, v.y() * k)')] : []), // prettier-ignore
            ...(uses.has('vec3')
              ? fn(`${n} dot(Vec3 a, Vec3 b)`, 'a.x() * b.x() + a.y() * b.y() + a.z() * b.z()')
              : []),
            ...(uses.has('cross') ? fn('Vec3 cross(Vec3 a, Vec3 b)', 'new Vec3(a.y() * b.z() - a.z() * b.y(), a.z() * b.x() - a.x() * b.z(), a.x() * b.y() - a.y() * b.x())') : []), // prettier-ignore
            ...(uses.has('length') || uses.has('normalize') ? fn(`${n} length(Vec3 v)`, root) : []),
            ...(uses.has('normalize')
              ? fn('Vec3 normalize(Vec3 v)', `scale(v, ${cNumber('1', style)} / length(v))`)
              : []),
            ...(uses.has('mul')
              ? [
                  `    private static ${n}[] mul(${n}[] a, ${n}[] b) {`,
                  `        final ${n}[] product = new ${n}[16];`,
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
  main: (values, { number }, fields) => [
    'public final class Example {',
    '    public static void main(String[] args) {',
    ...values.flatMap(({ text, comment, type }, i) => [...(comment ? [`        // ${comment}`] : []), `        final var v${i} = ${fromOutside(text)};`, ...fields(type, `v${i}`).map((one) => `        System.out.println(${number === 'float' ? '(double) ' : ''}${one});`)]), // prettier-ignore
    '    }',
    '}',
    '',
  ],
  mainFile: 'Example.java',
  harnessFile: 'Harness.java',

  harness: ({ cases, frame, number: n }) => [
    '// Runs CameraMath.java over test vectors: java Harness vectors.csv > answers.csv',
    '// To try functions of your own, call them where those of CameraMath are called.',
    'import java.nio.file.*;',
    '',
    'public final class Harness {',
    `    private static void print(String id, ${n}... numbers) {`,
    '        final StringBuilder text = new StringBuilder(id);',
    `        for (${n} v : numbers) text.append(',').append(v);`,
    '        System.out.println(text);',
    '    }',
    '',
    '    // A row: its id, what is asked, and the numbers that go in.',
    `    private static void answer(String id, String kind, ${n}[] given) {`,
    `        final var frame = ${indented(fromOutside(frame), '        ')};`,
    ...cases.flatMap(({ kind, text, matrix, guard, numbers }) =>
      matrix
        ? [`        if (kind.equals("${kind}")) print(id, ${fromOutside(text)});`]
        : [
            `        if (kind.equals("${kind}")) {`,
            `            final var v = ${fromOutside(text)};`,
            ...(guard ? [`            if (!${guard}) print(id);`] : []),
            `            ${guard ? 'else ' : ''}print(id, ${numbers.join(', ')});`,
            '        }',
          ],
    ),
    '    }',
    '',
    '    public static void main(String[] args) throws Exception {',
    '        for (String line : Files.readAllLines(Path.of(args.length > 0 ? args[0] : "vectors.csv"))) {',
    '            final String[] cells = line.split(",", -1);',
    '            if (cells[1].equals("kind")) continue;',
    `            final ${n}[] given = new ${n}[${inputCount}];`,
    `            for (int i = 0; i < ${inputCount} && !cells[2 + i].isEmpty(); ++i) given[i] = ${n === 'float' ? 'Float.parseFloat' : 'Double.parseDouble'}(cells[2 + i]);`,
    '            answer(cells[0], cells[1], given);',
    '        }',
    '    }',
    '}',
    '',
  ],
};
