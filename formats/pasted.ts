import {
  deepest,
  factorsOf,
  setAside,
  treeOf,
  type Factor,
  type Group,
  type Node,
  type PrintedNumber,
} from './pastedText';

/*
 * Matrices, vectors and points as they come out of logs, debuggers and source, told by their shape, by
 * what stands before them and by the numbers themselves. Nothing is claimed that the text does not
 * hold: what finds no role is left over, and every reading can be corrected.
 */

export const matrixRoles = ['view', 'cameraToWorld', 'projection', 'viewProjection'] as const;
export type MatrixRole = (typeof matrixRoles)[number];
export const pastedRoles = [...matrixRoles, 'world', 'screen', 'point', 'unused'] as const;
/** What something pasted was taken for; `point` is a world point and where it came to, in one row. */
export type PastedRole = (typeof pastedRoles)[number];

/** Something that was read, and where it stands in the text. */
export interface PastedItem {
  readonly kind: 'matrix' | 'vector' | 'point';
  readonly role: PastedRole;
  /** Why it has that role: by what stands before it, by its numbers, by what it stands beside, or not at all. */
  readonly by: 'label' | 'numbers' | 'place' | 'none';
  /** What stands before it, if anything does. */
  readonly label: string;
  /** In the order printed: sixteen of a matrix, two to four of a vector, five or six of a point. */
  readonly numbers: readonly number[];
  /** What one unit of the last printed figure is worth, a number each; 0 where all digits are there. */
  readonly steps: readonly number[];
  /** Of a matrix, whether it was printed as a square of rows, or as a flat list. */
  readonly square: boolean;
  /** Of a matrix, the order that the text says it is printed in. */
  readonly order: 'rows' | 'columns' | null;
  readonly from: number;
  readonly to: number;
}
export interface PastedReading {
  readonly items: readonly PastedItem[];
  /** Stretches of the text with numbers that nothing was made of. */
  readonly left: readonly { readonly from: number; readonly to: number }[];
  /** Offset of the first bracket nested deeper than brackets are read; null where there is none. */
  readonly tooDeepAt: number | null;
}

/** A reading of an empty text. */
export const emptyReading: PastedReading = { items: [], left: [], tooDeepAt: null };

/** Says which brackets were not read. */
export const tooDeepText = (line: number): string =>
  `Line ${line.toLocaleString('en')} nests brackets deeper than ${deepest}. The inner ones were not read as groups.`;

/** Names of types, and other words that say nothing of what a number is. */
const plain = /^(?:const(?:expr)?|let|var|val|static|public|private|final|readonly|float|double|f32|f64|float(?:32|64)(?:array|_t)?|(?:d|f|i|u)?mat(?:rix)?(?:[234](?:x[234])?)?[fd]?|(?:float|double|half)[234](?:x[234])?|[dfiu]?vec(?:tor)?[234]?[fd]?|np|numpy|tensor|array\w*|std|simd\w*|new|return|struct|type|tuple|list|data|values?|elements|elems|rows?|cols?|columns?|auto|m|e|_?m?_?[0-4]_?[0-4]|m\d{1,2}|[xyzwrgba]|[xyzw]_?axis|[cr]\d|at|is|=|device|cpu|named|the|of|as|a)$/i; // prettier-ignore
const isPlain = (text: string): boolean => text.split(/[.:-]+/).every((part) => !part || plain.test(part));

/** A run of numbers in a text. */
export interface Atom {
  readonly numbers: readonly PrintedNumber[];
  /** Numbers a row where brackets or lines part them evenly, else all of them. */
  readonly across: number;
  readonly from: number;
  readonly to: number;
  /** The words between the atom before and this one. */
  before: string;
  /** Whether only commas, brackets and line ends stand there. */
  close: boolean;
  readonly arrow: boolean;
  readonly line: number;
}

