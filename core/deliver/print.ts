import { reservedWords } from './reserved';
import type { Expr, Fn, Item, Statement, Struct, Type, BinaryOp } from './program';
import { isVector } from './program';

/*
 * Programs printed as a language has them. A language is a set of answers to what differs between
 * languages; what is alike (brackets by precedence, blank lines, comments) is here.
 */

export type NumberType = 'double' | 'float';
export type Naming = 'own' | 'snake' | 'camel' | 'pascal';
/** What a name is of: languages write them differently. */
export type NameOf = 'fn' | 'value' | 'field' | 'type' | 'const';

/** How a product of matrices and a matrix times a vector go by the listing: (row, column) to a place of the sixteen. */
export interface Listing {
  readonly vectors: 'column' | 'row';
  /** Whether columns stand one after another. */
  readonly columns: boolean;
}
export interface Style {
  readonly number: NumberType;
  readonly naming: Naming;
  readonly listing: Listing;
}

/** What stands between brackets, on one line or on a line each. */
export interface Parts {
  readonly open: string;
  readonly items: readonly string[];
  readonly close: string;
  /** Whether there is room inside the brackets on one line. */
  readonly roomy?: boolean;
  /** Whether the last of several lines ends in a comma too. */
  readonly trailing?: boolean;
}

/** One of the things that a harness asks the code for. */
export interface HarnessCase {
  /** The kind of the row of test vectors. */
  readonly kind: string;
  /** The call, of `frame` and the list `given`. */
  readonly text: string;
  readonly type: string;
  /** Whether what comes back is a matrix. */
  readonly matrix: boolean;
  /** Whether there is an answer, of a value `v`; null where there always is. */
  readonly guard: string | null;
  /** The numbers of a value `v`. */
  readonly numbers: readonly string[];
}
/** What a harness is made of. */
export interface Harness {
  readonly cases: readonly HarnessCase[];
  /** The frame of this very camera. */
  readonly frame: string;
  readonly number: string;
  /** Whether matrices are listed by columns, of column vectors. */
  readonly columns: boolean;
}

export interface Language {
  readonly name: string;
  /** The file that it goes into. */
  readonly file: string;
  /** The files that its example and its harness go into. */
  readonly mainFile: string;
  readonly harnessFile: string;
  /** A program that runs the code over test vectors in a table and prints the answers. */
  harness(of: Harness): string[];
  readonly comment: string;
  readonly indent: string;
  /** Whether vectors have operators. */
  readonly operators: boolean;
  /** Whether the names of functions and fields mean something to it and are not the user's to choose. */
  readonly fixedNames?: boolean;
  /** The naming of its own. */
  naming(of: NameOf): 'snake' | 'camel' | 'pascal' | 'upper';
  type(type: Type, style: Style): string;
  number(text: string, style: Style): string;
  /** A field of a value. */
  field(of: string, name: string): string;
  index(of: string, at: Expr, printed: string): string;
  /** A call of what every language has. */
  builtin(fn: string, args: readonly string[], style: Style): string;
  /** A value given to one of the program's own functions, where that is more than the value. */
  argument?(type: Type, text: string): string;
  vectorCall?(op: '+' | '-' | '*' | 'neg', type: Type, args: readonly string[]): string;
  makeVector(type: Type, args: readonly string[], style: Style): string;
  makeStruct(name: string, fields: readonly string[], args: readonly string[]): Parts;
  /** Sixteen numbers, already in the order of the listing, four a row. */
  makeMatrix(rows: readonly string[], style: Style): Parts;
  makeList(type: Type, args: readonly string[], style: Style): Parts;
  not(of: string): string;
  and: string;
  or: string;
  let(name: string, type: string, value: string, mutable: boolean): string;
  set(to: string, value: string): string;
  ret(value: string): string;
  open: { if(test: string): string; otherwise: string; for(name: string, to: string): string };
  close: string;
  fnHead(name: string, params: readonly { name: string; type: string }[], result: string): string;
  fnEnd: string;
  struct(one: { name: string; fields: readonly { name: string; type: string; count: number | null; comment: string | null }[] }, style: Style): string[];
  constant(name: string, type: Type, value: string, style: Style): string[];
  /** What stands before and behind everything. */
  prelude(style: Style, uses: ReadonlySet<string>): string[];
  closing(names: readonly string[], uses: ReadonlySet<string>): string[];
  /** True and false, where they are not written so. */
  truth?(value: boolean): string;
  /** Empty lines between items, where it is not one. */
  readonly gap?: number;
  /** Whether its numbers are floats alone. */
  readonly floatsAlone?: boolean;
  /** A truth as a number to be printed, where it is not one already. */
  asNumber?(truth: string, style: Style): string;
  /** One of the entries of a value that is a list, to be printed; `matrix` where it is one's. */
  entry?(list: string, index: number, matrix: boolean): string;
  /** A last line that gives a value, where that needs no word. */
  tail?(line: string): string;
  /** How deep functions and types stand. */
  readonly depth: number;
  /** Whether its matrices are made of their columns, as they are for column vectors; otherwise by the listing. */
  listsColumns?(style: Style): boolean;
  /** Whether its matrices are a type of its own, listed by columns whatever the conventions say. */
  readonly ownMatrices?: boolean;
  /** A program that prints numbers, a line each. */
  main(values: readonly { readonly text: string; readonly type: Type; readonly comment: string | null }[], style: Style, fields: (type: Type, text: string) => readonly string[]): string[];
} // prettier-ignore

