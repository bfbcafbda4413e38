import { expect, test } from './test';
import { placeBodies, type Body } from '../core/bodies/body';
import { billboard, type BillboardMode } from '../core/billboard/billboard';
import { axesOf, letteringFaults, meshColumns, readingOf, type ItemAxes } from '../core/billboard/lettering';
import { paint, paintOrder, worldTriangles } from '../core/order/paint';
import { windingOf } from '../core/order/winding';
import { sceneTree } from '../core/pick/sceneTree';
import { emptySweep, sweepDifference, sweepRows } from '../core/pick/sweep';
import { quatAbout } from '../core/math/quat';
import { visibility } from '../core/visibility/visibility';
import { blankWithGpu } from './gpu';
import { frameOf, reposed } from '../core/camera/frame';
import { presets, type Conventions } from '../core/conventions/conventions';
import { signedAxes, letterOf, type AxisFrame } from '../core/conventions/axes';
import { codecOf } from '../core/conventions/codec';
import { viewRufToWorld, pictureToViewRuf, projectPoint } from '../core/convert/project';
import type { Projection } from '../core/camera/projection';
import { cross, type Vec3 } from '../core/math/vec3';

const size = 256;
let state = 20261124;
// Every test has the same numbers, whichever ran before it.
test.beforeEach(() => void (state = 20261124));

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

test('the rasteriser finds 500 triangles to run and to be culled as winding says, mirrored extents among them', async ({
  page,
}) => {
  let mirrored = 0;
  const cases = Array.from({ length: 500 }, () => {
    for (;;) {
      const near = between(0.2, 2);
      const [left, right, bottom, top] = [-near * between(0.3, 1), near * between(0.3, 1), -near * between(0.3, 1), near * between(0.3, 1)]; // prettier-ignore
      const [turnX, turnY] = [next() < 0.3, next() < 0.3];
      const made = frameOf(
        {
          position: [between(-9, 9), between(-9, 9), between(-9, 9)],
          orientation: { kind: 'angles', yaw: between(-3, 3), pitch: between(-1.4, 1.4), roll: between(-3, 3) },
          projection: {
            ...{ kind: 'frustum', near, far: near * 80 },
            ...(turnX ? { left: right, right: left } : { left, right }),
            ...(turnY ? { bottom: top, top: bottom } : { bottom, top }),
          },
        },
        { x: 0, y: 0, width: size, height: size },
      );
      if (!made.ok) throw new Error(made.problems[0]!.message);
      const frame = made.value;
      const e = codecOf({ ...presets.WebGL, world: axes(), view: axes() });
      // Some run out of the picture, some from behind the eye.
      const corner = (): Vec3 => viewRufToWorld(frame, [between(-6, 6), between(-6, 6), between(-2, 14)]);
      const triangle = [corner(), corner(), corner()] as const;
      const { facing, area } = windingOf(frame, triangle);
      // What is small, or seen nearly edge-on, is a matter of rounding.
      if (!area.ok || Math.abs(area.value) < 400 || facing === 'edgeOn') continue;
      if (turnX !== turnY) mirrored++;
      return {
        matrix: e.toList(e.matrix(frame, 'viewProjection')),
        corners: triangle.flatMap((p) => [...e.toWorld(p)]),
        counterClockwise: area.value > 0,
        front: facing === 'front',
        turned: turnX !== turnY,
      };
    }
  });
  await blankWithGpu(page);
  const found = await page.evaluate(
    ({ cases, size }) => {
      const { gl, uniform } = gpuWith(
        size,
        size,
        'in vec3 v; uniform mat4 m; void main() { gl_Position = m * vec4(v, 1.0); }',
        'out vec4 c; void main() { c = gl_FrontFacing ? vec4(1.0, 0.0, 0.0, 1.0) : vec4(0.0, 1.0, 0.0, 1.0); }',
      );
      gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer());
      gl.enableVertexAttribArray(0);
      gl.vertexAttribPointer(0, 3, gl.FLOAT, false, 0, 0);
      const pixels = new Uint8Array(size * size * 4);
      const count = () => {
        gl.readPixels(0, 0, size, size, gl.RGBA, gl.UNSIGNED_BYTE, pixels);
        let [front, back] = [0, 0];
        for (let i = 0; i < pixels.length; i += 4) {
          if (pixels[i]) front++;
          if (pixels[i + 1]) back++;
        }
        return [front, back] as const;
      };
      return cases.map(({ matrix, corners }) => {
        gl.uniformMatrix4fv(uniform('m'), false, matrix);
        gl.bufferData(gl.ARRAY_BUFFER, new Float32Array(corners), gl.STATIC_DRAW);
        const drawn = [null, gl.BACK, gl.FRONT].map((culled) => {
          gl.clear(gl.COLOR_BUFFER_BIT);
          if (culled === null) gl.disable(gl.CULL_FACE);
          else {
            gl.enable(gl.CULL_FACE);
            gl.cullFace(culled);
          }
          gl.drawArrays(gl.TRIANGLES, 0, 3);
          return count();
        });
        return drawn;
      });
    },
    { cases, size },
  );
  let seen = 0;
  found.forEach(([all, withoutBack, withoutFront], i) => {
    const { counterClockwise, front, turned } = cases[i]!;
    const [ccw, cw] = all!;
    if (ccw + cw === 0) return;
    seen++;
    // The GPU's front is counter-clockwise as seen, whatever the extents do.
    expect(ccw > 0, `case ${i}`).toBe(counterClockwise);
    expect(Math.min(ccw, cw), `case ${i}`).toBe(0);
    expect(front !== turned, `case ${i}: mirrored extents turn the picture, never the facing`).toBe(counterClockwise);
    expect(withoutBack![0] + withoutBack![1], `case ${i}, back culled`).toBe(counterClockwise ? ccw : 0);
    expect(withoutFront![0] + withoutFront![1], `case ${i}, front culled`).toBe(counterClockwise ? 0 : cw);
  });
  // Some lie off the picture.
  expect(seen).toBeGreaterThan(300);
  expect(mirrored).toBeGreaterThan(100);
});

