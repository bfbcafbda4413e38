import { randomFrom } from '../core/math/random';
import { frameOf, type CameraFrame } from '../core/camera/frame';
import { movingSpheres, pointBatch, sphereBatch, triangleBatch } from '../core/kernels/batch';
import { pointKernel, projectPoints } from '../core/kernels/points';
import { classifySpheres, planeKernel } from '../core/kernels/spheres';
import { refitSpheres, spheresInView, sphereTree } from '../core/kernels/sphereTree';
import { fieldCentres, fieldInView, fieldTree, type Field } from '../core/visibility/field';
import { firstTriangle } from '../core/kernels/triangleTree';

/* What `scripts/bench.mjs` measures of core/kernels, on invented data of fixed seeds. */

const frame = (far: number, verticalFov: number): CameraFrame => {
  const made = frameOf(
    {
      position: [0, 0, 0],
      orientation: { kind: 'angles', yaw: 0.4, pitch: 0.1, roll: 0 },
      projection: { kind: 'perspective', near: 0.1, far, lens: { verticalFov } },
    },
    { x: 0, y: 0, width: 1280, height: 720 },
  );
  if (!made.ok) throw new Error(made.problems[0]!.message);
  return made.value;
};

/** Points in a cube about the eye; half of them lie behind it. */
export function points(count: number): Float64Array {
  const random = randomFrom(1);
  return Float64Array.from({ length: count * 3 }, () => (random() - 0.5) * 2000);
}

/** Spheres of radius 0.2 to 1 in a cube about the eye. */
export function spheres(count: number): Float64Array {
  const random = randomFrom(2);
  return Float64Array.from({ length: count * 4 }, (_, i) =>
    i % 4 === 3 ? 0.2 + 0.8 * random() : (random() - 0.5) * 2000,
  );
}

/** A rolling surface of `count` triangles, 1000 × 1000 units. */
export function mesh(count: number): { positions: Float64Array; indices: Uint32Array } {
  const side = Math.round(Math.sqrt(count / 2));
  const positions = new Float64Array((side + 1) ** 2 * 3);
  for (let z = 0, at = 0; z <= side; z++)
    for (let x = 0; x <= side; x++, at += 3) {
      const [u, v] = [(x / side) * 1000 - 500, (z / side) * 1000 - 500];
      positions[at] = u;
      positions[at + 1] = 20 * Math.sin(u / 23) * Math.cos(v / 31) + 3 * Math.sin(u / 3.1) + 2 * Math.cos(v / 2.3);
      positions[at + 2] = v;
    }
  const indices = new Uint32Array(side * side * 6);
  for (let z = 0, at = 0; z < side; z++)
    for (let x = 0; x < side; x++, at += 6) {
      const a = z * (side + 1) + x;
      indices.set([a, a + side + 1, a + 1, a + 1, a + side + 1, a + side + 2], at);
    }
  return { positions, indices };
}

/** Rays from above the surface towards places on it: origin and direction after one another. */
export function rays(count: number): Float64Array {
  const random = randomFrom(3);
  const out = new Float64Array(count * 6);
  for (let i = 0; i < out.length; i += 6) {
    const from = [(random() - 0.5) * 900, 40 + 60 * random(), (random() - 0.5) * 900] as const;
    const to = [(random() - 0.5) * 900, 0, (random() - 0.5) * 900] as const;
    out.set([...from, to[0] - from[0], to[1] - from[1], to[2] - from[2]], i);
  }
  return out;
}

export const projectFrame = frame(1500, 1);
/** Sees about a tenth of the cube. */
export const tenthFrame = frame(1000, 1.2);

/** Median milliseconds of `rounds` runs. */
export function median(rounds: number, run: () => void): number {
  const times = Array.from({ length: rounds }, () => {
    const start = performance.now();
    run();
    return performance.now() - start;
  }).sort((a, b) => a - b);
  return times[times.length >> 1]!;
}

/**
 * Everything that is measured, in milliseconds (per ray in microseconds): the machine's form, and
 * the plain one as `plain…`.
 */
