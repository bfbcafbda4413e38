import { expect, test } from '@playwright/test';
import { blankWithGpu } from './gpu';
import { frameOf } from '../core/camera/frame';
import { presets, type Conventions } from '../core/conventions/conventions';
import { signedAxes, letterOf, type AxisFrame } from '../core/conventions/axes';
import { codecOf } from '../core/conventions/codec';
import { viewRufToWorld, pictureToViewRuf, projectPoint } from '../core/convert/project';
import type { Projection } from '../core/camera/projection';
import type { Vec3 } from '../core/math/vec3';

const size = 256;
let state = 20261124;
/** A fixed sequence of numbers in 0…1. */
const next = () => {
  state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
  return state / 2 ** 32;
};
const between = (a: number, b: number) => a + (b - a) * next();
const oneOf = <T>(list: readonly T[]): T => list[Math.floor(next() * list.length)]!;

function axes(): AxisFrame {
  for (;;) {
    const [right, up, forward] = [oneOf(signedAxes), oneOf(signedAxes), oneOf(signedAxes)];
    if (new Set([right, up, forward].map(letterOf)).size === 3) return { right, up, forward };
  }
}

function projection(): Projection {
  const near = between(0.1, 3);
  const shift = [between(-0.5, 0.5), between(-0.5, 0.5)] as const;
  return oneOf<() => Projection>([
    () => ({ kind: 'perspective', near, far: near * between(5, 400), lens: { verticalFov: between(0.2, 2.2) }, shift }),
    () => ({ kind: 'perspective', near, far: null, lens: { focalLength: between(12, 90), sensorHeight: 24 } }),
    () => ({
      kind: 'orthographic',
      near: -between(0, 5),
      far: between(20, 200),
      size: { width: between(5, 80) },
      shift,
    }),
    () => ({
      kind: 'frustum',
      near,
      far: near * 50,
      left: -near * between(0.2, 1),
      right: near * between(0.2, 1),
      bottom: -near * between(0.2, 1),
      top: near * between(0.2, 1),
    }),
  ])();
}

test('the rasteriser puts 500 points where worldToScreen says, through random cameras and axes', async ({ page }) => {
  const cases = Array.from({ length: 500 }, () => {
    const made = frameOf(
      {
        position: [between(-40, 40), between(-40, 40), between(-40, 40)],
        orientation: { kind: 'angles', yaw: between(-3, 3), pitch: between(-1.4, 1.4), roll: between(-3, 3) },
        projection: projection(),
      },
      { x: 0, y: 0, width: size, height: size },
    );
    if (!made.ok) throw new Error(made.problems[0]!.message);
    const frame = made.value;
    const conventions: Conventions = { ...presets.WebGL, world: axes(), view: axes() };
    const e = codecOf(conventions);
    const far = frame.far ?? frame.near * 200;
    const ahead = between(frame.near + (far - frame.near) * 0.02, frame.near + (far - frame.near) * 0.95);
    const world: Vec3 = viewRufToWorld(
      frame,
      pictureToViewRuf(frame, between(-0.98, 0.98), between(-0.98, 0.98), ahead),
    );
    const { picture } = projectPoint(frame, world);
    if (!picture.ok) throw new Error(picture.reason);
    return {
      matrix: e.toList(e.matrix(frame, 'viewProjection')),
      point: e.toWorld(world),
      screen: e.toScreen(frame.viewport, picture.value.across, picture.value.upward),
      depth: e.toDepth(picture.value.depth01),
    };
  });

  await blankWithGpu(page);
  const { lit, grid } = await page.evaluate(
    ({ cases, size }) => {
      const { gl, uniform } = gpuWith(
        size,
        size,
        'uniform mat4 m; uniform vec3 p; void main() { gl_Position = m * vec4(p, 1.0); gl_PointSize = 1.0; }',
        'out vec4 c; void main() { c = vec4(1.0, gl_FragCoord.z, fract(gl_FragCoord.z * 255.0), 1.0); }',
      );
      const pixels = new Uint8Array(size * size * 4);
      const lit = cases.map(({ matrix, point }) => {
        gl.clear(gl.COLOR_BUFFER_BIT);
        gl.uniformMatrix4fv(uniform('m'), false, matrix);
        gl.uniform3fv(uniform('p'), point as unknown as number[]);
        gl.drawArrays(gl.POINTS, 0, 1);
        gl.readPixels(0, 0, size, size, gl.RGBA, gl.UNSIGNED_BYTE, pixels);
        const found: { x: number; y: number; z: number }[] = [];
        for (let i = 0; i < size * size; i++)
          if (pixels[4 * i]) found.push({ x: i % size, y: Math.floor(i / size), z: pixels[4 * i + 1]! / 255 });
        return found;
      });
      return { lit, grid: 2 ** -(gl.getParameter(gl.SUBPIXEL_BITS) as number) };
    },
    { cases, size },
  );

  expect(grid).toBeLessThanOrEqual(1 / 16);
  expect(lit).toHaveLength(500);
  lit.forEach((found, i) => {
    const { screen, depth } = cases[i]!;
    expect(found, `case ${i}`).toHaveLength(1);
    // The lit pixel holds the place, to within half the GPU's own grid and what singles lose of
    // this matrix and point.
    const { matrix, point } = cases[i]!;
    const row = (r: number) => [0, 1, 2, 3].map((c) => matrix[4 * c + r]! * (c < 3 ? point[c as 0 | 1 | 2] : 1));
    const w = Math.abs(row(3).reduce((sum, v) => sum + v, 0));
    const lost = (r: number) =>
      [...row(r), ...row(3)].reduce((sum, v) => sum + Math.abs(v), 0) * 2 ** -22 * (size / 2 / w);
    expect(lost(0) + lost(1), `case ${i} is well enough conditioned to bear witness`).toBeLessThan(0.2);
    expect(Math.abs(found[0]!.x + 0.5 - screen[0]), `case ${i} x`).toBeLessThanOrEqual(0.5 + grid / 2 + lost(0));
    expect(Math.abs(found[0]!.y + 0.5 - screen[1]), `case ${i} y`).toBeLessThanOrEqual(0.5 + grid / 2 + lost(1));
    expect(Math.abs(found[0]!.z - depth), `case ${i} depth`).toBeLessThan(0.004);
  });
});