const isPure = (group: Group): boolean => group.children.every((node) => node.kind === 'group' ? isPure(node) : node.kind !== 'arrow' && (node.kind !== 'word' || isPlain(node.text))); // prettier-ignore
function collectNumbers(nodes: readonly Node[], numbers: PrintedNumber[]): PrintedNumber[] {
  for (const node of nodes) {
    if (node.kind === 'number') numbers.push(node);
    else if (node.kind === 'group') collectNumbers(node.children, numbers);
  }
  return numbers;
}
const numbersOf = (group: Group): PrintedNumber[] => collectNumbers(group.children, []);

/** Numbers a row of a group: of the groups in it, or of its lines, where all have as many. */
function acrossOf(group: Group, count: number): number {
  const groups = group.children.filter((node): node is Group => node.kind === 'group');
  // Brackets about brackets about rows: {m = {{…}, {…}}}.
  if (groups.length === 1 && numbersOf(groups[0]!).length === count) return acrossOf(groups[0]!, count);
  const even = (sizes: readonly number[]) => sizes.length > 1 && new Set(sizes).size === 1 && sizes[0]! * sizes.length === count; // prettier-ignore
  const sizes = groups.map((one) => numbersOf(one).length);
  if (even(sizes)) return sizes[0]!;
  const lines: number[] = [0];
  for (const node of group.children) {
    // Lines of a flat initialiser, rows of a matrix parted by semicolons.
    if (node.kind === 'line' || node.kind === 'end') lines.push(0);
    else if (node.kind === 'number') lines[lines.length - 1]!++;
  }
  const full = lines.filter(Boolean);
  return even(full) ? full[0]! : count;
}

/** Returns what tells the line of a place in a text, from 1. */
export function linesOf(text: string): (at: number) => number {
  const starts = [0];
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1);
  return (at) => {
    let [low, high] = [0, starts.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (starts[middle]! <= at) low = middle + 1;
      else high = middle;
    }
    return low;
  };
}

/** The runs of numbers of a text, each with the words before it. */
function atomsOf(text: string, tree: readonly Node[]): Atom[] {
  const atoms: Atom[] = [];
  let pending: PrintedNumber[] = [];
  let last = 0;
  let pointed = false;
  const lineAt = linesOf(text);
  const add = (numbers: readonly PrintedNumber[], across: number, from: number, to: number) => {
    const between = text.slice(last, from);
    const words = (between.match(/[A-Za-z_$][\w$.-]*/g) ?? []).filter((one) => !isPlain(one));
    atoms.push({ numbers, across, from, to, before: words.join(' ').replace(/\d+/g, '#'), close: !words.length && !/\n[^\S\n]*\n/.test(between), arrow: pointed, line: lineAt(from) }); // prettier-ignore
    last = to;
    pointed = false;
  };
  const flush = () => {
    // Bits of floats are numbers among themselves alone.
    const numbers = pending.some((one) => !one.bits) ? pending.filter((one) => !one.bits) : pending.length > 2 ? pending : []; // prettier-ignore
    pending = [];
    if (numbers.length) add(numbers, numbers.length, numbers[0]!.from, numbers.at(-1)!.to);
  };
  const walk = (nodes: readonly Node[]) => {
    for (const node of nodes) {
      if (node.kind === 'number') pending.push(node);
      else if (node.kind === 'group') {
        flush();
        const numbers = isPure(node) ? numbersOf(node) : [];
        if (numbers.length) {
          const across = acrossOf(node, numbers.length);
          const many =
            across > 1 &&
            across < 4 &&
            across < numbers.length &&
            ![9, 12, 16].includes(numbers.length) &&
            node.children.some(({ kind }) => kind === 'group');
          // A list of vectors is as many vectors.
          if (many)
            node.children.forEach((child) => child.kind === 'group' && add(numbersOf(child), across, child.from, child.to)); // prettier-ignore
          else add(numbers, across, node.from, node.to);
        } else walk(node.children);
        flush();
      } else if (node.kind === 'arrow') {
        flush();
        pointed = true;
      } else if (node.kind !== 'word' || !isPlain(node.text)) flush();
    }
    flush();
  };
  walk(tree);
  return atoms;
}

