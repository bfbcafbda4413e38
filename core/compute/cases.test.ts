import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { compute } from './compute';
import type { ComputeRequest } from './schema';

/* The table of docs/cases.md: the values are read there, what they are values of stands here. */

const rows = new Map(
  readFileSync('docs/cases.md', 'utf8')
    .split('\n')
    .filter((line) => line.startsWith('| ') && !line.startsWith('| case') && !line.startsWith('| -'))
    .map((line) => line.split('|').map((cell) => cell.trim()))
    .map((cells) => [cells[1]!, cells.at(-2)!] as const),
);
const exact = (text: string) => {
  const [p, q = '1'] = text.split('/');
  return Number(p) / Number(q);
};

type Camera = Extract<ComputeRequest['camera'], { position: unknown }>;
const frustum = { kind: 'frustum', near: 0.5, far: 50, left: -0.25, right: 0.75, bottom: -0.25, top: 0.25 } as const;
const camera: Camera = {
  position: [1, 2, 3],
  orientation: { right: [0.6, 0, 0.8], up: [0, 1, 0], forward: [0.8, 0, -0.6] },
  projection: frustum,
};
const level: Camera = { position: [0, 2, 0], orientation: { yaw: 0, pitch: 0, roll: 0 }, projection: { ...frustum, left: -0.5, right: 0.5 } }; // prettier-ignore
const flat = { kind: '2d', focus: [10, 20], anchor: [500, 250], zoom: 3, rotation: 90 } as const;
/** Twenty, or any distance, ahead of the camera. */
const ahead = (f: number): [number, number, number] => [1 + 0.8 * f, 2, 3 - 0.6 * f];
/** Where the optical axis meets the screen: a quarter of the way across. */
const axis: [number, number] = [250, 250];
const turned: [number, number, number, number] = [0, Math.sin(-0.5 * Math.atan2(4, 3)), 0, Math.cos(-0.5 * Math.atan2(4, 3))]; // prettier-ignore

type Query = ComputeRequest['queries'][number];
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- an answer is whatever its operation gives
function ask(query: Omit<Query, 'id'>, part: Partial<ComputeRequest> = {}): Record<string, any> {
  const made = compute({ astrolabe: 1, viewport: { width: 1000, height: 500 }, camera, queries: [{ id: 'q', ...query }], ...part }); // prettier-ignore
  if (!made.ok) throw new Error(made.problem.errors[0]!.message);
  return { ...made.response.results[0], camera: made.response.camera };
}
const p = { op: 'worldToScreen', points: [[10, 5, -3]] } as const;
const point = (part: Partial<ComputeRequest> = {}) => ask(p as never, part).points[0];
const at = (conventions: ComputeRequest['conventions']) => point({ conventions });