test('the rasteriser paints bodies over one another as the core does and as a sweep of rays sees them, with a depth buffer and in any order', async ({
  page,
}) => {
  const scenes = Array.from({ length: 6 }, () => {
    const made = frameOf(
      {
        position: [0, 0, 0],
        orientation: { kind: 'angles', yaw: between(-0.2, 0.2), pitch: between(-0.2, 0.2), roll: between(-3, 3) },
        projection: { kind: 'perspective', near: 1, far: 60, lens: { verticalFov: 1.1 } },
      },
      { x: 0, y: 0, width: size, height: size },
    );
    if (!made.ok) throw new Error(made.problems[0]!.message);
    const frame = made.value;
    const bodies = Array.from({ length: 24 }, (_, i): Body => ({
      ...{ id: `b${i}`, parent: null, castsShadow: true, scale: [next() < 0.2 ? -1 : 1, 1, 1] },
      shape: oneOf<Body['shape']>([
        { kind: 'box', size: [between(1, 6), between(1, 6), between(1, 6)] },
        { kind: 'sphere', radius: between(0.5, 2) },
        { kind: 'quad', size: [between(2, 8), between(2, 8)] },
      ]),
      // Some are cut by near or far.
      position: [between(-12, 12), between(-12, 12), between(-64, 2)],
      rotation: quatAbout([0, 1, 0], between(-3, 3)),
    })).map((body): Body => (body.shape.kind === 'sphere' ? { ...body, scale: [1, 1, 1] } : body));
    const placed = placeBodies(bodies);
    if (!placed.ok) throw new Error(placed.problems[0]!.message);
    const triangles = worldTriangles(placed.placed);
    const e = codecOf(presets.WebGL);
    const swept = emptySweep(size, size);
    sweepRows(frame, sceneTree(placed.placed), swept, 0, size, true);
    return {
      frame,
      triangles,
      swept,
      matrix: e.toList(e.matrix(frame, 'viewProjection')),
      corners: [...triangles.corners],
      orders: [
        null,
        [...paintOrder(frame, placed.placed, triangles, 'distance', 'bodies')],
        [...paintOrder(frame, placed.placed, triangles, 'screenHeight', 'faces')],
      ],
    };
  });
  await blankWithGpu(page);
  const found = await page.evaluate(
    ({ scenes, size }) => {
      const { gl, uniform } = gpuWith(
        size,
        size,
        'in vec4 v; uniform mat4 m; flat out float id; void main() { gl_Position = m * vec4(v.xyz, 1.0); id = v.w; }',
        'flat in float id; out vec4 c; void main() { float k = id + 1.0; c = vec4(mod(k, 256.0), mod(floor(k / 256.0), 256.0), floor(k / 65536.0), 255.0) / 255.0; }',
      );
      gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer());
      gl.enableVertexAttribArray(0);
      gl.vertexAttribPointer(0, 4, gl.FLOAT, false, 0, 0);
      const pixels = new Uint8Array(size * size * 4);
      return scenes.map(({ matrix, corners, orders }) => {
        const count = corners.length / 9;
        gl.uniformMatrix4fv(uniform('m'), false, matrix);
        return orders.map((order) => {
          const data = new Float32Array(12 * count);
          for (let n = 0; n < count; n++) {
            const i = order ? order[n]! : n;
            for (let k = 0; k < 3; k++)
              data.set([...corners.slice(9 * i + 3 * k, 9 * i + 3 * k + 3), i], 12 * n + 4 * k);
          }
          gl.bufferData(gl.ARRAY_BUFFER, data, gl.STATIC_DRAW);
          if (order) gl.disable(gl.DEPTH_TEST);
          else gl.enable(gl.DEPTH_TEST);
          gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT);
          gl.drawArrays(gl.TRIANGLES, 0, 3 * count);
          gl.readPixels(0, 0, size, size, gl.RGBA, gl.UNSIGNED_BYTE, pixels);
          return Array.from(
            { length: size * size },
            (_, i) => pixels[4 * i]! + 256 * pixels[4 * i + 1]! + 65536 * pixels[4 * i + 2]! - 1,
          );
        });
      });
    },
    { scenes: scenes.map(({ matrix, corners, orders }) => ({ matrix, corners, orders })), size },
  );
  let covered = 0;
  scenes.forEach(({ triangles, swept }, s) => {
    // Every pixel picked shows the body that the rasteriser has there, but at silhouettes.
    const gpu = found[s]![0]!;
    const bodies = Int32Array.from({ length: size * size }, (_, i) => {
      const triangle = gpu[(size - 1 - Math.floor(i / size)) * size + (i % size)]!;
      return triangle < 0 ? -1 : triangles.body[triangle]!;
    });
    const { count, offSilhouette } = sweepDifference(swept, bodies);
    // A large ball near by has facets of some pixels, and bodies may pass through one another there.
    expect(offSilhouette, `scene ${s}: ${offSilhouette} of ${count} off a silhouette`).toBeLessThan(
      0.001 * size * size,
    );
    expect(count, `scene ${s}`).toBeLessThan(0.02 * size * size);
  });
  scenes.forEach(({ frame, triangles, orders }, s) =>
    orders.forEach((order, o) => {
      const own = paint(frame, triangles, { width: size, height: size, order: order && Int32Array.from(order) });
      const gpu = found[s]![o]!;
      let [odd, all] = [0, 0];
      for (let y = 0; y < size; y++)
        for (let x = 0; x < size; x++) {
          // Rows of the GPU run upward.
          const [mine, theirs] = [own.triangle[y * size + x]!, gpu[(size - 1 - y) * size + x]!];
          if (mine >= 0 || theirs >= 0) all++;
          if (mine !== theirs) odd++;
        }
      covered += all;
      // Pixels whose middle lies on an edge, to within the GPU's own grid, may go to either side.
      expect(odd / all, `scene ${s}, order ${o}: ${odd} of ${all}`).toBeLessThan(0.04);
    }),
  );
  expect(covered).toBeGreaterThan(100_000);
});