/** Returns the runs of numbers of a text, each with the words before it. */
export function readAtoms(text: string): {
  readonly bare: string;
  readonly atoms: readonly Atom[];
  readonly tooDeepAt: number | null;
} {
  const bare = setAside(text);
  const { nodes, tooDeepAt } = treeOf(bare);
  return { bare, atoms: atomsOf(bare, nodes), tooDeepAt };
}

/** Neighbouring runs that are one matrix: four rows of four, three of four, four of three, or one number a line. */
function mergedAtoms(atoms: readonly Atom[]): Atom[] {
  const merged: Atom[] = [];
  for (let i = 0; i < atoms.length;) {
    const first = atoms[i]!;
    const size = first.numbers.length;
    let count = 1;
    const alike = (k: number) => {
      const one = atoms[k];
      if (!one || one.numbers.length !== size || one.arrow) return false;
      if (one.close) return true;
      // Each line with the same words: "view row 0: …", "view row 1: …".
      const second = atoms[i + 1]!;
      return one.before === second.before && (first.before === one.before || first.before.endsWith(` ${one.before}`));
    };
    while (count < 16 && alike(i + count)) count++;
    const take = size === 4 && count >= 4 ? 4 : size === 8 && count >= 2 ? 2 : size === 4 && count === 3 ? 3 : size === 3 && count === 4 ? 4 : size === 2 && count >= 8 ? 8 : size === 1 && count >= 16 ? 16 : 1; // prettier-ignore
    const parts = atoms.slice(i, i + take);
    merged.push(
      take === 1
        ? first
        : {
            ...first,
            numbers: parts.flatMap(({ numbers }) => numbers),
            across: size === 4 || size === 3 ? size : 16,
            to: parts.at(-1)!.to,
          },
    );
    i += take;
  }
  return merged;
}

const labels: readonly (readonly [PastedRole, RegExp])[] = [
  ['unused', /inv(?:erse)?[ _.-]*(?:u_|m_)?(?:view[ _.-]*)?proj|proj(?:ection)?[ _.-]*inv|normal[ _.-]*mat|shadow|light[ _.-]*(?:view|proj)|previous|prev\b|screen[ _.-]*to[ _.-]*world|ndc[ _.-]*to|clip[ _.-]*to/],
  ['viewProjection', /view[ _.*×·-]*proj|\bp[ _]?v\b|\bv[ _]?p\b|\bmvp\b|\bpv\b|\bvp\b|proj(?:ection)?[ _.*×·-]*(?:x |times )?view|clip[ _.-]*from[ _.-]*world|world[ _.-]*to[ _.-]*clip|w2clip|camera[ _.-]*matrix[ _.-]*full|combined/],
  ['cameraToWorld', /inv(?:erse)?[ _.-]*(?:u_|m_)?view|view[ _.-]*inv|(?:camera|cam|view|eye)[ _.-]*to[ _.-]*world|world[ _.-]*from[ _.-]*(?:camera|cam|view|eye)|c2w|(?:camera|cam)[ _.-]*(?:transform|pose|world(?![ _.-]*(?:to|2)[ _.-])|node|local[ _.-]*to)|(?:transform|pose)[ _.-]*of[ _.-]*(?:the[ _.-]*)?cam/],
  ['projection', /proj|persp|clip[ _.-]*from[ _.-]*(?:view|camera|eye)|(?:view|camera|eye)[ _.-]*to[ _.-]*clip|ortho|\bp\b|lens[ _.-]*mat/],
  ['view', /view|world[ _.-]*to[ _.-]*(?:camera|cam|eye)|(?:camera|cam|eye)[ _.-]*from[ _.-]*world|w2c|look[ _.-]*at|\bv\b/],
]; // prettier-ignore
const vectorLabels: readonly (readonly [PastedRole, RegExp])[] = [
  ['screen', /screen|pixel|\bpx\b|window|viewport|\buv\b|raster|\bxy\b/],
  ['world', /world|\bpoint|\bpos(?:ition)?\b|\bp\b|vertex|object|\bfrom\b|marker|buoy|target/],
];
const notPoints = /eye|camera|\bcam\b|look|forward|\bup\b|right|direction|normal|\bsize\b|viewport|fov|near|far|aspect|extent|resolution|colou?r|light/; // prettier-ignore
/** Words as they are looked through: humps of names apart. */
export const splitWords = (text: string): string => text.replace(/([a-z\d])([A-Z])/g, '$1 $2').replace(/([A-Z])([A-Z][a-z])/g, '$1 $2').toLowerCase(); // prettier-ignore