export function measureKernels(rounds: number) {
  const million = 1_000_000;
  const p = pointBatch(million);
  p.points.set(points(million));
  const kernel = pointKernel(projectFrame);
  const project = median(rounds, () => p.project(kernel));
  const plainProject = median(rounds, () => projectPoints(kernel, p.points, p.screen, p.outside));

  const s = sphereBatch(million);
  s.spheres.set(spheres(million));
  const planes = planeKernel(tenthFrame);
  const classify = median(rounds, () => s.classify(planes));
  const plainClassify = median(rounds, () => classifySpheres(planes, s.spheres, s.verdicts));

  const build = median(5, () => movingSpheres(s.spheres));
  const plainBuild = median(5, () => sphereTree(s.spheres));
  const moving = movingSpheres(s.spheres);
  moving.moved.forEach((v, i) => i % 4 < 3 && (moving.moved[i] = v + Math.sin(i)));
  const refit = median(rounds, moving.refit);
  const plainRefit = median(rounds, () => refitSpheres(moving.tree, moving.moved));
  const [inside, crosses] = [new Uint32Array(million), new Uint32Array(million)];
  const cull = median(rounds * 3, () => spheresInView(moving.tree, planes, inside, crosses));
  const seen = spheresInView(moving.tree, planes, inside, crosses);

  // As many test bodies of one size, verdicts exact: in the cube that the spheres lie in.
  const field: Field = { ...{ arrangement: 'scatter', shape: 'box', count: million, size: 1.2, seed: 2 }, ...{ min: [-1000, -1000, -1000], max: [1000, 1000, 1000] } }; // prettier-ignore
  const bodies = fieldTree(fieldCentres(field));
  const bytes = { outside: 0, crosses: 1, inside: 2, falseAlarm: 3 };
  const test = median(rounds * 3, () => fieldInView(tenthFrame, field, bodies, s.verdicts, { bytes }));

  const random = randomFrom(4);
  const numbers = Float64Array.from({ length: million }, random);
  const sort = median(5, () => numbers.slice().sort());

  const { positions, indices } = mesh(million);
  const triangles = triangleBatch(positions, indices);
  const r = rays(2000);
  const hit = { triangle: -1, t: 0 };
  const rayTime = (first: (typeof triangles)['first']) =>
    (median(rounds, () => {
      for (let i = 0; i < r.length; i += 6)
        first(r[i]!, r[i + 1]!, r[i + 2]!, r[i + 3]!, r[i + 4]!, r[i + 5]!, 0, 1e300, 0, hit);
    }) *
      1000) /
    2000;
  const ray = rayTime(triangles.first);
  const plainRay = rayTime((...args) => firstTriangle(triangles.tree, ...args));
  return {
    ...{
      project,
      plainProject,
      classify,
      plainClassify,
      build,
      plainBuild,
      refit,
      plainRefit,
      cull,
      field: test,
      sort,
      ray,
      plainRay,
    },
    seen: (seen.inside + seen.crosses) / million,
  };
}

/**
 * How the cost of queries grows with the number of items: microseconds a view query of about one
 * answer, and a ray.
 */
export function growth() {
  return [10_000, 100_000, 1_000_000].map((count) => {
    const { tree } = movingSpheres(spheres(count));
    // The view shrinks as the items grow denser, so that the answer stays about as large.
    const planes = planeKernel(frame(1000 * Math.cbrt(2_500 / count), 1));
    const [inside, crosses] = [new Uint32Array(count), new Uint32Array(count)];
    const times = 300;
    const many = () => {
      for (let i = 0; i < times; i++) spheresInView(tree, planes, inside, crosses);
    };
    many();
    const view = (median(9, many) * 1000) / times;
    const found = spheresInView(tree, planes, inside, crosses);
    const { positions, indices } = mesh(count);
    const triangles = triangleBatch(positions, indices);
    const r = rays(500);
    const hit = { triangle: -1, t: 0 };
    const trace = () => {
      for (let i = 0; i < r.length; i += 6)
        triangles.first(r[i]!, r[i + 1]!, r[i + 2]!, r[i + 3]!, r[i + 4]!, r[i + 5]!, 0, 1e300, 0, hit);
    };
    return { count, view, answer: found.inside + found.crosses, ray: (median(9, trace) * 1000) / 500 };
  });
}

/** The arrays that the C++ loops read: the same data and the same tree. */
export function benchArrays(): Record<string, ArrayBufferView> {
  const { positions, indices } = mesh(1_000_000);
  const { bounds, corners, order, levels } = triangleBatch(positions, indices).tree;
  return {
    ...{ kernel: pointKernel(projectFrame).numbers, points: points(1_000_000) },
    ...{ planes: planeKernel(tenthFrame), spheres: spheres(1_000_000) },
    ...{ bounds, corners, order, levels, rays: rays(2000) },
  };
}
