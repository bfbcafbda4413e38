import { kernelBytes } from './machine/module';
import type { PointKernel } from './points';
import type { SphereTree } from './sphereTree';
import { emptyTree, fanOut, runOver } from './tree';
import { triangleCentres, triangleTree, type firstTriangle, type TriangleTree } from './triangleTree';

/*
 * The kernels on the machine's own vector instructions. Every batch owns one memory, sized for it
 * once, and its arrays are views into it: write the input, run, read the output, nothing is copied.
 * Answers equal those of the plain forms in this folder to the last bit.
 */

/**
 * What the compiled module exports; arguments are places in its memory and numbers, as
 * `machine/kernels.as.ts` lists them.
 */
type Machine = Readonly<
  Record<
    'projectPoints' | 'classifySpheres' | 'halve' | 'gatherSpheres' | 'boundLevel' | 'firstTriangle',
    (...numbers: number[]) => number
  >
>;

let compiled: WebAssembly.Module | null = null;
function instantiate(memory: WebAssembly.Memory): Machine {
  // A few kilobytes: small enough for every browser to compile at once, on the main thread too.
  compiled ??= new WebAssembly.Module(Uint8Array.from(atob(kernelBytes), (c) => c.charCodeAt(0)));
  return new WebAssembly.Instance(compiled, { env: { memory } }).exports as unknown as Machine;
}

const page = 65536;

/**
 * Memory laid out for arrays of the given lengths, one after another on 64-byte borders, and the
 * machine that works in it.
 */
function layOut<Doubles extends string, Words extends string = never, Bytes extends string = never>(lengths: {
  readonly doubles: Readonly<Record<Doubles, number>>;
  readonly words?: Readonly<Record<Words, number>>;
  readonly bytes?: Readonly<Record<Bytes, number>>;
}) {
  let end = 64;
  const place = (bytes: number) => {
    const start = end;
    end += Math.ceil(bytes / 64) * 64;
    return start;
  };
  const plan = (of: Readonly<Record<string, number>> | undefined, size: number) =>
    Object.entries(of ?? {}).map(([name, length]) => [name, place(length * size), length] as const);
  const doubles = plan(lengths.doubles, 8);
  const words = plan(lengths.words, 4);
  const bytes = plan(lengths.bytes, 1);
  const memory = new WebAssembly.Memory({ initial: Math.ceil(end / page) });
  const { buffer } = memory;
  const views = Object.fromEntries([
    ...doubles.map(([name, at, length]) => [name, new Float64Array(buffer, at, length)]),
    ...words.map(([name, at, length]) => [name, new Uint32Array(buffer, at, length)]),
    ...bytes.map(([name, at, length]) => [name, new Uint8Array(buffer, at, length)]),
  ]) as Record<Doubles, Float64Array> & Record<Words, Uint32Array> & Record<Bytes, Uint8Array>;
  const at = Object.fromEntries([...doubles, ...words, ...bytes].map(([name, start]) => [name, start])) as Record<
    Doubles | Words | Bytes,
    number
  >;
  return { machine: instantiate(memory), views, at };
}

/** Points, and what `project` makes of them: arrays as `projectPoints` describes them. */
export interface PointBatch {
  readonly points: Float64Array;
  readonly screen: Float64Array;
  readonly outside: Uint8Array;
  /** All of them, or the first so many. */
  project(kernel: PointKernel, first?: number): void;
}

/** Room for `count` points in canonical world space, to be projected together again and again. */
export function pointBatch(count: number): PointBatch {
  // Two at a time: an odd last point has a neighbour that nobody sees.
  const even = count + (count & 1);
  const { machine, views, at } = layOut({
    doubles: { kernel: 24, points: even * 3, screen: even * 3 },
    bytes: { outside: even },
  });
  return {
    points: views.points.subarray(0, count * 3),
    screen: views.screen.subarray(0, count * 3),
    outside: views.outside.subarray(0, count),
    project: ({ numbers, perspective }, first = count) => {
      views.kernel.set(numbers);
      machine.projectPoints(at.kernel, perspective ? 1 : 0, at.points, Math.min(first, count), at.screen, at.outside);
    },
  };
}

/** Spheres, and what `classify` makes of them: arrays as `classifySpheres` describes them. */
export interface SphereBatch {
  readonly spheres: Float64Array;
  readonly verdicts: Uint8Array;
  /** All of them, or the first so many. */
  classify(planes: Float64Array, first?: number): void;
}