/** The words nearest before a place, on its line and the last lines that say something. */
export function labelBefore(text: string, from: number, since: number): string {
  const lines = text.slice(Math.max(since, from - 400), from).split('\n');
  for (let i = lines.length - 1; i >= 0 && i >= lines.length - 6; i--) {
    const words = (lines[i]!.match(/[A-Za-z_$][\w$.]*/g) ?? []).filter((one) => !isPlain(one));
    if (words.length) return lines[i]!.replace(/[\s=:({[|<"'*/#,>)-]+$/, '').replace(/^[\s|>*/#,)}\]"';-]+/, '').slice(-60); // prettier-ignore
  }
  return '';
}

const isUnit = (v: readonly number[], loose: number): boolean => Math.abs(Math.hypot(...v) - 1) < loose;
/**
 * Whether sixteen numbers of a view projection are printed by rows, for column vectors: w of a perspective camera is
 * the distance ahead, whose three coefficients have length 1. Null where rows and columns both allow it, or neither.
 */
function viewProjectionByRows(m: readonly number[], loose: number): boolean | null {
  const lastRow = isUnit(m.slice(12, 15), loose);
  const lastColumn = isUnit([m[3]!, m[7]!, m[11]!], loose);
  return lastRow === lastColumn ? null : lastRow;
}

/** A matrix of column vectors by its rows, as far as its numbers tell what it is. */
function roleOfNumbers(m: readonly number[]): { role: MatrixRole; turned: boolean } | null {
  const size = Math.max(...m.map(Math.abs));
  if (!(size > 0) || !Number.isFinite(size)) return null;
  const at = (r: number, c: number, turned: boolean) => m[turned ? 4 * c + r : 4 * r + c]!;
  for (const turned of [false, true]) {
    const last = [0, 1, 2, 3].map((c) => at(3, c, turned));
    if (last.slice(0, 3).every((v) => Math.abs(v) < 1e-6) && Math.abs(last[3]! - 1) < 1e-6) {
      const rows = [0, 1, 2].map((r) => [0, 1, 2].map((c) => at(r, c, turned)));
      const square = rows.every((row) => Math.abs(Math.hypot(...row) - 1) < 0.02);
      return square ? { role: 'view', turned } : { role: 'projection', turned };
    }
    // w is plus or minus one coordinate.
    if (Math.abs(last[3]!) < 1e-6 && last.slice(0, 3).filter((v) => Math.abs(v) > 1e-6).length === 1 && last.some((v) => Math.abs(Math.abs(v) - 1) < 1e-3)) {
      const zeros = m.filter((v) => Math.abs(v) < 1e-9 * size).length;
      if (zeros >= 8) return { role: 'projection', turned };
    }
  } // prettier-ignore
  return { role: 'viewProjection', turned: false };
}

/** Sixteen numbers of a matrix that was printed with fewer: the row, or column, that always is 0, 0, 0, 1. */
function completed(numbers: readonly PrintedNumber[], across: number): PrintedNumber[] {
  const [zero, one] = [0, 1].map((v) => ({ kind: 'number' as const, value: v, step: 0, from: 0, to: 0 }));
  if (numbers.length === 16) return [...numbers];
  if (across === 3) return [0, 1, 2, 3].flatMap((r) => [...numbers.slice(3 * r, 3 * r + 3), r === 3 ? one! : zero!]);
  return [...numbers, zero!, zero!, zero!, one!];
}

/** The order that words on the lines of a matrix, or above it, say. */
function orderSaid(text: string, { from, to }: Atom, since: number): PastedItem['order'] {
  const before = text
    .slice(Math.max(since, from - 200), from)
    .split('\n')
    .slice(-3)
    .join('\n');
  const behind = text.slice(to, to + 60).split('\n')[0]!;
  const said = /\b(row|col(?:umn)?)s?[ _-]*(?:major|order|wise)\b/i.exec(`${before} ${behind}`);
  return said ? (said[1]!.toLowerCase() === 'row' ? 'rows' : 'columns') : null;
}

function itemOf(text: string, atom: Atom, since: number): PastedItem | null {
  const { numbers: printed, across, from, to } = atom;
  const n = printed.length;
  const label = labelBefore(text, from, since);
  const said = splitWords(label);
  if (n === 16 || (n === 12 && (across === 4 || across === 3))) {
    const full = completed(printed, across);
    const numbers = full.map((one) => one.value);
    const named = labels.find(([, pattern]) => pattern.test(said));
    const own = named ? null : roleOfNumbers(numbers);
    // “camera” by itself is the camera’s transform, unless its numbers are none.
    const camera = !named && /cam(?:era)?\b/.test(said) && own?.role === 'view';
    // Sixteen integers without a name are no view projection.
    const isNone = own?.role === 'viewProjection' && numbers.every(Number.isInteger);
    const role = named?.[0] ?? (camera ? 'cameraToWorld' : isNone ? 'unused' : (own?.role ?? 'unused'));
    return { kind: 'matrix', role, by: named || camera ? 'label' : own ? 'numbers' : 'none', label, numbers, steps: full.map((one) => one.step), square: across === 4 || across === 3, order: orderSaid(text, atom, since), from, to }; // prettier-ignore
  }
  if (n < 2 || n > 6) return null;
  const values = { label, numbers: printed.map((one) => one.value), steps: printed.map((one) => one.step), square: false, order: null, from, to }; // prettier-ignore
  // Places of pixels have decimals; five integers in a row are anything.
  if (n > 4) {
    const isPoint = values.numbers.some((v) => !Number.isInteger(v)) || vectorLabels.some(([, pattern]) => pattern.test(said)); // prettier-ignore
    return { kind: 'point', role: isPoint ? 'point' : 'unused', by: isPoint ? 'numbers' : 'none', ...values };
  }
  const role = notPoints.test(said) ? undefined : vectorLabels.find(([, pattern]) => pattern.test(said))?.[0];
  return { kind: 'vector', role: role ?? 'unused', by: role ? 'label' : 'none', ...values };
}

/** Vectors side by side that are a world point and where it came to. */
function paired(items: readonly PastedItem[], atoms: readonly Atom[]): PastedItem[] {
  const out = [...items];
  const atomByPlace = new Map(atoms.map((atom) => [atom.from, atom]));
  for (let i = 0; i + 1 < out.length; i++) {
    const [a, b] = [out[i]!, out[i + 1]!];
    if (a.kind !== 'vector' || b.kind !== 'vector' || a.numbers.length !== 3 || b.numbers.length > 3) continue;
    const joined = atomByPlace.get(b.from);
    const beside = joined && (joined.arrow || (b.role === 'screen' && a.role !== 'screen') || (a.role === 'world' && joined.close)); // prettier-ignore
    const line = atomByPlace.get(a.from)?.line === joined?.line;
    if (!beside || (!line && !(a.role === 'world' && b.role === 'screen'))) continue;
    if (a.role !== 'world') out[i] = { ...a, role: 'world', by: 'place' };
    if (b.role !== 'screen') out[i + 1] = { ...b, role: 'screen', by: 'place' };
    i++;
  }
  return out;
}

/** The atoms with the first after each factor multiplied by it. */
function scaledAtoms(atoms: readonly Atom[], factors: readonly Factor[]): readonly Atom[] {
  const scaled = [...atoms];
  for (const { value, to } of factors) {
    const i = scaled.findIndex(({ from }) => from >= to);
    const atom = scaled[i];
    if (!atom) continue;
    const numbers = atom.numbers.map((one) => ({ ...one, value: one.value * value, step: one.step * Math.abs(value) }));
    scaled[i] = { ...atom, numbers };
  }
  return scaled;
}

/** Texts up to this length are read within a frame or two; longer ones belong into a worker. */
export const quickText = 20_000;

/**
 * Returns whether a text is worth reading as numbers of an engine. A short text is read; a longer one has to have
 * twelve numbers with decimals within 1,200 characters.
 */
export function holdsMatrix(text: string): boolean {
  if (text.length <= quickText) {
    const numbers = text.match(/\d+/g)?.length ?? 0;
    return numbers > 8 && readPasted(text).items.some(({ kind }) => kind === 'matrix');
  }
  const places = Array.from(text.matchAll(/\d[.,]\d/g), ({ index }) => index);
  return places.some((at, i) => i > 10 && at - places[i - 11]! < 1200);
}

/**
 * Reads what was pasted: matrices and points with their roles, and what is left over. Any text may
 * come in; one without numbers reads as nothing.
 */
export function readPasted(text: string): PastedReading {
  const { bare, atoms: runs, tooDeepAt } = readAtoms(text);
  const atoms = scaledAtoms(mergedAtoms(runs), factorsOf(text));
  let since = 0;
  const made = atoms.map((atom) => {
    const item = itemOf(bare, atom, since);
    // Vectors of one list go by the words before the first.
    if (atom.numbers.length > 4 || !atom.close) since = atom.to;
    return item;
  });
  const items = paired(made.filter((one): one is PastedItem => one !== null), atoms); // prettier-ignore
  // A whole number by itself is part of a name, or a count.
  const isName = ({ numbers }: Atom) =>
    numbers.length === 1 && Number.isInteger(numbers[0]!.value) && numbers[0]!.step === 0;
  const left = atoms.filter((one, i) => !made[i] && !isName(one)).map(({ from, to }) => ({ from, to }));
  return { items, left, tooDeepAt };
}

/**
 * Whether a matrix is printed by the rows that it has for column vectors: by the place of its 0, 0, 0, 1 or of its w.
 *
 * @returns null where its numbers do not tell, and for a flat list
 */
export function printedByRows({ numbers, square, role, steps }: PastedItem): boolean | null {
  if (!square) return null;
  const own = roleOfNumbers(numbers);
  if (own && own.role !== 'viewProjection') return !own.turned;
  if (role !== 'viewProjection' && !own) return null;
  return viewProjectionByRows(numbers, 1e-4 + 2 * Math.max(...steps));
}

/**
 * How many digits of a matrix can be trusted, as it was printed: the most for which rounding at the
 * last printed figure stays within what a number is held to (`docs/compute.md`, "Diagnosing").
 */
export function printedDigits({ kind, numbers, steps }: PastedItem): number {
  const sizes = numbers.map((v, i) => {
    if (kind !== 'matrix') return Math.abs(v);
    const largest = (at: (k: number) => number) => Math.max(...[0, 1, 2, 3].map((k) => Math.abs(numbers[at(k)]!)));
    return Math.min(largest((k) => 4 * (i >> 2) + k), largest((k) => 4 * k + (i % 4))); // prettier-ignore
  });
  // Where all have as many decimals they were cut there; otherwise a whole number is one to the last.
  const even = steps.every((step) => step === steps[0]);
  const whole = (i: number) => !even && Number.isInteger(numbers[i]);
  // Of a world point with its place on the screen the place alone was rounded.
  for (let digits = 6; digits > 2; digits--)
    if (numbers.every((v, i) => (kind === 'point' && i < 3) || whole(i) || steps[i]! / 2 <= 10 ** (1 - digits) * Math.abs(v) + 10 ** -digits * sizes[i]!)) return digits; // prettier-ignore
  return 2;
}
