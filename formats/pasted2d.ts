import { affineList, readAffine, type Affine2d } from '../core/request/affine2d';
import { entrySizes } from '../core/request/affineMatrices';
import { largest } from '../core/quantities/numbers';
import { labelBefore, linesOf, readAtoms, splitWords, type Atom } from './pasted';
import type { PrintedNumber } from './pastedText';

/*
 * Matrices and points of 2D cameras as they come out of logs, debuggers and source: 2×3, 3×2, 3×3 and 4×4 matrices, and
 * a world point with its pixel, by shape and by the words before it.
 */

export const roles2d = ['worldToPixel', 'pixelToWorld', 'point', 'unused'] as const;
export type Role2d = (typeof roles2d)[number];

/** Something that was read. */
export interface Item2d {
  readonly kind: 'matrix' | 'point';
  readonly role: Role2d;
  readonly label: string;
  /** Of a matrix as a request lists it; of a point world x, y and pixel x, y. */
  readonly numbers: readonly number[];
  /** Why it is left out; null where it is used. */
  readonly why: string | null;
  readonly from: number;
  readonly to: number;
  /** The line that it begins on, from 1. */
  readonly line: number;
}

export interface Given2dNumbers {
  worldToPixel?: number[];
  pixelToWorld?: number[];
  points?: { world: [number, number]; screen: [number, number] }[];
}

export interface Reading2d {
  readonly items: readonly Item2d[];
  /** The numbers in the form of a diagnose query; null where there is nothing to diagnose. */
  readonly given: Given2dNumbers | null;
  /** Significant figures that can be trusted, by how the numbers were printed. */
  readonly digits: number;
}

/** How a request lists matrices. */
export interface Listing2d {
  /** Whether a list is by the columns that the matrix has for column vectors. */
  readonly byColumns: boolean;
}

const inverseLabel =
  /(?:screen|pixel|window|device|view)[ _.-]*(?:to|2)[ _.-]*world|world[ _.-]*from|inv(?:erse)?|unproject/;
const matrixLabel = /mat|transform|affine|camera|view|world|screen|pixel|inv/;

interface Shaped {
  readonly kind: 'matrix' | 'point';
  readonly printed: readonly PrintedNumber[];
  /** Numbers a row of a matrix that is printed as rows; null for a flat list. */
  readonly across: number | null;
  readonly from: number;
  readonly to: number;
  readonly count: number;
}

const join = (atoms: readonly Atom[], kind: Shaped['kind'], across: number | null): Shaped => ({
  ...{ kind, across, count: atoms.length, from: atoms[0]!.from, to: atoms.at(-1)!.to },
  printed: atoms.flatMap(({ numbers }) => numbers),
});

const isBottom = (numbers: readonly PrintedNumber[], count: number): boolean =>
  numbers.every(({ value }, i) => value === (i === count - 1 ? 1 : 0));

/** What begins at a run of numbers: a matrix of several rows, one list, or a point; null for neither. */
function shapeAt(bare: string, atoms: readonly Atom[], at: number): Shaped | null {
  const first = atoms[at]!;
  const size = first.numbers.length;
  const follow = (count: number, of: number) => {
    const rows = atoms.slice(at, at + count);
    const isRun = rows.length === count && rows.every(({ numbers, close, arrow }, i) => numbers.length === of && !arrow && (i === 0 || close)); // prettier-ignore
    return isRun ? rows : null;
  };
  const square = (rows: readonly Atom[] | null): boolean => {
    if (!rows) return false;
    const n = rows.length;
    const column = rows.map(({ numbers }) => numbers[n - 1]!);
    return isBottom(rows[n - 1]!.numbers, n) || isBottom(column, n);
  };
  if (size === 4) {
    const rows = follow(4, 4);
    if (rows && square(rows)) return join(rows, 'matrix', 4);
    return join([first], 'point', null);
  }
  if (size === 3) {
    const rows = follow(3, 3);
    if (rows && square(rows)) return join(rows, 'matrix', 3);
    const two = follow(2, 3);
    return two && join(two, 'matrix', 3);
  }
  if (size === 2) {
    const next = atoms[at + 1];
    if (next?.numbers.length === 2 && (next.arrow || next.line === first.line))
      return join([first, next], 'point', null);
    const three = follow(3, 2);
    const isNamed = matrixLabel.test(splitWords(labelBefore(bare, first.from, 0)));
    return three && isNamed ? join(three, 'matrix', 2) : null;
  }
  if (size === 6 || size === 9 || size === 16) {
    const isSquare = first.across > 1 && first.across < size;
    return join([first], 'matrix', isSquare ? first.across : null);
  }
  return null;
}

