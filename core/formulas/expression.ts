/*
 * Small arithmetic with names: formulas that are evaluated, typeset and written as code from one
 * and the same thing, so that what is shown is what was computed.
 */

export type Expression =
  | { readonly kind: 'number'; readonly value: number }
  | { readonly kind: 'name'; readonly name: string }
  | { readonly kind: 'sum'; readonly terms: readonly { readonly minus: boolean; readonly of: Expression }[] }
  | { readonly kind: 'product'; readonly factors: readonly Expression[] }
  | { readonly kind: 'quotient'; readonly over: Expression; readonly under: Expression }
  | { readonly kind: 'call'; readonly fn: 'sin' | 'cos' | 'tan' | 'sqrt'; readonly of: Expression };

export const number = (value: number): Expression => ({ kind: 'number', value: value === 0 ? 0 : value });
export const name = (of: string): Expression => ({ kind: 'name', name: of });
export const call = (fn: 'sin' | 'cos' | 'tan' | 'sqrt', of: Expression): Expression => ({ kind: 'call', fn, of });
export const quotient = (over: Expression, under: Expression): Expression => ({ kind: 'quotient', over, under });
export const product = (...factors: readonly Expression[]): Expression => ({ kind: 'product', factors });
export const plus = (...of: readonly Expression[]): Expression => ({
  kind: 'sum',
  terms: of.map((one) => ({ minus: false, of: one })),
});
/** The first, or less the others. */
export const minus = (first: Expression, ...others: readonly Expression[]): Expression => ({
  kind: 'sum',
  terms: [{ minus: false, of: first }, ...others.map((of) => ({ minus: true, of }))],
});
export const negative = (of: Expression): Expression => ({ kind: 'sum', terms: [{ minus: true, of }] });
/** An expression, or its negative. */
export const signed = (sign: 1 | -1, of: Expression): Expression => (sign < 0 ? negative(of) : of);

/** The number that an expression is, by the values of its names; a name without one is an error. */
export function evaluate(of: Expression, values: ReadonlyMap<string, number>): number {
  switch (of.kind) {
    case 'number':
      return of.value;
    case 'name': {
      const value = values.get(of.name);
      if (value === undefined) throw new Error(`${of.name} has no value`);
      return value;
    }
    case 'sum':
      return of.terms.reduce((sum, term) => sum + (term.minus ? -1 : 1) * evaluate(term.of, values), 0);
    case 'product':
      return of.factors.reduce((all, one) => all * evaluate(one, values), 1);
    case 'quotient':
      return evaluate(of.over, values) / evaluate(of.under, values);
    case 'call':
      return Math[of.fn](evaluate(of.of, values));
  }
}

/** How the parts of an expression are written in some notation. */
export interface Notation {
  readonly number: (value: number) => string;
  readonly name: (name: string) => string;
  readonly times: string;
  readonly call: (fn: 'sin' | 'cos' | 'tan' | 'sqrt', of: string) => string;
  /** Of texts that are bracketed as they need to be for a stroke between them. */
  readonly quotient: (over: string, under: string) => string;
  /** Whether a quotient shows by itself where its parts end, as a fraction does. */
  readonly fractions: boolean;
}

const binds = { sum: 1, product: 2, quotient: 2, number: 4, name: 4, call: 4 } as const;

/** An expression as text, with brackets where they are needed and nowhere else. */
export function write(of: Expression, notation: Notation): string {
  const strength = (one: Expression) =>
    one.kind === 'number' && one.value < 0
      ? 1
      : one.kind === 'quotient' && notation.fractions
        ? 4
        : one.kind === 'sum' && one.terms.length === 1 && !one.terms[0]!.minus
          ? strengthOf(one.terms[0]!.of)
          : binds[one.kind];
  const strengthOf = (one: Expression): number => strength(one);
  const inside = (one: Expression, least: number): string => {
    const text = write(one, notation);
    return strength(one) < least ? `(${text})` : text;
  };
  switch (of.kind) {
    case 'number':
      return notation.number(of.value);
    case 'name':
      return notation.name(of.name);
    case 'sum':
      return of.terms
        .map(({ minus: taken, of: one }, i) => {
          const text = inside(one, taken || i > 0 ? 2 : 1);
          return i === 0 ? (taken ? `-${text}` : text) : `${taken ? ' - ' : ' + '}${text}`;
        })
        .join('');
    case 'product':
      return of.factors.map((one, i) => inside(one, i === 0 ? 2 : 3)).join(notation.times);
    case 'quotient':
      return notation.fractions
        ? notation.quotient(write(of.over, notation), write(of.under, notation))
        : notation.quotient(inside(of.over, 2), inside(of.under, 3));
    case 'call':
      return notation.call(of.fn, write(of.of, notation));
  }
}

/** Something given: a name, what it is, its value, and how it is typeset. */
export interface Given {
  readonly name: string;
  readonly says: string;
  readonly value: number;
  readonly tex: string;
}
/** Something worked out of what stands before it. */
export interface Step {
  readonly name: string;
  readonly says: string;
  readonly of: Expression;
  readonly tex: string;
}
/** Formulas one after the other, from what is given to what is wanted. */
export interface Formulas {
  readonly given: readonly Given[];
  readonly steps: readonly Step[];
  /** The names of what is wanted. */
  readonly wanted: readonly string[];
}

/** The values of everything that is given or worked out, by name. */
export function valuesOf({ given, steps }: Formulas): ReadonlyMap<string, number> {
  const values = new Map(given.map(({ name: own, value }) => [own, value]));
  for (const { name: own, of } of steps) values.set(own, evaluate(of, values));
  return values;
}