/**
 * Room for `count` spheres in canonical world space, to be classified together again and again, by
 * at most six planes.
 */
export function sphereBatch(count: number): SphereBatch {
  const even = count + (count & 1);
  const { machine, views, at } = layOut({
    doubles: { planes: 24, spheres: even * 4 },
    bytes: { verdicts: even },
  });
  return {
    spheres: views.spheres.subarray(0, count * 4),
    verdicts: views.verdicts.subarray(0, count),
    classify: (planes, first = count) => {
      views.planes.set(planes);
      machine.classifySpheres(at.planes, planes.length / 4, at.spheres, Math.min(first, count), at.verdicts);
    },
  };
}

/** What `treeOrder` gives, of x, y, z after one another. */
function machineOrder(centres: (into: Float64Array) => void, count: number): Uint32Array {
  const { machine, views, at } = layOut({ doubles: { centres: count * 3 }, words: { order: count } });
  centres(views.centres);
  for (let i = 0; i < count; i++) views.order[i] = i;
  machine.halve(at.centres, at.order, 0, count, runOver(count), fanOut);
  return views.order;
}

/**
 * A tree over spheres that move: write their new places to `moved` and `refit`; then ask `tree`
 * with `spheresInView`.
 */
export interface MovingSpheres {
  /** x, y, z, radius after one another, in the order in which they were given. */
  readonly moved: Float64Array;
  readonly tree: SphereTree;
  refit(): void;
}

/**
 * A tree over spheres given as x, y, z, radius after one another (canonical world space): what
 * `sphereTree` gives, refitted faster.
 */
export function movingSpheres(spheres: Float64Array): MovingSpheres {
  const order = machineOrder((into) => {
    for (let i = 0, j = 0; i < spheres.length; i += 4) {
      into[j++] = spheres[i]!;
      into[j++] = spheres[i + 1]!;
      into[j++] = spheres[i + 2]!;
    }
  }, spheres.length / 4);
  const empty = emptyTree(order);
  const { count, levels } = empty;
  const { machine, views, at } = layOut({
    doubles: { moved: count * 4, spheres: count * 4, bounds: empty.bounds.length },
    words: { order: count },
  });
  views.moved.set(spheres);
  views.order.set(empty.order);
  const node = (index: number) => at.bounds + index * 48;
  const refit = () => {
    machine.gatherSpheres(at.order, at.moved, at.spheres, at.bounds, count, fanOut);
    for (let level = 1; level + 1 < levels.length; level++) {
      const [below, start] = [levels[level - 1]!, levels[level]!];
      machine.boundLevel(node(below), start - below, node(start), fanOut);
    }
  };
  refit();
  return {
    moved: views.moved,
    tree: { count, levels, order: views.order, bounds: views.bounds, spheres: views.spheres },
    refit,
  };
}

/** The triangles of a mesh ready for rays: what `firstTriangle` asks, faster. */
export interface TriangleBatch {
  readonly tree: TriangleTree;
  first: RayQuery;
}
type RayQuery = Parameters<typeof firstTriangle> extends [unknown, ...infer Ray] ? (...ray: Ray) => boolean : never;

/** A mesh (x, y, z after one another; three indices to a triangle) to be asked for many rays. */
export function triangleBatch(positions: ArrayLike<number>, indices: ArrayLike<number>): TriangleBatch {
  const centres = triangleCentres(positions, indices);
  const plain = triangleTree(
    positions,
    indices,
    machineOrder((into) => into.set(centres), centres.length / 3),
  );
  const { machine, views, at } = layOut({
    doubles: { bounds: plain.bounds.length, corners: plain.corners.length, stack: 512, result: 1 },
    words: { order: plain.count, levels: plain.levels.length },
  });
  for (const name of ['bounds', 'corners', 'order', 'levels'] as const) views[name].set(plain[name]);
  const tree = { ...plain, bounds: views.bounds, corners: views.corners, order: views.order, levels: views.levels };
  const top = plain.levels.length - 1;
  return {
    tree,
    first: (ox, oy, oz, dx, dy, dz, from, to, facing, hit) => {
      hit.triangle = plain.count
        ? machine.firstTriangle(
            ...[at.bounds, at.levels, top, at.order, at.corners, plain.count, fanOut, at.stack],
            ...[ox, oy, oz, dx, dy, dz, from, to, facing, at.result],
          )
        : -1;
      hit.t = hit.triangle < 0 ? to : views.result[0]!;
      return hit.triangle >= 0;
    },
  };
}
