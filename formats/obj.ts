import earcut from 'earcut';
import type { Problem } from '../core/reasons';
import { mostTriangles, tooManyTriangles } from './size';

/**
 * An object (or, where there are none, a group) of an OBJ model: triangles over its own vertices,
 * in the file's own axes and units.
 */
export interface ObjPart {
  readonly name: string;
  /** x, y, z after one another. */
  readonly positions: number[];
  /**
   * Three to a triangle, counter-clockwise seen from the front in right-handed axes, as the file
   * has them.
   */
  readonly indices: number[];
}

export type ReadObj =
  | {
      readonly ok: true;
      readonly parts: readonly ObjPart[];
      /** What the file has besides, and was left: “normals”, “lines”. */
      readonly left: readonly string[];
    }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** The most corners of a face: to cut many takes long, and nothing draws such faces as one. */
const mostCorners = 10_000;
const mostProblems = 20;
/** Beyond this the core refuses numbers. */
const largest = 1e30;

/** Statements that say nothing of surfaces of triangles, by what is left out with them. */
const leftOut: ReadonlyMap<string, string | null> = new Map([
  ...Object.entries({
    ...{ vt: 'texture coordinates', vn: 'normals', l: 'lines', p: 'points', s: null, mg: null },
    ...{ mtllib: 'materials', usemtl: 'materials', maplib: 'materials', usemap: 'materials' },
  }),
  ...'vp cstype deg bmat step curv curv2 surf parm trim hole scrv sp end con'
    .split(' ')
    .map((word) => [word, 'free-form curves and surfaces'] as const),
  ...'lod bevel c_interp d_interp shadow_obj trace_obj ctech stech call csh'
    .split(' ')
    .map((word) => [word, null] as const),
]);

const numeral = /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?$/i;
const numberIn = (word: string): number | null => {
  const value = numeral.test(word) ? Number(word) : NaN;
  return Math.abs(value) <= largest ? value : null;
};

/**
 * The surfaces of an OBJ text: vertices (`v`), faces (`f`, polygons cut into triangles also where
 * they are not convex, indices from either end), parted by objects (`o`) or else by groups (`g`). A
 * line that cannot be read is a problem (path `line 3`), and nothing of the file is taken;
 * `onProgress` is told the share read, 0 to 1. The format is the one that is commonly written as
 * text; no parser was found that keeps doubles, tells objects apart and says which line is wrong.
 */
export function readObj(text: string, onProgress: (share: number) => void = () => undefined): ReadObj {
  const problems: Problem[] = [];
  const positions: number[] = [];
  const parts = new Map<string, Part>();
  const left = new Set<string>();
  let [object, group] = ['', ''];
  let hasObjects = false;
  let triangles = 0;

  let line = 0;
  const complain = (message: string) => {
    if (problems.length < mostProblems) problems.push({ path: `line ${line}`, message });
  };
  for (let at = 0; at < text.length && problems.length < mostProblems;) {
    if (line % 20_000 === 0) onProgress(at / text.length);
    let statement = '';
    // A backslash at its end goes on with the next line; in a comment it is a letter like any other.
    for (let more = true; more && at < text.length;) {
      const end = text.indexOf('\n', at);
      const piece = text.slice(at, end < 0 ? text.length : end).trimEnd();
      at = end < 0 ? text.length : end + 1;
      line++;
      more = piece.endsWith('\\') && !piece.includes('#');
      statement += more ? `${piece.slice(0, -1)} ` : piece;
    }
    const comment = statement.indexOf('#');
    const words = (comment < 0 ? statement : statement.slice(0, comment)).trim().split(/\s+/);
    const [word, ...rest] = words as [string, ...string[]];
    if (word === '') continue;
    if (word === 'v') {
      const p = rest.slice(0, 3).map(numberIn);
      const bad = p.indexOf(null);
      if (p.length < 3) complain(`A vertex has x, y and z, and this one has ${p.length} numbers. Give all three.`);
      else if (bad >= 0)
        complain(`${'xyz'[bad]} is “${rest[bad]!.slice(0, 40)}”, which is no number to work with. Mend it.`);
      positions.push(...(p.length < 3 || bad >= 0 ? [0, 0, 0] : (p as number[])));
    } else if (word === 'f') {
      const count = positions.length / 3;
      const corners = rest.map((one) => cornerIn(one, count));
      const bad = corners.findIndex((one) => typeof one === 'string');
      if (corners.length < 3) complain(`A face has three corners or more, and this one has ${corners.length}.`);
      else if (corners.length > mostCorners)
        complain(
          `A face has at most ${mostCorners.toLocaleString('en')} corners, and this one has ${corners.length.toLocaleString('en')}. Part it.`,
        );
      else if (bad >= 0) complain(corners[bad] as string);
      else if (triangles > mostTriangles) triangles += corners.length - 2;
      else {
        const name = hasObjects ? object : group;
        if (!parts.has(name)) parts.set(name, { name, triangles: [] });
        const cut = cutPolygon(corners as number[], positions);
        triangles += cut.length / 3;
        for (const corner of cut) parts.get(name)!.triangles.push(corner);
      }
    } else if (word === 'o') {
      hasObjects = true;
      object = rest.join(' ');
    } else if (word === 'g') group = rest.join(' ');
    else if (leftOut.has(word)) {
      const what = leftOut.get(word);
      if (what) left.add(what);
    } else complain(`“${word.slice(0, 40)}” is no statement of an OBJ file. Take the line out.`);
  }
  if (problems.length) return { ok: false, problems };
  const whole = (message: string): ReadObj => ({ ok: false, problems: [{ path: '', message }] });
  if (!triangles) return whole('There are no faces in it. Give at least one, or take its points as CSV.');
  if (triangles > mostTriangles) return whole(tooManyTriangles(triangles));
  return {
    ok: true,
    parts: [...parts.values()].map((part) => gathered(part, positions)),
    left: [...left].sort(),
  };
}

