import jsep from 'jsep';

/*
 * Sums as they are typed into a field. The parser knows nothing but numbers, names, calls and the
 * operators below; what it finds is evaluated here.
 */

type Binary = (a: number, b: number) => number;
const binary: Readonly<Record<string, readonly [precedence: number, run: Binary]>> = {
  '+': [9, (a, b) => a + b],
  '-': [9, (a, b) => a - b],
  '*': [10, (a, b) => a * b],
  '/': [10, (a, b) => a / b],
  '%': [10, (a, b) => a % b],
  '^': [11, (a, b) => a ** b],
};
jsep.removeAllBinaryOps();
jsep.removeAllUnaryOps();
jsep.removeAllLiterals();
for (const [operator, [precedence]] of Object.entries(binary)) jsep.addBinaryOp(operator, precedence, operator === '^');
for (const operator of ['+', '-']) jsep.addUnaryOp(operator);

const constants = new Map([
  ['pi', Math.PI],
  ['tau', 2 * Math.PI],
  ['e', Math.E],
]);
const functions = new Map<string, (...values: number[]) => number>(
  (
    ['sqrt', 'sin', 'cos', 'tan', 'asin', 'acos', 'atan', 'abs', 'min', 'max', 'floor', 'ceil', 'round', 'exp'] as const
  ).map((name) => [name, Math[name] as (...values: number[]) => number]),
);
functions.set('ln', Math.log);

/** The value of a parsed sum; throws at anything that is none. */
function evaluate(node: jsep.Expression): number {
  switch (node.type) {
    case 'Literal': {
      const { value } = node as jsep.Literal;
      if (typeof value === 'number') return value;
      break;
    }
    case 'Identifier': {
      const value = constants.get((node as jsep.Identifier).name.toLowerCase());
      if (value !== undefined) return value;
      break;
    }
    case 'UnaryExpression': {
      const { operator, argument } = node as jsep.UnaryExpression;
      // −2^2 is −(2^2), though the parser binds the sign to the 2: then the power takes it along.
      return operator === '-' ? -evaluate(argument) : evaluate(argument);
    }
    case 'BinaryExpression': {
      const { operator, left, right } = node as jsep.BinaryExpression;
      const run = binary[operator]?.[1];
      if (!run) break;
      if (operator === '^' && left.type === 'UnaryExpression') {
        const { operator: sign, argument } = left as jsep.UnaryExpression;
        const power = run(evaluate(argument), evaluate(right));
        return sign === '-' ? -power : power;
      }
      return run(evaluate(left), evaluate(right));
    }
    case 'CallExpression': {
      const { callee, arguments: given } = node as jsep.CallExpression;
      const run = callee.type === 'Identifier' ? functions.get((callee as jsep.Identifier).name) : undefined;
      if (run && given.length) return run(...given.map(evaluate));
      break;
    }
  }
  throw new SyntaxError('no sum');
}

/** The units a field may be given in, each as how many of the field's own unit it is. */
export type Units = Readonly<Record<string, number>>;
export const lengths: Units = { mm: 0.001, cm: 0.01, m: 1, km: 1000 };
export const anglesIn = (unit: 'degrees' | 'radians'): Units => {
  const degree = unit === 'degrees' ? 1 : Math.PI / 180;
  return { deg: degree, '°': degree, rad: degree * (180 / Math.PI), turn: degree * 360 };
};
export const pixels: Units = { px: 1 };
export const seconds: Units = { s: 1, ms: 0.001 };

/**
 * A number or a small sum as it was typed, with a unit behind it if the field knows one; null when
 * it is neither, or not finite.
 */
export function parseNumber(text: string, units: Units = {}): number | null {
  let rest = text.trim().replaceAll('\u2212', '-').replaceAll('×', '*').replaceAll('÷', '/');
  let factor = 1;
  const unit = /([a-z°]+)$/i.exec(rest)?.[1];
  if (unit && Object.hasOwn(units, unit) && /[\d.)\s]$/.test(rest.slice(0, -unit.length))) {
    factor = units[unit]!;
    rest = rest.slice(0, -unit.length);
  }
  if (!rest.trim() || rest.length > 200) return null;
  try {
    const value = evaluate(jsep(rest)) * factor;
    return Number.isFinite(value) ? value : null;
  } catch {
    return null;
  }
}