const words = (name: string): string[] => name.split('_').filter(Boolean);
const cap = (word: string): string => word[0]!.toUpperCase() + word.slice(1);
/**
 * A name of the program as a language writes it; types are capitalised there already. A word that the language or its
 * usual headers have for themselves gets an underscore.
 */
export function named(name: string, of: NameOf, language: Language, style: Style): string {
  const written = writtenName(name, of, language, style);
  return reservedWords[language.name]?.has(written) ? `${written}_` : written;
}
function writtenName(name: string, of: NameOf, language: Language, style: Style): string {
  if (of === 'type') return name;
  const own = language.naming(of);
  const free = of === 'value' || (!language.fixedNames && (of === 'fn' || of === 'field'));
  // Pascal is a manner of functions alone.
  const how = style.naming === 'own' || !free || (style.naming === 'pascal' && of !== 'fn') ? own : style.naming;
  const parts = words(name);
  switch (how) {
    case 'snake':
      return parts.join('_');
    case 'upper':
      return parts.join('_').toUpperCase();
    case 'camel':
      return parts[0]! + parts.slice(1).map(cap).join('');
    case 'pascal':
      return parts.map(cap).join('');
  }
}

const level: Readonly<Record<BinaryOp, number>> = { '||': 1, '&&': 2, '<': 3, '>': 3, '<=': 3, '>=': 3, '==': 3, '+': 4, '-': 4, '*': 5, '/': 5 }; // prettier-ignore

/** Prints expressions, statements and items of a program in a language. */
export class Printer {
  #consts = new Set<string>();
  constructor(
    readonly language: Language,
    readonly style: Style,
    consts: readonly string[] = [],
  ) {
    this.#consts = new Set(consts);
  }

  name(name: string, of: NameOf): string {
    return named(name, of, this.language, this.style);
  }
  /** A field of a type: those of vectors are the language's own. */
  fieldName(of: Type, name: string): string {
    return named(name, 'field', this.language, isVector(of) ? { ...this.style, naming: 'own' } : this.style);
  }
  type(type: Type): string {
    return this.language.type(type, this.style);
  }

