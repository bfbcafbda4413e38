import type { LineLayer } from '../../compose/contract';
import { tintColor } from '../../compose/palette';
import { quadIndices } from '../../compose/scene';
import { segmentFragment, segmentVertex } from '../shaders';
import {
  attribute,
  blendOver,
  compile,
  fillBuffer,
  gazeAbout,
  gpuMatrix,
  vertexArray,
  type Drawing,
  letGo,
} from './gl';

const stride = 8;

/** Both ends of every segment at each of its four corners. */
export function segmentQuads(segments: Float32Array): Float32Array {
  const count = segments.length / 6;
  const out = new Float32Array(4 * count * stride);
  for (let i = 0; i < 4 * count; i++) {
    const corner = i % 4;
    out[i * stride] = corner % 2;
    out[i * stride + 1] = corner < 2 ? -1 : 1;
    const from = Math.floor(i / 4) * 6;
    for (let k = 0; k < 6; k++) out[i * stride + 2 + k] = segments[from + k]!;
  }
  return out;
}

interface Held {
  readonly buffer: WebGLBuffer;
  readonly array: WebGLVertexArrayObject;
  revision: number;
  count: number;
}

/** Layers of lines in one tint each, hidden by what is nearer. */
export function lineLayers(gl: WebGL2RenderingContext) {
  const program = compile(gl, segmentVertex, segmentFragment, ['aCorner', 'aStart', 'aEnd']);
  const indices = gl.createBuffer();
  let room = 0;
  const held = new Map<string, Held>();
  return {
    upload({ key, revision, segments }: LineLayer): void {
      let one = held.get(key);
      if (!one) {
        const buffer = gl.createBuffer();
        const array = vertexArray(gl, () => {
          gl.bindBuffer(gl.ELEMENT_ARRAY_BUFFER, indices);
          gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
          attribute(gl, 0, 2, stride, 0);
          attribute(gl, 1, 3, stride, 2);
          attribute(gl, 2, 3, stride, 5);
        });
        held.set(key, (one = { buffer, array, revision: NaN, count: 0 }));
      }
      if (one.revision === revision) return;
      fillBuffer(gl, one.buffer, segmentQuads(segments), true);
      one.count = segments.length / 6;
      one.revision = revision;
    },

    draw(d: Drawing, { key, origin, tint, width = 1, dash = false }: LineLayer): void {
      const one = held.get(key);
      if (!one?.count) return;
      const { frame } = d.picture;
      gl.useProgram(program.program);
      blendOver(gl);
      gl.uniformMatrix4fv(program.uniform('uViewProjection'), false, gpuMatrix(frame, origin));
      gl.uniform4fv(program.uniform('uGaze'), gazeAbout(frame, origin));
      gl.uniform2fv(program.uniform('uViewport'), [...d.size]);
      gl.uniform1f(program.uniform('uPixel'), d.pixel);
      gl.uniform1f(program.uniform('uWidth'), width);
      gl.uniform1f(program.uniform('uNear'), frame.near);
      gl.uniform1i(program.uniform('uPerspective'), frame.kind === 'perspective' ? 1 : 0);
      gl.uniform3fv(program.uniform('uColor'), [...tintColor(d.palette, tint)]);
      gl.uniform1i(program.uniform('uDash'), dash ? 1 : 0);
      gl.bindVertexArray(one.array);
      if (one.count > room) {
        room = Math.max(one.count, 2 * room, 256);
        gl.bufferData(gl.ELEMENT_ARRAY_BUFFER, quadIndices(room) as Uint32Array<ArrayBuffer>, gl.STATIC_DRAW);
      }
      gl.drawElements(gl.TRIANGLES, 6 * one.count, gl.UNSIGNED_INT, 0);
      gl.depthMask(true);
    },

    keepOnly(keys: ReadonlySet<string>): void {
      letGo(held, keys, ({ array, buffer }) => {
        gl.deleteVertexArray(array);
        gl.deleteBuffer(buffer);
      });
    },
  };
}
