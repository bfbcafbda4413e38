/*
 * Reads a working's TeX as arithmetic: the test's witness that what is typeset is what is computed.
 * Numbers, brackets, + − \cdot, \dfrac, whole parts, atan2, powers of ten, and products of matrices
 * written side by side.
 */

type Value = readonly (readonly number[])[];
const scalar = (v: number): Value => [[v]];
const numberOf = (v: Value): number => {
  if (v.length !== 1 || v[0]!.length !== 1) throw new Error('a number was expected');
  return v[0]![0]!;
};

function times(a: Value, b: Value): Value {
  if (a.length === 1 && a[0]!.length === 1 && b.length === 1 && b[0]!.length === 1)
    return scalar(numberOf(a) * numberOf(b));
  if (a[0]!.length !== b.length)
    throw new Error(`no product of ${a.length}×${a[0]!.length} and ${b.length}×${b[0]!.length}`);
  return a.map((row) => b[0]!.map((_, j) => row.reduce((sum, v, k) => sum + v * b[k]![j]!, 0)));
}
const plus = (a: Value, b: Value, sign: 1 | -1): Value => scalar(numberOf(a) + sign * numberOf(b));

/** What a formula comes to: its numbers, row by row. */
export function evaluateTex(tex: string): number[] {
  let at = 0;
  const rest = () => tex.slice(at);
  const take = (text: string): boolean => {
    if (!tex.startsWith(text, at)) return false;
    at += text.length;
    return true;
  };
  const want = (text: string) => {
    if (!take(text)) throw new Error(`“${text}” was expected at: ${rest().slice(0, 40)}`);
  };
  /** Canonical space of {…}, as text; braces within are balanced. */
  const group = (): string => {
    want('{');
    const from = at;
    for (let depth = 1; depth; at++) {
      if (tex[at] === '{') depth++;
      if (tex[at] === '}') depth--;
      if (at >= tex.length) throw new Error('a brace is open');
    }
    return tex.slice(from, at - 1);
  };
  const inner = (text: string): Value => evaluateAll(text);
  const factor = (): Value => {
    if (take('-')) return scalar(-numberOf(factor()));
    if (take('(')) {
      const value = sum();
      want(')');
      return value;
    }
    if (take('\\htmlData')) {
      group();
      return inner(group());
    }
    if (take('\\lfloor ')) {
      const value = sum();
      want('\\rfloor ');
      return scalar(Math.floor(numberOf(value)));
    }
    if (take('\\pi ')) return scalar(Math.PI);
    if (take('\\operatorname{atan2}(')) {
      const y = sum();
      want(',');
      const x = sum();
      want(')');
      return scalar(Math.atan2(numberOf(y), numberOf(x)));
    }
    if (take('\\dfrac')) return scalar(numberOf(inner(group())) / numberOf(inner(group())));
    if (take('\\begin{bmatrix}')) {
      const end = tex.indexOf('\\end{bmatrix}', at);
      const body = tex.slice(at, end);
      at = end + '\\end{bmatrix}'.length;
      return body.split('\\\\').map((row) => row.split('&').map((cell) => numberOf(inner(cell))));
    }
    const number = /^\d+(\.\d+)?/.exec(rest());
    if (!number) throw new Error(`a number was expected at: ${rest().slice(0, 40)}`);
    at += number[0].length;
    if (take('^')) return scalar(Number(number[0]) ** Number(group()));
    return scalar(Number(number[0]));
  };
  const product = (): Value => {
    let value = factor();
    while (take('\\cdot ') || take('\\cdot') || take('\\,')) value = times(value, factor());
    return value;
  };
  function sum(): Value {
    let value = product();
    for (;;) {
      if (take('+')) value = plus(value, product(), 1);
      else if (take('-')) value = plus(value, product(), -1);
      else return value;
    }
  }
  const value = sum();
  if (at !== tex.length) throw new Error(`not understood: ${rest().slice(0, 40)}`);
  return value.flat();
}
const evaluateAll = (tex: string): Value => {
  const numbers = evaluateTex(tex);
  return [numbers];
};