  /** An expression, in brackets where what stands about it binds closer than `above`. */
  expr(of: Expr, above = 0, indent = ''): string {
    const { language: l, style } = this;
    const bracketed = (own: number, text: string) => (own < above ? `(${text})` : text);
    switch (of.kind) {
      case 'number':
        return l.number(of.text, style);
      case 'bool':
        return l.truth?.(of.value) ?? String(of.value);
      case 'name':
        return this.name(of.name, this.#consts.has(of.name) ? 'const' : 'value');
      case 'field':
        return l.field(this.expr(of.of, 8, indent), this.fieldName(of.of.type, of.name));
      case 'index':
        return l.index(this.expr(of.of, 8, indent), of.at, of.at.kind === 'number' ? of.at.text : this.expr(of.at));
      case 'unary': {
        if (of.op === '!') return bracketed(6, l.not(this.expr(of.of, 7, indent)));
        if (isVector(of.type) && !l.operators) return l.vectorCall!('neg', of.type, [this.expr(of.of, 0, indent)]);
        return bracketed(6, `-${this.expr(of.of, 7, indent)}`);
      }
      case 'binary': {
        const { op, left, right } = of;
        if (isVector(of.type) && !l.operators) return l.vectorCall!(op as '+', of.type, [this.expr(left, 0, indent), this.expr(right, 0, indent)]); // prettier-ignore
        const own = level[op];
        const text = op === '&&' ? l.and : op === '||' ? l.or : op;
        return bracketed(own, `${this.expr(left, own, indent)} ${text} ${this.expr(right, own + 1, indent)}`);
      }
      case 'call': {
        const own = this.#isOwn(of.fn);
        const args = of.args.map((one) => {
          const text = this.expr(one, 0, indent);
          return own && l.argument && one.kind !== 'name' ? l.argument(one.type, text) : text;
        });
        return own ? `${this.name(of.fn, 'fn')}(${args.join(', ')})` : l.builtin(of.fn, args, style);
      }
      case 'make':
        return this.#make(of, indent);
    }
  }
  readonly #own = new Set<string>();
  #isOwn(fn: string): boolean {
    return this.#own.has(fn);
  }
  /** Tells which functions are the program's own. */
  knows(items: readonly Item[]): this {
    for (const item of items) if (item.kind === 'fn') this.#own.add(item.name);
    for (const item of items) if (item.kind === 'const') this.#consts.add(item.name);
    return this;
  }

