import { expect, test } from './test';
import { blankWithGpu } from './gpu';
import { triangulate } from '../core/bodies/mesh';
import { placeBodies } from '../core/bodies/body';
import { frameOf } from '../core/camera/frame';
import { pixelToPicture } from '../core/convert/project';
import { presets } from '../core/conventions/conventions';
import { codecOf } from '../core/conventions/codec';
import { linearDeterminant, transformPoint } from '../core/math/mat4';
import { randomFrom } from '../core/math/random';
import { pick } from '../core/pick/pick';
import { saltmarrow } from '../demo/saltmarrow';
import { coreCamera, cameraInSpace } from '../formats/camera';

const [width, height] = [640, 360];

test('an id buffer of the harbour agrees with pick on 10,000 pixels, but for silhouettes', async ({ page }) => {
  const project = saltmarrow();
  const made = placeBodies(project.bodies);
  const framed = frameOf(coreCamera(cameraInSpace(project)), { x: 0, y: 0, width, height });
  if (!made.ok || !framed.ok) throw new Error('the demo holds together');
  const frame = framed.value;
  const e = codecOf(presets.WebGL);

  // Every body as triangles in its own colour, counter-clockwise from the front; spheres fine
  // enough to be round to the pixel.
  const vertices: number[] = [];
  made.placed.forEach(({ body, toWorld }, id) => {
    const mesh = triangulate(body.shape, 48);
    const mirrored = linearDeterminant(toWorld) < 0;
    for (let i = 0; i < mesh.indices.length; i += 3)
      for (const k of mirrored ? [0, 2, 1] : [0, 1, 2]) {
        const v = 3 * mesh.indices[i + k]!;
        vertices.push(
          ...transformPoint(toWorld, [mesh.positions[v]!, mesh.positions[v + 1]!, mesh.positions[v + 2]!]),
          id + 1,
        );
      }
  });

  await blankWithGpu(page);
  const ids = await page.evaluate(
    ({ vertices, matrix, width, height }) => {
      const { gl, uniform } = gpuWith(
        width,
        height,
        'in vec4 v; uniform mat4 m; flat out float id; void main() { id = v.w; gl_Position = m * vec4(v.xyz, 1.0); }',
        'flat in float id; out vec4 c; void main() { c = vec4(id / 255.0, 0.0, 0.0, 1.0); }',
      );
      gl.bindBuffer(gl.ARRAY_BUFFER, gl.createBuffer());
      gl.bufferData(gl.ARRAY_BUFFER, new Float32Array(vertices), gl.STATIC_DRAW);
      gl.enableVertexAttribArray(0);
      gl.vertexAttribPointer(0, 4, gl.FLOAT, false, 0, 0);
      gl.uniformMatrix4fv(uniform('m'), false, matrix);
      gl.enable(gl.DEPTH_TEST);
      gl.enable(gl.CULL_FACE);
      gl.clear(gl.COLOR_BUFFER_BIT | gl.DEPTH_BUFFER_BIT);
      gl.drawArrays(gl.TRIANGLES, 0, vertices.length / 4);
      const pixels = new Uint8Array(width * height * 4);
      gl.readPixels(0, 0, width, height, gl.RGBA, gl.UNSIGNED_BYTE, pixels);
      return Array.from({ length: width * height }, (_, i) => pixels[4 * i]!);
    },
    { vertices, matrix: e.toList(e.matrix(frame, 'viewProjection')), width, height },
  );

  const random = randomFrom(77);
  const drawn = (x: number, y: number) => ids[(height - 1 - y) * width + x] ?? 0;
  const far: string[] = [];
  const seen = new Set<number>();
  let agree = 0;
  for (let i = 0; i < 10_000; i++) {
    const [x, y] = [Math.floor(random() * width), Math.floor(random() * height)];
    const [hit] = pick(frame, ...pixelToPicture(frame, [x + 0.5, y + 0.5]), made.placed);
    const id = hit ? made.placed.findIndex(({ body }) => body.id === hit.body) + 1 : 0;
    seen.add(id);
    if (id === drawn(x, y)) agree++;
    else {
      const round = [-1, 0, 1].flatMap((dx) => [-1, 0, 1].map((dy) => drawn(x + dx, y + dy)));
      if (!round.includes(id)) far.push(`${x}, ${y}: picked ${id}, drawn ${drawn(x, y)}`);
    }
  }
  expect(seen.size, 'the pixels fall on many bodies').toBeGreaterThan(35);
  expect(far).toEqual([]);
  expect(agree).toBeGreaterThanOrEqual(9990);
});

test('the browser’s own matrices invert and multiply ours alike', async ({ page }) => {
  const made = frameOf(coreCamera(cameraInSpace(saltmarrow())), { x: 0, y: 0, width, height });
  if (!made.ok) throw new Error();
  const e = codecOf(presets.WebGL);
  const list = (name: Parameters<typeof e.matrix>[1]) => e.toList(e.matrix(made.value, name));
  const names = ['view', 'projection', 'viewProjection', 'cameraToWorld', 'inverseViewProjection'] as const;
  const ours = Object.fromEntries(names.map((name) => [name, list(name)])) as Record<(typeof names)[number], number[]>;
  await page.goto('about:blank');
  const theirs = await page.evaluate((m) => {
    const matrix = (values: number[]) => new DOMMatrix(values);
    const values = (one: DOMMatrix) => [...one.toFloat64Array()];
    return {
      viewProjection: values(matrix(m.projection).multiply(matrix(m.view))),
      cameraToWorld: values(matrix(m.view).inverse()),
      inverseViewProjection: values(matrix(m.viewProjection).inverse()),
    };
  }, ours);
  for (const [name, values] of Object.entries(theirs))
    values.forEach((v, i) =>
      expect(Math.abs(v - ours[name as keyof typeof theirs][i]!), `${name} ${i}`).toBeLessThan(
        1e-10 * (1 + Math.abs(v)),
      ),
    );
});
