/*
 * A small typed language that the camera's mathematics is written in once, to be printed in thirteen: its
 * programs as trees. Vectors add, subtract and scale by operators; everything else is a call.
 */

export type Type = 'num' | 'bool' | 'int' | 'vec2' | 'vec3' | 'vec4' | 'mat4' | { readonly struct: string } | { readonly of: Type; readonly count: number }; // prettier-ignore

export type Expr = { readonly type: Type } & (
  | { readonly kind: 'number'; readonly text: string }
  | { readonly kind: 'bool'; readonly value: boolean }
  | { readonly kind: 'name'; readonly name: string }
  | { readonly kind: 'field'; readonly of: Expr; readonly name: string }
  | { readonly kind: 'index'; readonly of: Expr; readonly at: Expr }
  | { readonly kind: 'unary'; readonly op: '-' | '!'; readonly of: Expr }
  | { readonly kind: 'binary'; readonly op: BinaryOp; readonly left: Expr; readonly right: Expr }
  | { readonly kind: 'call'; readonly fn: string; readonly args: readonly Expr[] }
  | { readonly kind: 'make'; readonly args: readonly Expr[]; readonly fields?: readonly string[] }
);
export type BinaryOp = '+' | '-' | '*' | '/' | '<' | '>' | '<=' | '>=' | '==' | '&&' | '||';

export type Statement =
  | { readonly kind: 'comment'; readonly text: string }
  | { readonly kind: 'let'; readonly name: string; readonly mutable: boolean; readonly value: Expr }
  | { readonly kind: 'set'; readonly to: Expr; readonly value: Expr }
  | { readonly kind: 'if'; readonly test: Expr; readonly then: readonly Statement[]; readonly otherwise: readonly Statement[] }
  | { readonly kind: 'for'; readonly name: string; readonly to: Expr; readonly body: readonly Statement[] }
  | { readonly kind: 'return'; readonly value: Expr }; // prettier-ignore

export interface Field {
  readonly name: string;
  readonly type: Type;
  readonly comment: string | null;
}
export interface Struct {
  readonly kind: 'struct';
  readonly name: string;
  readonly comment: readonly string[];
  readonly fields: readonly Field[];
}
export interface Fn {
  readonly kind: 'fn';
  readonly name: string;
  readonly comment: readonly string[];
  readonly params: readonly { readonly name: string; readonly type: Type }[];
  readonly result: Type;
  readonly body: readonly Statement[];
}
/** A value that is set once: the camera's own numbers. */
export interface Const {
  readonly kind: 'const';
  readonly name: string;
  readonly comment: readonly string[];
  readonly value: Expr;
}
export type Item = Struct | Fn | Const;

/** Calls that every language has or is given: what they take is not checked beyond their number. */
const builtins: Readonly<Record<string, Type>> = {
  ...{
    sin: 'num',
    cos: 'num',
    tan: 'num',
    sqrt: 'num',
    atan: 'num',
    exp2: 'num',
    abs: 'num',
    floor: 'num',
    min: 'num',
    max: 'num',
  },
  ...{ dot: 'num', length: 'num', cross: 'vec3', normalize: 'vec3', mul: 'mat4' },
} as const;
export const isBuiltin = (name: string): boolean => name in builtins;

type Token = { readonly kind: 'name' | 'number' | 'punct' | 'comment' | 'end'; readonly text: string };
function tokensOf(source: string): Token[] {
  const pattern = /\s+|\/\/ ?(.*)|([A-Za-z_]\w*)|(\d+(?:\.\d+)?(?:e[-+]?\d+)?)|(->|\.\.|[<>=]=|&&|\|\||[-+*/(){}[\],.:;=<>!])/gy; // prettier-ignore
  const tokens: Token[] = [];
  for (let found = pattern.exec(source); found; found = pattern.exec(source)) {
    const [, comment, name, number, punct] = found;
    if (comment !== undefined) tokens.push({ kind: 'comment', text: comment });
    else if (name) tokens.push({ kind: 'name', text: name });
    else if (number) tokens.push({ kind: 'number', text: number });
    else if (punct) tokens.push({ kind: 'punct', text: punct });
    if (pattern.lastIndex === source.length) return [...tokens, { kind: 'end', text: '' }];
  }
  throw new Error(`not part of the language: ${source.slice(pattern.lastIndex, pattern.lastIndex + 20)}`);
}