  #make(of: Extract<Expr, { kind: 'make' }>, indent: string): string {
    const { language: l, style } = this;
    const { type } = of;
    if (isVector(type)) return l.makeVector(type, of.args.map((one) => this.expr(one, 0, indent)), style); // prettier-ignore
    if (type === 'mat4') {
      const byColumns = l.listsColumns?.(style) ?? (l.ownMatrices || style.listing.columns);
      const at = byColumns ? (i: number) => 4 * (i % 4) + (i >> 2) : (i: number) => i;
      const order = Array.from({ length: 16 }, (_, i) => this.expr(of.args[at(i)]!, 0, indent));
      const rows = [0, 1, 2, 3].map((r) => order.slice(4 * r, 4 * r + 4).join(', '));
      return this.#laid(l.makeMatrix(rows, style), indent, true);
    }
    const deeper = indent + l.indent;
    const args = of.args.map((one) => this.expr(one, 0, deeper));
    if (typeof type === 'object' && 'of' in type) return this.#laid(l.makeList(type, args, style), indent);
    const names = (of.fields ?? []).map((one) => this.name(one, 'field'));
    return this.#laid(l.makeStruct((type as { struct: string }).struct, names, args), indent);
  }
  /** Between brackets on one line where there is room, else a line each. */
  #laid({ open, items, close, roomy, trailing }: Parts, indent: string, broken = false): string {
    const room = roomy ? ' ' : '';
    const line = `${open}${room}${items.join(', ')}${room}${close}`;
    if (!broken && line.length + indent.length < 92 && !line.includes('\n')) return line;
    const deeper = indent + this.language.indent;
    return `${open}\n${items.map((one) => deeper + one).join(',\n')}${trailing ? ',' : ''}\n${indent}${close}`;
  }

  statements(list: readonly Statement[], indent: string): string[] {
    const { language: l } = this;
    const deeper = indent + l.indent;
    return list.flatMap((one): string[] => {
      switch (one.kind) {
        case 'comment':
          return [`${indent}${l.comment} ${one.text}`];
        case 'let':
          return [`${indent}${l.let(this.name(one.name, 'value'), this.type(one.value.type), this.expr(one.value, 0, indent), one.mutable)}`]; // prettier-ignore
        case 'set':
          return [`${indent}${l.set(this.expr(one.to), this.expr(one.value, 0, indent))}`];
        case 'return':
          return [`${indent}${l.ret(this.expr(one.value, 0, indent))}`];
        case 'if':
          return [
            `${indent}${l.open.if(this.expr(one.test))}`,
            ...this.statements(one.then, deeper),
            ...(one.otherwise.length ? [`${indent}${l.open.otherwise}`, ...this.statements(one.otherwise, deeper)] : []), // prettier-ignore
            ...(l.close ? [`${indent}${l.close}`] : []),
          ];
        case 'for':
          return [
            `${indent}${l.open.for(this.name(one.name, 'value'), one.to.kind === 'number' ? one.to.text : this.expr(one.to))}`,
            ...this.statements(one.body, deeper),
            ...(l.close ? [`${indent}${l.close}`] : []),
          ];
      }
    });
  }

  fn(one: Fn, indent: string): string[] {
    const { language: l } = this;
    const params = one.params.map(({ name, type }) => ({ name: this.name(name, 'value'), type: this.type(type) }));
    return [
      ...one.comment.map((line) => `${indent}${l.comment} ${line}`),
      `${indent}${l.fnHead(this.name(one.name, 'fn'), params, this.type(one.result))}`,
      ...this.#tail(this.statements(one.body, indent + l.indent), indent + l.indent),
      ...(l.fnEnd ? [`${indent}${l.fnEnd}`] : []),
    ];
  }
  /** The lines of a function, its last value without a word where the language has it so. */
  #tail(lines: string[], indent: string): string[] {
    if (!this.language.tail) return lines;
    const at = lines.findLastIndex((line) => line.startsWith(`${indent}return `));
    return lines.map((line, i) => {
      const text = i === at ? this.language.tail!(line) : line;
      return i === lines.length - 1 ? text.replace(/;$/, '') : text;
    });
  }
  struct(one: Struct, indent: string): string[] {
    const fields = one.fields.map(({ name, type, comment }) => {
      const list = typeof type === 'object' && 'of' in type ? type : null;
      return { name: this.name(name, 'field'), type: this.type(list ? list.of : type), count: list?.count ?? null, comment }; // prettier-ignore
    });
    return [
      ...one.comment.map((line) => `${indent}${this.language.comment} ${line}`),
      ...this.language.struct({ name: one.name, fields }, this.style).map((line) => indent + line),
    ];
  }

  /** A program whole: what stands before, its items with a blank line between them, what stands behind. */
  program(items: readonly Item[], uses: ReadonlySet<string>): string {
    const { language: l, style } = this;
    this.knows(items);
    const indent = l.indent.repeat(l.depth);
    const blocks = items.map((item) => {
      if (item.kind === 'struct') return this.struct(item, indent);
      if (item.kind === 'fn') return this.fn(item, indent);
      return [
        ...item.comment.map((line) => `${indent}${l.comment} ${line}`),
        ...l.constant(this.name(item.name, 'const'), item.value.type, this.expr(item.value, 0, indent), style).map((line) => indent + line), // prettier-ignore
      ];
    });
    const names = items.flatMap((item) => (item.kind === 'fn' ? [this.name(item.name, 'fn')] : []));
    return [
      ...l.prelude(style, uses),
      ...blocks.flatMap((block) => [...Array<string>(l.gap ?? 1).fill(''), ...block]),
      ...l.closing(names, uses),
      '',
    ].join('\n'); // prettier-ignore
  }
}
