import { writeJson } from '../core/compute/json';
import { computeLazily } from '../core/compute/compute';

/*
 * A thread that stands ready for small requests has answered some before: the first that come are
 * then as quick as those after them, and its memory is what it will be.
 */

const line = (count: number, at: (i: number) => readonly number[]) => Array.from({ length: count }, (_, i) => at(i));

/** One request with a little of everything. */
const sample = {
  astrolabe: 1,
  viewport: { width: 320, height: 180 },
  camera: {
    position: [0, 4, 12],
    orientation: { yaw: 3, pitch: -9 },
    projection: { kind: 'perspective', verticalFov: 55, near: 0.2, far: 400 },
  },
  bodies: [
    { id: 'a', shape: { kind: 'box', size: [2, 1, 3] }, position: [1, 0, -4], rotation: [0, 0.6, 0, 0.8] },
    { id: 'b', shape: { kind: 'sphere', radius: 1.5 }, position: [-3, 1, -9] },
    { id: 'c', shape: { kind: 'quad', size: [2, 2] }, position: [0, 2, -6], parent: 'a' },
    {
      ...{ id: 'd', position: [4, 0, -12] },
      shape: {
        kind: 'mesh',
        positions: [0, 0, 0, 2, 0, 0, 0, 2, 0, 0, 0, 2],
        indices: [0, 2, 1, 0, 1, 3, 0, 3, 2, 1, 2, 3],
      },
    },
  ],
  queries: [
    { id: '1', op: 'matrices' },
    { id: '2', op: 'worldToScreen', points: line(40, (i) => [i / 3 - 6, i % 5, -i]) },
    { id: '3', op: 'screenToWorld', pixels: line(20, (i) => [16 * i, 9 * i]), at: { ahead: 10 } },
    { id: '4', op: 'rays', pixels: line(10, (i) => [30 * i, 90]) },
    { id: '5', op: 'pick', pixels: line(20, (i) => [16 * i, 80 + i]), all: true },
    { id: '6', op: 'aim', muzzle: [2, 1, 5], reach: 50 },
    { id: '7', op: 'visibility', method: 'exact', margin: 2 },
    { id: '8', op: 'screenBounds' },
    { id: '9', op: 'drawOrder', key: 'distance' },
    { id: '10', op: 'horizon' },
    { id: '11', op: 'clip', polygons: [line(4, (i) => [i % 3, i > 1 ? 2 : 0, 14 - 9 * i])] },
    { id: '12', op: 'apparentSize', thresholds: [100, 20] },
    { id: '13', op: 'convert', to: { world: { right: '+x', up: '+z', forward: '+y' } } },
  ],
};

/** How often it is answered. */
const times = 60;

/** Answers the sample again and again, between whatever comes in meanwhile. */
export function warmUp(left = times): void {
  if (left <= 0) return;
  const answered = computeLazily(sample);
  if (answered.ok) for (const text of writeJson(answered.response)) void text;
  setImmediate(() => warmUp(left - 1));
}

/** For the tests: whether the sample is a request at all, since nobody reads its answer. */
export const sampleProblem = () => {
  const answered = computeLazily(sample);
  return answered.ok ? null : answered.problem;
};
