import { describe, expect, it } from 'vitest';
import { compute } from '../core/compute/compute';
import { codecOf } from '../core/conventions/codec';
import { presets } from '../core/conventions/conventions';
import { saltmarrow } from '../demo/saltmarrow';
import { saltmarrowChart } from '../demo/chart';
import { projectRequest } from './camera';
import { readScene } from './gltfRead';
import { gltfOfRequest, requestOfGltf } from './sceneRequest';

/* Requests as glTF and back, as the command line has them. */

const bytesOf = (content: Uint8Array | string) => typeof content === 'string' ? new TextEncoder().encode(content) : content; // prettier-ignore
const written = async (given: unknown, asText = false) => {
  const made = await gltfOfRequest(given, 'camera', asText);
  if (!made.ok) throw new Error(JSON.stringify(made.problem));
  return { bytes: bytesOf(made.content), said: made.said };
};
const back = async (bytes: Uint8Array, like: unknown = null) => {
  const made = await requestOfGltf(bytes, 'camera', like);
  if (!made.ok) throw new Error(JSON.stringify(made.problem));
  return made as { request: Record<string, unknown>; said: readonly string[] };
};
const harbour = saltmarrow();
const request = projectRequest(harbour, codecOf(harbour.conventions), null) as unknown as Record<string, unknown>;
const points = [[-2, 3, -14], [10, 1, -40], [0, 0, -120]]; // prettier-ignore
/** The pixels of points of canonical space that a request gives, in pixels from the top left corner. */
function pixels(given: Record<string, unknown>): number[] {
  const e = codecOf((given['conventions'] ?? harbour.conventions) as typeof harbour.conventions);
  const asked = points.map((p) => [...e.toWorld(p as [number, number, number])]);
  const answered = compute({ ...given, queries: [{ id: 'p', op: 'worldToScreen', points: asked }] });
  if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
  const { height } = given['viewport'] as { height: number };
  const [found] = answered.response.results as unknown as [{ points: { screen: number[] | null }[] }];
  return found.points.flatMap(({ screen }) => {
    if (!screen) return [NaN, NaN];
    return [screen[0]!, e.conventions.screen.origin === 'top-left' ? screen[1]! : height - screen[1]!];
  });
}

describe('a request as glTF', () => {
  it('comes back to the same pixels, as bytes and as text', async () => {
    for (const asText of [false, true]) {
      const { bytes } = await written(request, asText);
      const again = await back(bytes);
      const [a, b] = [pixels(request), pixels(again.request)];
      a.forEach((v, i) => expect(b[i]).toBeCloseTo(v, 3));
      expect((again.request['bodies'] as unknown[]).length).toBe((request['bodies'] as unknown[]).length);
    }
  });

  it('comes back in the conventions of another request, to the same pixels', async () => {
    const { bytes } = await written(request);
    const right = pixels(request);
    for (const conventions of Object.values(presets)) {
      const { request: own } = await back(bytes, { conventions });
      expect(own['conventions']).toEqual(conventions);
      pixels(own).forEach((v, i) => expect(v).toBeCloseTo(right[i]!, 3));
    }
  });

  it('holds the way that its `motion` query asks for, place by place', async () => {
    const times = [2, 0, 1];
    const track = { kind: 'scroll', velocity: [3, 0, -1] };
    const given = { ...request, queries: [{ id: 'm', op: 'motion', track, times }] };
    const answered = compute(given);
    if (!answered.ok) throw new Error(JSON.stringify(answered.problem));
    const [answer] = answered.response.results as unknown as [{ times: { time: number; camera: { position: [number, number, number] } }[] }]; // prettier-ignore
    const { bytes } = await written(given);
    const read = await readScene(bytes, 'camera');
    if (!read.ok) throw new Error(JSON.stringify(read.problems));
    const course = read.scene.courses.find(({ of }) => of === 'camera')!;
    expect(course.times).toEqual([0, 1, 2]);
    const e = codecOf(harbour.conventions);
    for (const { time, camera } of answer.times)
      course.positions[time]!.forEach((v, i) => expect(v).toBeCloseTo(e.fromWorld(camera.position)[i]!, 4));
    const { said } = await back(bytes);
    expect(said.join(' ')).toContain('the camera stands as at rest');
    // Without one nothing moves but the bodies.
    const still = await readScene((await written(request)).bytes, 'camera');
    expect(still.ok && still.scene.courses.filter(({ of }) => of === 'camera')).toEqual([]);
  });

  it('says of a flat camera that it is written as what it equals, and nothing of what a request has not', async () => {
    const chart = saltmarrowChart();
    const flat = projectRequest(chart, codecOf(chart.conventions), null);
    expect((await written(flat)).said.join(' ')).toContain('orthographic');
    for (const given of [flat, request]) expect((await written(given)).said.join(' ')).not.toContain('project alone');
  });

  it('is refused with the sentences of `compute`; no glTF and no conventions in one', async () => {
    const bad = { ...request, camera: { position: [0, 0] } };
    const refused = await gltfOfRequest(bad, 'camera', true);
    const own = compute({ ...bad, queries: [] });
    if (refused.ok || own.ok) throw new Error('it was taken');
    expect(refused.problem.errors.map(({ path }) => path)).toEqual(own.problem.errors.map(({ path }) => path));
    const none = await requestOfGltf(new TextEncoder().encode('{"points": []}'), 'points', null);
    expect(none.ok ? '' : none.problem.errors[0]!.message).toContain('glTF');
    const { bytes } = await written(request);
    for (const conventions of ['metric', { ...presets.Vulkan, ndc: { up: '+q', near: 0, far: 1 } }, { ...presets.Vulkan, world: { right: '+x', up: '+x', forward: '+z' } }]) {
      const odd = await requestOfGltf(bytes, 'camera', { conventions });
      expect(odd.ok ? '' : odd.problem.errors[0]!.message).toMatch(/no conventions|conventions is "metric"/);
    }
  }); // prettier-ignore
});