/** A matrix as a request lists it: a printed one by its shape, a flat list as it stands. */
function listedMatrix({ printed, across }: Shaped, byColumns: boolean): readonly number[] {
  const values = printed.map(({ value }) => value);
  if (across === null) return values;
  // Three rows of two are the matrix of row vectors; of a square the place of its 0 0 1 tells.
  const mapping: Affine2d | null = across === 2 ? readAffine(values, true) : (readAffine(values, false) ?? (values.length > 6 ? readAffine(values, true) : null)); // prettier-ignore
  return mapping ? affineList(mapping, byColumns) : values;
}

/** How many digits of printed numbers of some sizes can be trusted: as many as rounding at the last figure leaves right. */
function digitsOf(printed: readonly PrintedNumber[], sizes: readonly number[]): number {
  for (let digits = 6; digits > 2; digits--)
    if (printed.every(({ value, step }, i) => step / 2 <= 10 ** (1 - digits) * Math.abs(value) + 10 ** -digits * sizes[i]!)) return digits; // prettier-ignore
  return 2;
}

/**
 * Reads matrices and points of a 2D camera.
 *
 * @param corrections - roles that the user gave, by the offset of the item
 */
export function readPasted2d(
  text: string,
  corrections: readonly { readonly from: number; readonly role: string | null }[],
  { byColumns }: Listing2d,
): Reading2d {
  const { bare, atoms } = readAtoms(text);
  const lineAt = linesOf(text);
  const roleByPlace = new Map(corrections.map(({ from, role }) => [from, role]));
  const items: Item2d[] = [];
  const given: Given2dNumbers = {};
  let digits = 6;
  let since = 0;
  for (let at = 0; at < atoms.length;) {
    const shape = shapeAt(bare, atoms, at);
    at += shape?.count ?? 1;
    if (!shape) continue;
    const { kind, printed, from, to } = shape;
    const label = labelBefore(bare, from, since);
    since = to;
    const isInverse = inverseLabel.test(splitWords(label));
    const guess: Role2d = kind === 'point' ? 'point' : isInverse || (given.worldToPixel && !given.pixelToWorld) ? 'pixelToWorld' : 'worldToPixel'; // prettier-ignore
    const said = roleByPlace.get(from) as Role2d | null | undefined;
    const role = said && roles2d.includes(said) && (said === 'point') === (kind === 'point' && said !== 'unused') ? said : said === 'unused' ? said : guess; // prettier-ignore
    const numbers = kind === 'point' ? printed.map(({ value }) => value) : listedMatrix(shape, byColumns);
    // Sixteen numbers that are no affine mapping are of a 3D camera.
    if (numbers.length === 16 && !readAffine(numbers, false) && !readAffine(numbers, true)) continue;
    const isTaken = (role === 'worldToPixel' || role === 'pixelToWorld') && given[role] !== undefined;
    const why = numbers.some((v) => !(Math.abs(v) <= largest)) ? 'holds a number that is none, or beyond 1e30' : isTaken ? 'another has this role' : null; // prettier-ignore
    items.push({ ...{ kind, role, label, numbers, why, from, to }, line: lineAt(from) });
    if (why || role === 'unused') continue;
    const [p, q, r, s] = numbers as [number, number, number, number];
    if (role === 'point') (given.points ??= []).push({ world: [p, q], screen: [r, s] });
    else given[role] = [...numbers];
    // World points are typed by the user, to the last figure.
    const counted = kind === 'point' ? printed.slice(2) : printed;
    const values = counted.map(({ value }) => value);
    const isBy = shape.across === null ? byColumns : shape.across === 2;
    digits = Math.min(digits, digitsOf(counted, kind === 'point' ? values.map(Math.abs) : entrySizes(values, isBy)));
  }
  return { items, given: Object.keys(given).length ? given : null, digits };
}