test('no body that the rasteriser draws in 200 random scenes is called outside', async ({ page }) => {
  const side = 96;
  const scenes = Array.from({ length: 200 }, () => {
    for (;;) {
      const made = frameOf(
        {
          position: [between(-4, 4), between(-4, 4), between(-4, 4)],
          orientation: { kind: 'angles', yaw: between(-3, 3), pitch: between(-1.4, 1.4), roll: between(-3, 3) },
          projection: projection(),
        },
        { x: 0, y: 0, width: side, height: side },
      );
      if (!made.ok) continue;
      const frame = made.value;
      const bodies = Array.from({ length: 16 }, (_, i): Body => {
        const round = next() < 0.01;
        return {
          ...{ id: `b${i}`, parent: null, castsShadow: true, rotation: quatAbout([0, 0, 1], between(-3, 3)) },
          shape: round
            ? { kind: 'sphere', radius: between(0.3, 3) }
            : { kind: 'box', size: [between(0.3, 9), between(0.3, 9), between(0.3, 9)] },
          position: [between(-25, 25), between(-25, 25), between(-25, 25)],
          scale: round ? [1, 1, 1] : [next() < 0.2 ? -1 : 1, between(0.5, 2), 1],
        };
      });
      const placed = placeBodies(bodies);
      if (!placed.ok) throw new Error(placed.problems[0]!.message);
      const triangles = worldTriangles(placed.placed);
      const e = codecOf(presets.WebGL);
      return {
        matrix: e.toList(e.matrix(frame, 'viewProjection')),
        // As exact as the GPU has them, and short to tell.
        corners: Array.from(triangles.corners, (v) => Number(v.toFixed(5))),
        body: [...triangles.body],
        verdicts: visibility(frame, placed.placed, { method: 'exact' }).map(({ verdict }) => verdict),
      };
    }
  });
  await blankWithGpu(page);
  const found = await page.evaluate(
    ({ scenes, side }) => {
      const { gl, uniform } = gpuWith(
        side,
        side,
        'in vec4 v; uniform mat4 m; flat out float id; void main() { gl_Position = m * vec4(v.xyz, 1.0); id = v.w; }',
        'flat in float id; out vec4 c; void main() { c = vec4((id + 1.0) / 255.0, 0.0, 0.0, 1.0); }',
      );
      gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer());
      gl.enableVertexAttribArray(0);
      gl.vertexAttribPointer(0, 4, gl.FLOAT, false, 0, 0);
      gl.enable(gl.DEPTH_TEST);
      const pixels = new Uint8Array(side * side * 4);
      return scenes.map(({ matrix, corners, body }) => {
        const data = new Float32Array((corners.length / 3) * 4);
        for (let i = 0; i < corners.length / 3; i++) data.set([...corners.slice(3 * i, 3 * i + 3), body[Math.floor(i / 3)]!], 4 * i); // prettier-ignore
        gl.uniformMatrix4fv(uniform('m'), false, matrix);
        gl.bufferData(gl.ARRAY_BUFFER, data, gl.STATIC_DRAW);
        gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT);
        gl.drawArrays(gl.TRIANGLES, 0, data.length / 4);
        gl.readPixels(0, 0, side, side, gl.RGBA, gl.UNSIGNED_BYTE, pixels);
        const seen = new Set<number>();
        for (let i = 0; i < pixels.length; i += 4) if (pixels[i]) seen.add(pixels[i]! - 1);
        return [...seen];
      });
    },
    { scenes, side },
  );
  let [drawn, outside] = [0, 0];
  scenes.forEach(({ verdicts }, s) => {
    for (const body of found[s]!) {
      drawn++;
      expect(verdicts[body], `scene ${s}, body ${body}`).not.toBe('outside');
    }
    outside += verdicts.filter((one) => one === 'outside').length;
  });
  expect(drawn).toBeGreaterThan(400);
  expect(outside).toBeGreaterThan(400);
});

