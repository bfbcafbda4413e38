import { compute } from '../compute/compute';

/*
 * A camera's numbers worked out by hand, independent of the code that explains them: it looks from `eye` at `target`,
 * −z ahead, y up, depth −1 to 1, listed column by column.
 */

export type V = readonly [number, number, number];
export const dot = (a: V, b: V) => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: V, b: V): V => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const unit = (a: V): V => a.map((v) => v / Math.hypot(...a)) as unknown as V;

export const eye: V = [4, 3.5, 9];
export const target: V = [-1, 1, -2];
export const forward = unit(target.map((v, i) => v - eye[i]!) as unknown as V);
export const right = unit(cross(forward, [0, 1, 0]));
export const up = cross(right, forward);
export const back = forward.map((v) => -v) as unknown as V;

/** Rows of a matrix, listed column by column as a float prints them. */
export const list = (rows: readonly (readonly number[])[]): number[] =>
  [0, 1, 2, 3].flatMap((c) => [0, 1, 2, 3].map((r) => Number(Math.fround(rows[r]![c]!).toPrecision(7))));
export const rowsOfView = (r: V, u: V, b: V, t: V = [-dot(r, eye), -dot(u, eye), -dot(b, eye)]) => [[...r, t[0]], [...u, t[1]], [...b, t[2]], [0, 0, 0, 1]]; // prettier-ignore
export const view = rowsOfView(right, up, back);
export const lens = (fov: number, aspect: number, near = 0.5, far = 80) => {
  const f = 1 / Math.tan(fov / 2);
  return [[f / aspect, 0, 0, 0], [0, f, 0, 0], [0, 0, (far + near) / (near - far), (2 * far * near) / (near - far)], [0, 0, -1, 0]]; // prettier-ignore
};
export const fov = (50 * Math.PI) / 180;
export const projection = lens(fov, 16 / 9);
export const times = (a: readonly (readonly number[])[], b: readonly (readonly number[])[]) =>
  a.map((row) => [0, 1, 2, 3].map((c) => row.reduce((sum, v, k) => sum + v * b[k]![c]!, 0)));
export const turnedOver = (m: readonly (readonly number[])[]) =>
  [0, 1, 2, 3].map((r) => [0, 1, 2, 3].map((c) => m[c]![r]!));
export const negated = (m: readonly (readonly number[])[], row: number) => m.map((one, r) => (r === row ? one.map((v) => -v) : one)); // prettier-ignore

export interface Answer {
  verdict: string;
  residual: number | null;
  depthResidual: number | null;
  explanations: { faults: { where: string; fault: string; which?: string; what?: { name: string }[] }[]; equivalent: { where: string; fault: string }[][]; likelihood: number; mend: string; residual: number }[]; // prettier-ignore
  decomposed: { pose: { position: number[]; mirrored: boolean } | null; lens: { verticalFov: number; near: number; far: number } | null; reason?: string }; // prettier-ignore
}
export const camera = {
  position: eye,
  orientation: { lookAt: target },
  projection: { kind: 'perspective', near: 0.5, far: 80, verticalFov: 50 },
};
export const viewport = { x: 10, y: 5, width: 1280, height: 720 };
export const ask = (given: object, more: object = {}): Answer => {
  const request = { astrolabe: 1, conventions: { ndc: { near: -1, far: 1 }, screen: { origin: 'bottom-left' } }, viewport, camera, queries: [{ id: 'd', op: 'diagnose', given, ...more }] }; // prettier-ignore
  const made = compute(request);
  if (!made.ok) throw new Error(JSON.stringify(made.problem));
  return made.response.results[0] as unknown as Answer;
};
export const names = ({ explanations }: Answer) => {
  const [first] = explanations;
  return first ? [first.faults, ...first.equivalent].map((set) => set.map(({ where, fault }) => `${where} ${fault}`).join(' + ')) : []; // prettier-ignore
};
