import { sub } from '../../../../core/math/vec3';
import type { SpeckLayer } from '../../compose/contract';
import { speckFragment, speckVertex } from '../shaders';
import { attribute, compile, defining, fillBuffer, gpuMatrix, letGo, vertexArray, type Drawing, type Program } from './gl'; // prettier-ignore

/** The least radius, in pixels of the page. */
const leastPixels = 0.8;
/** The widest point, in pixels of the device, if the GPU has points so wide. */
const widest = 256;

interface Held {
  readonly places: WebGLBuffer;
  readonly tints: WebGLBuffer;
  /** A point each, and four corners of one each: the same numbers, read otherwise. */
  readonly points: WebGLVertexArrayObject;
  readonly quads: WebGLVertexArrayObject;
  revision: number;
  tintRevision: number;
  /** What the buffer of places holds. */
  values: Float32Array;
}

/** The part of a layer's key that all pictures have in common. */
const shared = (key: string): string => key.slice(key.lastIndexOf('/') + 1);

/** Layers of very many small things, each layer once on the GPU for all pictures. */
export function speckLayers(gl: WebGL2RenderingContext) {
  const names = ['aPlace', 'aTint'];
  const points = compile(gl, speckVertex, speckFragment, names);
  const quads = compile(gl, defining('QUADS', speckVertex), defining('QUADS', speckFragment), names);
  const largest = Math.min(widest, (gl.getParameter(gl.ALIASED_POINT_SIZE_RANGE) as Float32Array)[1]!);

  const held = new Map<string, Held>();
  function hold(key: string): Held {
    const [places, tints] = [gl.createBuffer(), gl.createBuffer()];
    const array = (divisor: number) =>
      vertexArray(gl, () => {
        gl.bindBuffer(gl.ARRAY_BUFFER, places);
        attribute(gl, 0, 4, 4, 0, divisor);
        gl.bindBuffer(gl.ARRAY_BUFFER, tints);
        gl.enableVertexAttribArray(1);
        gl.vertexAttribIPointer(1, 1, gl.UNSIGNED_BYTE, 1, 0);
        gl.vertexAttribDivisor(1, divisor);
      });
    const made = {
      ...{ places, tints, points: array(0), quads: array(1) },
      ...{ revision: NaN, tintRevision: NaN, values: new Float32Array(0) },
    };
    held.set(key, made);
    return made;
  }

  return {
    upload({ key, revision, places, tints, tintRevision }: SpeckLayer): void {
      const one = held.get(shared(key)) ?? hold(shared(key));
      const another = one.revision !== revision;
      if (another) fillBuffer(gl, one.places, (one.values = places()));
      if (another || one.tintRevision !== tintRevision)
        fillBuffer(gl, one.tints, tints ?? new Uint8Array(one.values.length / 4), true);
      [one.revision, one.tintRevision] = [revision, tintRevision];
    },

    draw({ picture: { frame, style }, palette, size, pixel }: Drawing, layer: SpeckLayer): void {
      const one = held.get(shared(layer.key));
      const count = (one?.values.length ?? 0) / 4;
      if (!one || !count) return;
      gl.enable(gl.DEPTH_TEST);
      gl.depthFunc(gl.LEQUAL);
      gl.depthMask(true);
      gl.disable(gl.BLEND);
      const { extents: e, kind, near } = frame;
      /** World units of a pixel of the device where w is 1. */
      const perPixel = Math.abs(e.top - e.bottom) / (kind === 'perspective' ? near : 1) / size[1];
      const begin = ({ program, uniform }: Program) => {
        gl.useProgram(program);
        gl.uniformMatrix4fv(uniform('uViewProjection'), false, gpuMatrix(frame, layer.origin));
        gl.uniform3fv(uniform('uTintTones'), palette.tintTones.flat());
        gl.uniform1i(uniform('uRound'), layer.round ? 1 : 0);
        gl.uniform1i(uniform('uSeenOver'), style === 'main' ? 0 : 1);
        gl.uniform1f(uniform('uPerPixel'), perPixel);
        gl.uniform1f(uniform('uLeast'), leastPixels * pixel * (style === 'main' ? 1 : 1.5));
      };
      begin(points);
      // The picture with room round it for the half of a point; the scissor keeps to the picture.
      const [x, y, w, h] = gl.getParameter(gl.VIEWPORT) as Int32Array as unknown as [number, number, number, number];
      const room = Math.ceil(largest / 2);
      gl.viewport(x - room, y - room, w + 2 * room, h + 2 * room);
      gl.uniform2f(points.uniform('uShrink'), w / (w + 2 * room), h / (h + 2 * room));
      gl.uniform1f(points.uniform('uLargest'), largest);
      gl.bindVertexArray(one.points);
      gl.drawArrays(gl.POINTS, 0, count);
      gl.viewport(x, y, w, h);

      // The few that are wider than points can be: all in a drawing, those near the eye otherwise.
      const [ex, ey, ez] = sub(frame.eye, layer.origin);
      const [fx, fy, fz] = frame.forward;
      const { values } = one;
      let begun = false;
      for (let i = 0; i < values.length; i += 4) {
        const radius = values[i + 3]!;
        const w =
          kind === 'orthographic'
            ? 1
            : (values[i]! - ex) * fx + (values[i + 1]! - ey) * fy + (values[i + 2]! - ez) * fz;
        // What lies before near, and not so far before that nothing of it is left.
        if (2 * radius <= largest * perPixel * w || w < near - radius) continue;
        if (!begun) {
          begin(quads);
          gl.uniform3fv(quads.uniform('uRight'), [...frame.right]);
          gl.uniform3fv(quads.uniform('uUp'), [...frame.up]);
          gl.bindVertexArray(one.quads);
          begun = true;
        }
        gl.bindBuffer(gl.ARRAY_BUFFER, one.places);
        gl.vertexAttribPointer(0, 4, gl.FLOAT, false, 16, 4 * i);
        gl.bindBuffer(gl.ARRAY_BUFFER, one.tints);
        gl.vertexAttribIPointer(1, 1, gl.UNSIGNED_BYTE, 1, i / 4);
        gl.drawArraysInstanced(gl.TRIANGLE_FAN, 0, 4, 1);
      }
    },

    /** Lets go of what no picture shows any more. */
    keepOnly(keys: ReadonlySet<string>): void {
      letGo(held, new Set([...keys].map(shared)), ({ places, tints, points: a, quads: b }) => {
        gl.deleteVertexArray(a);
        gl.deleteVertexArray(b);
        gl.deleteBuffer(places);
        gl.deleteBuffer(tints);
      });
    },
  };
}
