import type { TriangleLayer } from '../../compose/contract';
import { tintColor } from '../../compose/palette';
import { triangleFragment, triangleVertex } from '../shaders';
import { attribute, blendOver, compile, fillBuffer, gpuMatrix, vertexArray, type Drawing, letGo } from './gl';

interface Held {
  readonly buffer: WebGLBuffer;
  readonly array: WebGLVertexArrayObject;
  revision: number;
  count: number;
}

/** Layers of triangles in one tint each: areas on the ground, hulls, shadows. */
export function triangleLayers(gl: WebGL2RenderingContext) {
  const program = compile(gl, triangleVertex, triangleFragment, ['aPosition']);
  const held = new Map<string, Held>();
  return {
    upload({ key, revision, positions }: TriangleLayer): void {
      let one = held.get(key);
      if (!one) {
        const buffer = gl.createBuffer();
        const array = vertexArray(gl, () => {
          gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
          attribute(gl, 0, 3, 3, 0);
        });
        held.set(key, (one = { buffer, array, revision: NaN, count: 0 }));
      }
      if (one.revision === revision) return;
      fillBuffer(gl, one.buffer, positions, true);
      one.count = positions.length / 3;
      one.revision = revision;
    },

    draw(
      d: Drawing,
      { key, origin, tint, opacity = 0.3, hatch = false, union = false, solid = false, onto = false }: TriangleLayer,
    ): void {
      const one = held.get(key);
      if (!one?.count) return;
      gl.useProgram(program.program);
      blendOver(gl);
      gl.depthMask(solid);
      gl.uniformMatrix4fv(program.uniform('uViewProjection'), false, gpuMatrix(d.picture.frame, origin));
      // What lies on a face or on the ground is seen on it.
      gl.uniform1f(program.uniform('uNearer'), solid ? 0 : onto ? 0.0001 : 0.0004);
      gl.uniform3fv(program.uniform('uColor'), [...tintColor(d.palette, tint)]);
      gl.uniform1f(program.uniform('uOpacity'), opacity);
      gl.uniform1i(program.uniform('uHatch'), hatch ? 1 : 0);
      gl.uniform1f(program.uniform('uPixel'), d.pixel);
      if (union) {
        // What a pixel has had once it is not given again.
        gl.clear(gl.STENCIL_BUFFER_BIT);
        gl.enable(gl.STENCIL_TEST);
        gl.stencilFunc(gl.EQUAL, 0, 0xff);
        gl.stencilOp(gl.KEEP, gl.KEEP, gl.INCR);
      }
      gl.bindVertexArray(one.array);
      gl.drawArrays(gl.TRIANGLES, 0, one.count);
      gl.disable(gl.STENCIL_TEST);
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
