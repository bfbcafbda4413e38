import { largest } from '../core/quantities/numbers';
import type { QueryOf } from '../core/compute/operations';
import { mat4, transpose } from '../core/math/mat4';
import {
  linesOf,
  matrixRoles,
  printedByRows,
  printedDigits,
  readPasted,
  type MatrixRole,
  type PastedItem,
  type PastedReading,
  type PastedRole,
} from './pasted';
import type { Role2d } from './pasted2d';

/** What the user says of an item that was read: its role, or how a matrix was printed. */
export interface ReadingCorrection {
  /** Offset of the item in the text. */
  readonly from: number;
  readonly role: PastedRole | Role2d | null;
  /** Whether the numbers are listed the other way than the conventions have it. */
  readonly turned: boolean | null;
}

/** An item of a log, as it is used. */
export interface UsedItem {
  readonly item: PastedItem;
  readonly role: PastedRole;
  /** Whether a matrix's numbers are transposed before they are used. */
  readonly turned: boolean;
  readonly corrected: boolean;
  /** Why the item is left out; null where it is used. */
  readonly why: string | null;
  /** The line that it begins on, from 1. */
  readonly line: number;
}
type Given = QueryOf<'diagnose'>['given'];

/** A point of a log, with its name and its place in the text. */
export interface PlacedPoint {
  readonly point: ReturnType<typeof pointOf>;
  readonly name: string;
  readonly at: readonly [from: number, to: number];
}

/** The numbers of a log in the form of a diagnose query. */
export interface LogReading {
  readonly used: readonly UsedItem[];
  readonly left: PastedReading['left'];
  /** The points of `given`, in the same order. */
  readonly places: readonly PlacedPoint[];
  /** Null where there is nothing to diagnose. */
  readonly given: Given | null;
  /** Significant figures that can be trusted, by how the numbers were printed. */
  readonly digits: number;
  /** Matrices whose print does not tell rows from columns. */
  readonly listingUnknown: readonly MatrixRole[];
  /** The line, from 1, of the first bracket nested too deep to be read; null where there is none. */
  readonly tooDeepLine: number | null;
}

/** How a request lists matrices. */
export interface Listing {
  /** Whether a list is by the columns that the matrix has for column vectors. */
  readonly byColumns: boolean;
  readonly vectors: 'column' | 'row';
}

export const isMatrixRole = (role: PastedRole): role is MatrixRole => (matrixRoles as readonly string[]).includes(role);
/** Roles that an item of its kind and length can have. */
export function rolesFor({ kind, numbers }: PastedItem): readonly PastedRole[] {
  if (kind === 'matrix') return [...matrixRoles, 'unused'];
  if (kind === 'point') return ['point', 'unused'];
  if (numbers.length === 3) return ['world', 'screen', 'unused'];
  return numbers.length === 2 ? ['screen', 'unused'] : ['unused'];
}

/** Whether a matrix is printed by the rows that it has for column vectors, where the text or the numbers tell. */
function byRowsOf(item: PastedItem, vectors: Listing['vectors']): boolean | null {
  const told = printedByRows(item);
  if (told !== null || !item.order) return told;
  // Row-major storage of a matrix for row vectors lists the columns of its form for column vectors.
  return (item.order === 'rows') === (vectors === 'column');
}

const transposed = (list: readonly number[]): number[] => [...transpose(mat4(list))];

function pointOf(world: readonly number[], [x = 0, y = 0, depth]: readonly number[]) {
  return {
    world: [world[0]!, world[1]!, world[2]!] as [number, number, number],
    screen: [x, y] as [number, number],
    ...(depth !== undefined && { depth }),
  };
}

/**
 * Turns the items of a log into what a diagnose query takes. A matrix printed as a square, or with its order in words,
 * is taken the way that its numbers or the words tell; a square that does not tell, as the other squares are, or with
 * its listing unknown; a flat list as the request lists matrices.
 */
export function interpretItems(
  { items, left, tooDeepAt }: PastedReading,
  text: string,
  corrections: readonly ReadingCorrection[],
  { byColumns, vectors }: Listing,
): LogReading {
  const told = items.map((item) => byRowsOf(item, vectors));
  const neighbours = items.findIndex((item, i) => item.square && told[i] !== null);
  const taken = new Set<MatrixRole>();
  const unknown: MatrixRole[] = [];
  const lineAt = linesOf(text);
  const correctionByPlace = new Map(corrections.map((one) => [one.from, one]));
  const used = items.map((item, i): UsedItem => {
    const said = correctionByPlace.get(item.from);
    const role = rolesFor(item).find((one) => one === said?.role) ?? item.role;
    const rows = told[i] ?? (item.square && neighbours >= 0 ? told[neighbours]! : null);
    const turned = said?.turned ?? (rows !== null && rows === byColumns);
    const base = { item, role, turned, corrected: Boolean(said), line: lineAt(item.from) };
    if (role === 'unused') return { ...base, why: null };
    if (item.numbers.some((v) => !(Math.abs(v) <= largest)))
      return { ...base, why: 'holds a number that is none, or beyond 1e30' };
    if (isMatrixRole(role)) {
      if (taken.has(role)) return { ...base, why: 'another has this role' };
      taken.add(role);
      if (item.square && rows === null && (said?.turned ?? null) === null) unknown.push(role);
    }
    return { ...base, why: null };
  });
  const inUse = (role: PastedRole) => used.filter((one) => one.role === role && !one.why);
  const screens = inUse('screen');
  const places: PlacedPoint[] = [
    ...inUse('point').map(({ item }) => ({
      point: pointOf(item.numbers.slice(0, 3), item.numbers.slice(3)),
      name: item.label,
      at: [item.from, item.to] as const,
    })),
    ...inUse('world').flatMap(({ item }, i) => {
      const screen = screens[i]?.item;
      if (!screen) return [];
      return [{ point: pointOf(item.numbers, screen.numbers), name: item.label, at: [item.from, screen.to] as const }];
    }),
  ];
  const given: Given = {};
  for (const { item, role, turned, why } of used)
    if (isMatrixRole(role) && !why) given[role] = turned ? transposed(item.numbers) : [...item.numbers];
  if (places.length) given.points = places.map(({ point }) => point);
  // World points are typed by the user, to the last figure; their places on the screen are printed.
  const counts = used.filter(({ role, why }) => role !== 'unused' && role !== 'world' && !why);
  const digits = counts.reduce((least, { item }) => Math.min(least, printedDigits(item)), 6);
  return {
    used,
    left,
    places,
    given: Object.keys(given).length ? given : null,
    digits,
    listingUnknown: unknown,
    tooDeepLine: tooDeepAt === null ? null : lineAt(tooDeepAt),
  };
}

/** Reads a log for a request that lists matrices in some way. */
export const readLog = (text: string, listing: Listing): LogReading =>
  interpretItems(readPasted(text), text, [], listing);

/** The numbers with the matrices of unknown listing the other way. */
export const withOtherListing = (given: Given, unknown: readonly MatrixRole[]): Given => ({
  ...given,
  ...Object.fromEntries(unknown.flatMap((role) => (given[role] ? [[role, transposed(given[role])]] : []))),
});
