import type { FieldLayer } from '../../compose/contract';
import { tintColor } from '../../compose/palette';
import { fieldFragment, coverVertex } from '../shaders';
import { attribute, compile, fillBuffer, vertexArray, type Drawing, letGo } from './gl';

interface Held {
  readonly texture: WebGLTexture;
  revision: number;
}

/** The most steps that a field tells apart. */
export const mostSteps = 8;

/** Layers with a value for every cell over the picture: errors, depths, hits. */
export function fieldLayers(gl: WebGL2RenderingContext) {
  const program = compile(gl, coverVertex, fieldFragment, ['aCorner']);
  const buffer = gl.createBuffer();
  fillBuffer(gl, buffer, new Float32Array([-1, -1, 1, -1, -1, 1, 1, 1]));
  const array = vertexArray(gl, () => {
    gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
    attribute(gl, 0, 2, 2, 0);
  });
  const held = new Map<string, Held>();
  return {
    upload({ key, revision, values, size }: FieldLayer): void {
      const one = held.get(key) ?? { texture: gl.createTexture(), revision: NaN };
      held.set(key, one);
      if (one.revision === revision) return;
      one.revision = revision;
      gl.activeTexture(gl.TEXTURE3);
      gl.bindTexture(gl.TEXTURE_2D, one.texture);
      gl.texImage2D(gl.TEXTURE_2D, 0, gl.R32F, size.width, size.height, 0, gl.RED, gl.FLOAT, values as Float32Array<ArrayBuffer>); // prettier-ignore
      gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MIN_FILTER, gl.NEAREST);
      gl.texParameteri(gl.TEXTURE_2D, gl.TEXTURE_MAG_FILTER, gl.NEAREST);
    },

    draw({ palette, pixel }: Drawing, { key, size, steps, scale, opacity = 0.5, hatch = false }: FieldLayer): void {
      const one = held.get(key);
      if (!one) return;
      gl.useProgram(program.program);
      gl.disable(gl.DEPTH_TEST);
      gl.enable(gl.BLEND);
      gl.blendFunc(gl.SRC_ALPHA, gl.ONE_MINUS_SRC_ALPHA);
      gl.activeTexture(gl.TEXTURE3);
      gl.bindTexture(gl.TEXTURE_2D, one.texture);
      gl.uniform1i(program.uniform('uValues'), 3);
      gl.uniform2i(program.uniform('uSize'), size.width, size.height);
      const limits = steps.slice(0, mostSteps);
      gl.uniform1fv(program.uniform('uSteps'), [...limits, ...Array<number>(mostSteps - limits.length).fill(0)]);
      gl.uniform1i(program.uniform('uStepCount'), limits.length);
      const colors = Array.from({ length: mostSteps + 1 }, (_, i) => {
        const tint = scale[Math.min(i, scale.length - 1)] ?? 'none';
        return [...tintColor(palette, tint), tint === 'none' ? 0 : 1];
      });
      gl.uniform4fv(program.uniform('uColors'), colors.flat());
      gl.uniform1f(program.uniform('uOpacity'), opacity);
      gl.uniform1i(program.uniform('uHatch'), hatch ? 1 : 0);
      gl.uniform1f(program.uniform('uPixel'), pixel);
      gl.bindVertexArray(array);
      gl.drawArrays(gl.TRIANGLE_STRIP, 0, 4);
      gl.enable(gl.DEPTH_TEST);
    },

    keepOnly(keys: ReadonlySet<string>): void {
      letGo(held, keys, ({ texture }) => {
        gl.deleteTexture(texture);
      });
    },
  };
}