test('lettered quads that the GPU draws from the core’s matrices are mirrored, and left out, just where the core says so', async ({
  page,
}) => {
  const side = 128;
  const modes: readonly BillboardMode[] = ['viewPlane', 'eyePoint', 'axisEye', 'axisView'];
  const cases = Array.from({ length: 800 }, (_, n) => {
    for (;;) {
      const made = frameOf(
        {
          position: [between(-9, 9), between(-9, 9), between(-9, 9)],
          orientation: { kind: 'angles', yaw: between(-3, 3), pitch: between(-1.4, 1.4), roll: between(-3, 3) },
          projection: projection(),
        },
        { x: 0, y: 0, width: side, height: side },
      );
      if (!made.ok) continue;
      const given = made.value;
      const { extents: x } = given;
      const frame =
        next() < 0.25 ? (reposed(given, { extents: { ...x, left: x.right, right: x.left } }) ?? given) : given;
      const position = viewRufToWorld(frame, pictureToViewRuf(frame, between(-0.7, 0.7), between(-0.7, 0.7), frame.near + between(1, 12))); // prettier-ignore
      const item = billboard(frame, position, oneOf(modes));
      const fault = n % 2 ? null : oneOf(letteringFaults);
      const conventions: Conventions = { ...presets.WebGL, world: axes(), view: axes() };
      const e = codecOf(conventions);
      const own = axesOf(item, fault);
      // Half of the rest go through the matrix of a mesh whose front and up are anything.
      const columns = (): ItemAxes => {
        if (fault || n % 4 !== 1)
          return { along: e.toWorld(own.along), up: e.toWorld(own.up), front: e.toWorld(own.front) };
        for (;;) {
          const [front, up] = [oneOf(signedAxes), oneOf(signedAxes)];
          const matrix = meshColumns(front, up, e.toWorld(item.normal), e.toWorld(item.up));
          if (!matrix) continue;
          // On the mesh the lettering runs to the right of one who looks at its front.
          const local = (axis: string): Vec3 => [0, 1, 2].map((i) => ('xyz'[i] === axis[1] ? (axis[0] === '+' ? 1 : -1) : 0)) as unknown as Vec3; // prettier-ignore
          const right =
            e.handedness.world === 'right' ? cross(local(up), local(front)) : cross(local(front), local(up));
          const carried = (v: Vec3): Vec3 => [0, 1, 2].map((k) => v[0] * matrix[0][k]! + v[1] * matrix[1][k]! + v[2] * matrix[2][k]!) as unknown as Vec3; // prettier-ignore
          return { along: carried(right), up: carried(local(up)), front: carried(local(front)) };
        }
      };
      const { along, up } = columns();
      const at = e.toWorld(position);
      const size = (frame.kind === 'perspective' ? frame.near + 6 : 8) / 8;
      const place = ([r, u]: readonly [number, number]) => [0, 1, 2].map((k) => at[k]! + size * (r * along[k]! + u * up[k]!)); // prettier-ignore
      // Three marks: at the foot where the lettering begins, where it ends, and at the head where it begins.
      const marks = ([[-1, -1], [1, -1], [-1, 1]] as const).map((c) => [[-0.25, -0.25], [0.25, -0.25], [0, 0.25]].map(([r, u]) => place([c[0] + r!, c[1] + u!]))); // prettier-ignore
      const reading = readingOf(frame, position, own, fault);
      return {
        matrix: e.toList(e.matrix(frame, 'viewProjection')),
        corners: marks.flatMap((mark) => (fault === 'winding' ? mark.reverse() : mark)).flat(),
        ...{ reads: reading.reads, shows: reading.shows, fault, ortho: frame.kind === 'orthographic' },
      };
    }
  });
  await blankWithGpu(page);
  const found = await page.evaluate(
    ({ cases, side }) => {
      const { gl, uniform } = gpuWith(
        side,
        side,
        'in vec3 v; uniform mat4 m; flat out float id; void main() { gl_Position = m * vec4(v, 1.0); id = float(gl_VertexID / 3); }',
        'flat in float id; out vec4 c; void main() { c = vec4((id + 1.0) / 255.0, 0.0, 0.0, 1.0); }',
      );
      gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer());
      gl.enableVertexAttribArray(0);
      gl.vertexAttribPointer(0, 3, gl.FLOAT, false, 0, 0);
      const pixels = new Uint8Array(side * side * 4);
      return cases.map(({ matrix, corners }) => {
        gl.uniformMatrix4fv(uniform('m'), false, matrix);
        gl.bufferData(gl.ARRAY_BUFFER, new Float32Array(corners), gl.STATIC_DRAW);
        const draw = (cull: boolean) => {
          (cull ? gl.enable : gl.disable).call(gl, gl.CULL_FACE);
          gl.clear(gl.COLOR_BUFFER_BIT);
          gl.drawArrays(gl.TRIANGLES, 0, 9);
          gl.readPixels(0, 0, side, side, gl.RGBA, gl.UNSIGNED_BYTE, pixels);
          const sums = [1, 2, 3].map(() => ({ x: 0, y: 0, count: 0 }));
          let edge = false;
          for (let i = 0; i < side * side; i++) {
            const one = sums[pixels[4 * i]! - 1];
            if (!one) continue;
            const [x, y] = [i % side, Math.floor(i / side)];
            edge ||= x === 0 || y === 0 || x === side - 1 || y === side - 1;
            one.x += x;
            one.y += y;
            one.count++;
          }
          return { sums, edge };
        };
        const all = draw(false);
        return { ...all, culled: draw(true).sums.every(({ count }) => count === 0) };
      });
    },
    { cases, side },
  );
  const seen = new Map<string, number>();
  cases.forEach(({ reads, shows, fault }, n) => {
    const { sums, edge, culled } = found[n]!;
    // All three marks whole in the picture, and large enough to tell.
    if (edge || sums.some(({ count }) => count < 6)) return;
    const [a, b, c] = sums.map(({ x, y, count }) => [x / count, y / count] as const);
    const area = (b![0] - a![0]) * (c![1] - a![1]) - (b![1] - a![1]) * (c![0] - a![0]);
    if (Math.abs(area) < 20) return;
    expect(area > 0 ? 'right' : 'mirrored', `${n}, ${fault}`).toBe(reads);
    expect(culled, `${n}, ${fault}`).toBe(shows === 'back');
    const key = `${fault} ${reads}`;
    seen.set(key, (seen.get(key) ?? 0) + 1);
  });
  // Every fault has been seen, and what is right many times.
  expect(seen.get('null right')).toBeGreaterThan(60);
  for (const fault of letteringFaults)
    expect([...seen].filter(([key]) => key.startsWith(fault)).length, fault).toBeGreaterThan(0);
});