const cases: Record<string, () => number> = {
  'ndc x': () => point().ndc[0],
  'ndc y': () => point().ndc[1],
  'depth 0 to 1': () => point().ndc[2],
  'depth reversed': () => at({ ndc: { near: 1, far: 0 } }).ndc[2],
  'depth −1 to 1': () => at({ ndc: { near: -1, far: 1 } }).ndc[2],
  'depth, infinite far': () => point({ camera: { ...camera, projection: { ...frustum, far: null } } }).depth,
  'screen x': () => point().screen[0],
  'screen y, top left': () => point().screen[1],
  'screen y, bottom left': () => at({ screen: { origin: 'bottom-left' } }).screen[1],
  'screen x, centres 0': () => at({ screen: { pixelCentre: 0 } }).screen[0],
  'pixels per unit': () => point().pixelsPerUnit[0],
  'plane left': () => {
    const [x, , z] = ask({ op: 'planes' } as never).planes[0].plane;
    return (x * 0.6 + z * 0.8) ** 2;
  },
  'orthographic x': () => point({ camera: { ...camera, projection: { kind: 'orthographic', near: 2, far: 22, height: 4 } } }).ndc[0], // prettier-ignore
  'orthographic depth': () => point({ camera: { ...camera, projection: { kind: 'orthographic', near: 2, far: 22, height: 4 } } }).depth, // prettier-ignore
  'range to a plane': () => {
    const plane = { point: [9, 0, 0], normal: [1, 0, 0] };
    const found = ask({ op: 'screenToWorld', pixels: [axis], at: { plane } } as never).pixels[0].point;
    return Math.hypot(found[0] - 1, found[1] - 2, found[2] - 3);
  },
  'sphere, near hit': () =>
    ask({ op: 'pick', pixels: [axis] } as never, {
      bodies: [{ id: 's', shape: { kind: 'sphere', radius: 3 }, position: ahead(20) }],
    }).pixels[0].hits[0].distance,
  'sphere, extent': () => {
    const { bounds } = ask({ op: 'screenBounds' } as never, {
      bodies: [{ id: 's', shape: { kind: 'sphere', radius: 3 }, position: ahead(5) }],
    }).bodies[0];
    return 1 - bounds.min[1] / 250;
  },
  'scaled box, hit': () =>
    ask({ op: 'pick', pixels: [axis] } as never, {
      bodies: [{ id: 'b', shape: { kind: 'box', size: [1, 1, 1] }, position: ahead(20), rotation: turned, scale: [1, 1, 6] }], // prettier-ignore
    }).pixels[0].hits[0].distance,
  'dolly zoom': () => {
    const stop = ask({ op: 'dollyZoom', target: ahead(20), distances: [5] } as never).distances[0];
    return Math.tan((stop.verticalFov * Math.PI) / 360);
  },
  'footprint corner': () => {
    const plane = { point: [0, 0, 0], normal: [0, 1, 0] };
    const { polygon } = ask({ op: 'footprint', plane } as never, { camera: level });
    return Math.min(...polygon.map((corner: number[]) => -corner[2]!));
  },
  horizon: () => ask({ op: 'horizon' } as never, { camera: level }).points[0][1],
  '2D, turned': () =>
    ask({ op: 'worldToScreen', points: [[11, 20]] } as never, { camera: flat as never }).points[0].screen[1],
  '2D, back': () => ask({ op: 'screenToWorld', pixels: [[500, 247]], at: { depth: 0 } } as never, { camera: flat as never }).pixels[0].point[0], // prettier-ignore
  billboard: () =>
    ask({ op: 'billboard', items: [{ position: [-2, 2, -1], mode: 'eyePoint' }] } as never).items[0].normal[0],
  'shadow only': () => {
    const one = (id: string, position: [number, number, number]) => ({ id, shape: { kind: 'sphere', radius: 1 }, position }) as const; // prettier-ignore
    const { bodies } = ask(
      { op: 'shadowVisibility', light: [0, -1, 0], receiver: { point: [0, 0, 0], normal: [0, 1, 0] } } as never,
      { camera: level, bodies: [one('above', [0, 30, -20]), one('beside', [90, 30, -20])] },
    );
    return bodies.filter((body: { onlyShadow: boolean }) => body.onlyShadow).length;
  },
  quaternion: () => ask({ op: 'matrices' } as never, { camera: { ...level, orientation: { yaw: 180, pitch: 0, roll: 0 } } }).camera.quaternion[1] ** 2, // prettier-ignore
  'focal length': () => {
    const { verticalFov } = ask({ op: 'matrices' } as never, { camera: { ...level, projection: { kind: 'perspective', near: 1, far: null, focalLength: 12, sensorHeight: 24 } } }).camera; // prettier-ignore
    return Math.tan((verticalFov * Math.PI) / 360);
  },
  shift: () => {
    const projection = { kind: 'perspective', near: 1, far: null, verticalFov: 60, shift: [1, 0] } as const;
    return ask({ op: 'worldToScreen', points: [ahead(7)] } as never, { camera: { ...camera, projection: { ...projection, shift: [1, 0] } } }).points[0].ndc[0]; // prettier-ignore
  },
};

describe('the cases worked by hand', () => {
  it('are all of docs/cases.md', () => expect([...rows.keys()].sort()).toEqual(Object.keys(cases).sort()));
  it.each(Object.entries(cases))('%s', (name, value) => {
    const expected = exact(rows.get(name)!);
    expect(Math.abs(value() - expected)).toBeLessThan(1e-13 * Math.max(1, Math.abs(expected)));
  });
});