interface Part {
  readonly name: string;
  /** Indices into all vertices of the file. */
  readonly triangles: number[];
}

/**
 * The vertex that a face's corner refers to, from 0; or what is wrong with it. The references to
 * texture and normal behind it are left.
 */
function cornerIn(word: string, count: number): number | string {
  const found = /^([+-]?\d+)(\/[+-]?\d*){0,2}$/.exec(word);
  if (!found) return `“${word.slice(0, 40)}” is no corner of a face. Give the number of a vertex.`;
  const index = Number(found[1]);
  const vertex = index < 0 ? count + index : index - 1;
  return index !== 0 && vertex >= 0 && vertex < count
    ? vertex
    : `It refers to vertex ${index}, and there are ${count} by then. Vertices are counted from 1, or from −1 backward.`;
}

/** A polygon as triangles with its own winding: seen along its normal, cut by ears. */
function cutPolygon(corners: readonly number[], positions: readonly number[]): readonly number[] {
  if (corners.length === 3) return corners;
  const at = (corner: number, axis: number) => positions[3 * corner + axis]!;
  // Newell's normal: the areas that the polygon's shadows have on the three planes of the axes.
  const normal = [0, 0, 0];
  corners.forEach((a, i) => {
    const b = corners[(i + 1) % corners.length]!;
    for (const k of [0, 1, 2]) {
      const [m, n] = [(k + 1) % 3, (k + 2) % 3];
      normal[k]! += (at(a, m) - at(b, m)) * (at(a, n) + at(b, n));
    }
  });
  const main = [0, 1, 2].reduce((best, k) => (Math.abs(normal[k]!) > Math.abs(normal[best]!) ? k : best), 0);
  const fan = () => corners.slice(2).flatMap((_, i) => [corners[0]!, corners[i + 1]!, corners[i + 2]!]);
  if (!(Math.abs(normal[main]!) > 0)) return fan();
  const [m, n] = normal[main]! > 0 ? [(main + 1) % 3, (main + 2) % 3] : [(main + 2) % 3, (main + 1) % 3];
  const flat = corners.flatMap((corner) => [at(corner, m), at(corner, n)]);
  const cut = earcut(flat);
  // A polygon that crosses itself may leave nothing of itself.
  if (cut.length < 3) return fan();
  const turns = (a: number, b: number, c: number) =>
    (flat[2 * b]! - flat[2 * a]!) * (flat[2 * c + 1]! - flat[2 * a + 1]!) -
    (flat[2 * c]! - flat[2 * a]!) * (flat[2 * b + 1]! - flat[2 * a + 1]!);
  return Array.from({ length: cut.length / 3 }, (_, i) => cut.slice(3 * i, 3 * i + 3)).flatMap((triangle) => {
    const [a, b, c] = triangle as [number, number, number];
    // Seen along its normal the polygon runs counter-clockwise.
    return (turns(a, b, c) < 0 ? [a, c, b] : [a, b, c]).map((i) => corners[i]!);
  });
}

/** A part with the vertices that it uses, and no others. */
function gathered({ name, triangles }: Part, all: readonly number[]): ObjPart {
  const own = new Map<number, number>();
  const positions: number[] = [];
  const indices = triangles.map((vertex) => {
    let index = own.get(vertex);
    if (index === undefined) {
      own.set(vertex, (index = own.size));
      positions.push(all[3 * vertex]!, all[3 * vertex + 1]!, all[3 * vertex + 2]!);
    }
    return index;
  });
  return { name, positions, indices };
}
