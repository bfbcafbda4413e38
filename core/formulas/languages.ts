import { write, type Formulas, type Notation } from './expression';

/* Formulas as text: for reading, for TeX, and as the body of a function in a language. */

export type Language = 'C' | 'C++' | 'C#' | 'Java' | 'JavaScript' | 'Python' | 'Rust' | 'Go' | 'Lua' | 'GLSL';

interface Manner {
  readonly comment: string;
  readonly declare: (name: string, value: string) => string;
  readonly call: (fn: string, of: string) => string;
  /** How a name of several words is written. */
  readonly snake: boolean;
}

const of =
  (prefix: string, upper = false) =>
  (fn: string, x: string) =>
    `${prefix}${upper ? fn[0]!.toUpperCase() + fn.slice(1) : fn}(${x})`;

const manners: Readonly<Record<Language, Manner>> = {
  C: { comment: '//', declare: (n, v) => `const double ${n} = ${v};`, call: of(''), snake: true },
  'C++': { comment: '//', declare: (n, v) => `const double ${n} = ${v};`, call: of('std::'), snake: false },
  'C#': { comment: '//', declare: (n, v) => `double ${n} = ${v};`, call: of('Math.', true), snake: false },
  Java: { comment: '//', declare: (n, v) => `final double ${n} = ${v};`, call: of('Math.'), snake: false },
  JavaScript: { comment: '//', declare: (n, v) => `const ${n} = ${v};`, call: of('Math.'), snake: false },
  Python: { comment: '#', declare: (n, v) => `${n} = ${v}`, call: of('math.'), snake: true },
  Rust: { comment: '//', declare: (n, v) => `let ${n}: f64 = ${v};`, call: (fn, x) => `(${x}).${fn}()`, snake: true },
  Go: { comment: '//', declare: (n, v) => `${n} := ${v}`, call: of('math.', true), snake: false },
  Lua: { comment: '--', declare: (n, v) => `local ${n} = ${v}`, call: of('math.'), snake: false },
  GLSL: { comment: '//', declare: (n, v) => `float ${n} = ${v};`, call: of(''), snake: false },
};
export const languages = Object.keys(manners) as Language[];

/** A number with all its digits, always with a point: no language takes it for a whole one. */
const literal = (value: number): string => {
  const text = String(value);
  return /[.e]/.test(text) ? text.replace(/^(-?\d+)e/, '$1.0e') : `${text}.0`;
};

const snakeOf = (name: string) => name.replace(/([a-z0-9])([A-Z])/g, '$1_$2').toLowerCase();

/**
 * Formulas as the body of a function: what is given as constants, then a line a step, in doubles
 * (in GLSL in its floats). What is wanted is named at the end.
 */
export function asCode({ given, steps, wanted }: Formulas, language: Language): string {
  const { comment, declare, call, snake } = manners[language];
  const named = (name: string) => (snake ? snakeOf(name) : name);
  const notation: Notation = {
    number: literal,
    name: named,
    times: ' * ',
    call,
    quotient: (over, under) => `${over} / ${under}`,
    fractions: false,
  };
  return [
    ...given.map(({ name, value, says }) => `${declare(named(name), literal(value))} ${comment} ${says}`),
    ...steps.map(
      ({ name, of: one, says }) => declare(named(name), write(one, notation)) + (says && ` ${comment} ${says}`),
    ),
    `${comment} wanted: ${wanted.map(named).join(', ')}`,
  ].join('\n');
}

const plainNotation: Notation = {
  number: (value) => String(value),
  name: (name) => name,
  times: ' * ',
  call: (fn, x) => `${fn}(${x})`,
  quotient: (over, under) => `${over} / ${under}`,
  fractions: false,
};

/** Formulas as plain expressions, a line a step, with what is given before them. */
export const asPlain = ({ given, steps }: Formulas): string =>
  [
    ...given.map(({ name, value }) => `${name} = ${value}`),
    ...steps.map(({ name, of: one }) => `${name} = ${write(one, plainNotation)}`),
  ].join('\n');

/** A step in TeX: in symbols, and with the numbers put in by `digits`. */
export interface TexStep {
  readonly name: string;
  readonly says: string;
  readonly left: string;
  readonly symbols: string;
  readonly numbers: string;
  readonly value: number;
}

/**
 * The steps of formulas in TeX. `values` are those of `valuesOf`. Numbers below 0 stand in brackets
 * behind a sign.
 */
export function asTex(
  { given, steps }: Formulas,
  values: ReadonlyMap<string, number>,
  digits: (value: number) => string,
): TexStep[] {
  const tex = new Map([...given, ...steps].map(({ name, tex: own }) => [name, own]));
  const calls = (fn: string, x: string) => (fn === 'sqrt' ? `\\sqrt{${x}}` : `\\${fn}(${x})`);
  const base = { times: '\\cdot ', call: calls, quotient: (a: string, b: string) => `\\dfrac{${a}}{${b}}`, fractions: true }; // prettier-ignore
  const constant = (value: number) => (value === Math.PI ? '\\pi' : digits(value));
  const symbols: Notation = { ...base, number: constant, name: (name) => tex.get(name)! };
  const numbers: Notation = {
    ...base,
    number: constant,
    name: (name) => {
      const value = values.get(name)!;
      return value < 0 ? `(${digits(value)})` : digits(value);
    },
  };
  return steps.map(({ name, says, of: one, tex: left }) => ({
    ...{ name, says, left, value: values.get(name)! },
    symbols: write(one, symbols),
    numbers: write(one, numbers),
  }));
}

/** Formulas as LaTeX to be set elsewhere: aligned, in symbols. */
export const asLatex = (formulas: Formulas): string =>
  `\\begin{aligned}\n${asTex(formulas, valuesOfNothing(formulas), String)
    .map(({ left, symbols }) => `${left} &= ${symbols}`)
    .join(' \\\\\n')}\n\\end{aligned}`;

const valuesOfNothing = ({ given, steps }: Formulas) => new Map([...given, ...steps].map(({ name }) => [name, 0]));