const same = (a: Type, b: Type): boolean => JSON.stringify(a) === JSON.stringify(b);
export const isVector = (type: Type): boolean => type === 'vec2' || type === 'vec3' || type === 'vec4';
const levels: readonly (readonly BinaryOp[])[] = [['||'], ['&&'], ['<', '>', '<=', '>=', '=='], ['+', '-'], ['*', '/']];

/** The items of a program; a fault of the program is thrown, with where it is. */
export function parseProgram(source: string): Item[] {
  const tokens = tokensOf(source);
  let at = 0;
  const structs = new Map<string, Struct>();
  const fns = new Map<string, Pick<Fn, 'params' | 'result'>>();
  const globals = new Map<string, Type>();
  let scope = new Map<string, Type>();

  const peek = () => tokens[at]!;
  const fail = (why: string): never => {
    throw new Error(`${why} at “${tokens.slice(Math.max(0, at - 6), at + 4).map(({ text }) => text).join(' ')}”`); // prettier-ignore
  };
  const is = (text: string) => peek().kind !== 'comment' && peek().text === text;
  const take = (text: string): boolean => is(text) && (at++, true);
  const want = (text: string): void => void (take(text) || fail(`“${text}” is missing`));
  const word = (): string => (peek().kind === 'name' ? tokens[at++]!.text : fail('a name is missing'));
  const comments = (): string[] => {
    const lines: string[] = [];
    while (peek().kind === 'comment') lines.push(tokens[at++]!.text);
    return lines;
  };

  const typeOf = (): Type => {
    if (take('[')) {
      const count = Number(tokens[at++]!.text);
      want(']');
      return { of: typeOf(), count };
    }
    const name = word();
    if (['num', 'bool', 'int', 'vec2', 'vec3', 'vec4', 'mat4'].includes(name)) return name as Type;
    return structs.has(name) ? { struct: name } : fail(`no type ${name}`);
  };

  const args = (close: string): Expr[] => {
    const list: Expr[] = [];
    while (!take(close)) {
      list.push(expression());
      if (!is(close)) want(',');
    }
    return list;
  };
  const primary = (): Expr => {
    const token = tokens[at++]!;
    if (token.kind === 'number') return { kind: 'number', text: token.text, type: 'num' };
    if (token.text === '(') {
      const inner = expression();
      want(')');
      return inner;
    }
    if (token.text === '[') {
      const list = args(']');
      return { kind: 'make', args: list, type: { of: list[0]!.type, count: list.length } };
    }
    if (token.kind !== 'name') return fail('an expression is missing');
    const name = token.text;
    if (name === 'true' || name === 'false') return { kind: 'bool', value: name === 'true', type: 'bool' };
    if (structs.has(name) && take('{')) {
      const values = args('}');
      const { fields } = structs.get(name)!;
      if (values.length !== fields.length) fail(`${name} has ${fields.length} fields`);
      return { kind: 'make', args: values, fields: fields.map((one) => one.name), type: { struct: name } };
    }
    if (take('(')) {
      const list = args(')');
      if (['vec2', 'vec3', 'vec4', 'mat4'].includes(name)) return { kind: 'make', args: list, type: name as Type };
      const own = fns.get(name);
      if (own && own.params.length !== list.length) fail(`${name} takes ${own.params.length}`);
      own?.params.forEach(({ type }, i) => same(type, list[i]!.type) || fail(`${name} takes another type`));
      const type = own?.result ?? (name in builtins ? builtins[name]! : fail(`no function ${name}`));
      return { kind: 'call', fn: name, args: list, type };
    }
    const type = scope.get(name) ?? globals.get(name) ?? fail(`no ${name}`);
    return { kind: 'name', name, type };
  };
  const postfix = (): Expr => {
    let of = primary();
    for (;;) {
      if (take('.')) {
        const name = word();
        const type = of.type;
        if (isVector(type)) of = { kind: 'field', of, name, type: 'num' };
        else if (typeof type === 'object' && 'struct' in type) {
          const field = structs.get(type.struct)!.fields.find((one) => one.name === name) ?? fail(`no field ${name}`);
          of = { kind: 'field', of, name, type: field.type };
        } else fail('that has no fields');
      } else if (take('[')) {
        const index = expression();
        want(']');
        const type = of.type;
        if (typeof type !== 'object' || !('of' in type)) return fail('that is no list');
        of = { kind: 'index', of, at: index, type: type.of };
      } else return of;
    }
  };
  const unary = (): Expr => {
    if (take('-')) {
      const of = unary();
      return { kind: 'unary', op: '-', of, type: of.type };
    }
    if (take('!')) return { kind: 'unary', op: '!', of: unary(), type: 'bool' };
    return postfix();
  };
  const binary = (level: number): Expr => {
    if (level === levels.length) return unary();
    let left = binary(level + 1);
    for (;;) {
      const op = levels[level]!.find((one) => is(one));
      if (!op) return left;
      at++;
      const right = binary(level + 1);
      const type = level < 3 ? 'bool' : isVector(left.type) ? left.type : isVector(right.type) ? right.type : left.type;
      left = { kind: 'binary', op, left, right, type };
    }
  };
  function expression(): Expr {
    return binary(0);
  }

  const block = (): Statement[] => {
    want('{');
    const body: Statement[] = [];
    while (!take('}')) body.push(statement());
    return body;
  };
  const statement = (): Statement => {
    if (peek().kind === 'comment') return { kind: 'comment', text: tokens[at++]!.text };
    if (is('let') || is('var')) {
      const mutable = tokens[at++]!.text === 'var';
      const name = word();
      want('=');
      const value = expression();
      want(';');
      scope.set(name, value.type);
      return { kind: 'let', name, mutable, value };
    }
    if (take('return')) {
      const value = expression();
      want(';');
      return { kind: 'return', value };
    }
    if (take('if')) {
      const test = expression();
      const then = block();
      const otherwise = take('else') ? block() : [];
      return { kind: 'if', test, then, otherwise };
    }
    if (take('for')) {
      const name = word();
      want('in');
      want('0');
      want('..');
      const to = expression();
      scope.set(name, 'int');
      return { kind: 'for', name, to, body: block() };
    }
    const to = postfix();
    want('=');
    const value = expression();
    want(';');
    return { kind: 'set', to, value };
  };

  const items: Item[] = [];
  while (peek().kind !== 'end') {
    const comment = comments();
    if (take('struct')) {
      const name = word();
      want('{');
      const fields: Field[] = [];
      while (!take('}')) {
        const field = word();
        want(':');
        const type = typeOf();
        want(',');
        fields.push({ name: field, type, comment: peek().kind === 'comment' ? tokens[at++]!.text : null });
      }
      const made: Struct = { kind: 'struct', name, comment, fields };
      structs.set(name, made);
      items.push(made);
    } else if (take('const')) {
      const name = word();
      want('=');
      const value = expression();
      want(';');
      globals.set(name, value.type);
      items.push({ kind: 'const', name, comment, value });
    } else if (take('fn')) {
      const name = word();
      want('(');
      const params: { name: string; type: Type }[] = [];
      while (!take(')')) {
        const param = word();
        want(':');
        params.push({ name: param, type: typeOf() });
        if (!is(')')) want(',');
      }
      want(':');
      const result = typeOf();
      fns.set(name, { params, result });
      scope = new Map(params.map((one) => [one.name, one.type]));
      items.push({ kind: 'fn', name, comment, params, result, body: block() });
    } else fail('an item is missing');
  }
  return items;
}
