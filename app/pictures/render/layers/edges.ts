import { quadIndices, quadsOf, quadStride, drawnEdges, drawnStride, type Scene } from '../../compose/scene';
import { lineMargin, linesInView, silhouettesBeyond } from '../../compose/visibleParts';
import type { Vec3 } from '../../../../core/math/vec3';
import type { Color } from '../../compose/palette';
import { lineFragment, lineVertex } from '../shaders';
import {
  attribute,
  blendOver,
  compile,
  defining,
  eyeAbout,
  fillBuffer,
  gazeAbout,
  gpuMatrix,
  vertexArray,
  type Drawing,
  type Program,
} from './gl';

/**
 * Strokes that lie on the water: scattered by a fixed sequence over a disc about the world's
 * origin.
 */
function strokes(radius: number, count: number): Float32Array {
  let seed = 11;
  const next = () => (seed = (seed * 16807) % 2147483647) / 2147483647;
  const out = new Float32Array(count * drawnStride);
  for (let i = 0; i < count; i++) {
    const [r, a] = [radius * Math.sqrt(next()), 2 * Math.PI * next()];
    out.set([r * Math.cos(a), 0, r * Math.sin(a), 0.5 + next()], i * drawnStride);
  }
  return out;
}
const strokeCount = 1100;

/** Returns the strokes on the water, spread as far as the grid says that the scene is large. */
export const waterStrokes = (hair: number): Float32Array => strokes(17 * 500 * hair, strokeCount);

/**
 * Lines drawn to a width: the edges of bodies that a view shows, those beyond the far limit, the
 * strokes on the water.
 */
export function edgeLayer(gl: WebGL2RenderingContext) {
  const names = ['aCorner', 'aStart', 'aEnd', 'aSilhouette', 'aFamily', 'aRank'];
  const plain = compile(gl, lineVertex, lineFragment, names);
  /** Takes depths by rank; made when a picture first wants it. */
  let ranked: Program | null = null;
  const indices = gl.createBuffer();
  let room = 0;
  const lineArray = (quads: WebGLBuffer) =>
    vertexArray(gl, () => {
      gl.bindBuffer(gl.ELEMENT_ARRAY_BUFFER, indices);
      gl.bindBuffer(gl.ARRAY_BUFFER, quads);
      [2, 3, 3, 1, 1, 1].reduce((offset, size, i) => {
        attribute(gl, i, size, quadStride, offset);
        return offset + size;
      }, 0);
    });
  const edgeBuffer = gl.createBuffer();
  const edgeArray = lineArray(edgeBuffer);
  const strokeBuffer = gl.createBuffer();
  const strokeArray = lineArray(strokeBuffer);
  let strewn = 0;
  let edges = 0;
  const beyondBuffer = gl.createBuffer();
  const beyondArray = lineArray(beyondBuffer);
  let beyond = 0;

  const lines = (
    d: Drawing,
    o: {
      /** 0 edges, 1 beyond the far limit, 2 strokes on the water. */
      kind: 0 | 1 | 2;
      color: Color;
      opacity: number;
      widths: readonly [number, number];
      family: number;
      array: WebGLVertexArrayObject;
      count: number;
      matrix: Float32Array;
      origin: Vec3;
    },
  ) => {
    const { picture } = d;
    const { frame } = picture;
    const byRank = d.ranks !== null && o.kind === 0;
    if (byRank) ranked ??= compile(gl, defining('PAINTED', lineVertex), defining('PAINTED', lineFragment), names);
    const program = byRank ? ranked! : plain;
    gl.useProgram(program.program);
    blendOver(gl);
    gl.uniformMatrix4fv(program.uniform('uViewProjection'), false, o.matrix);
    gl.uniform4fv(program.uniform('uEye'), eyeAbout(picture, o.origin));
    gl.uniform4fv(program.uniform('uGaze'), gazeAbout(frame, o.origin));
    gl.uniform2fv(program.uniform('uViewport'), [...d.size]);
    gl.uniform1f(program.uniform('uPixel'), d.pixel);
    gl.uniform2fv(program.uniform('uWidths'), [...o.widths]);
    gl.uniform1f(program.uniform('uNear'), frame.near);
    gl.uniform1i(program.uniform('uFamily'), o.family);
    gl.uniform1i(program.uniform('uKind'), o.kind);
    gl.uniform3fv(program.uniform('uAcross'), [...frame.right]);
    gl.uniform1f(program.uniform('uUnit'), 50 * d.hair);
    gl.uniform1f(program.uniform('uLift'), picture.flat ? picture.flat.step / 2 : 6 * d.hair);
    gl.uniform3fv(program.uniform('uColor'), [...o.color]);
    gl.uniform1f(program.uniform('uOpacity'), o.opacity);
    gl.uniform1f(program.uniform('uFar'), frame.far ?? 1e30);
    gl.uniform1f(program.uniform('uGround'), d.ground - d.hair);
    gl.bindVertexArray(o.array);
    if (o.count > room) {
      room = Math.max(o.count, 2 * room, 2048);
      gl.bufferData(gl.ELEMENT_ARRAY_BUFFER, quadIndices(room) as Uint32Array<ArrayBuffer>, gl.STATIC_DRAW);
    }
    gl.drawElements(gl.TRIANGLES, 6 * o.count, gl.UNSIGNED_INT, 0);
    gl.depthMask(true);
  };

  return {
    /** Chooses the edges that a picture shows. */
    choose(scene: Scene, d: Drawing): void {
      const { picture, ranks, origin, size, pixel, matrix } = d;
      const chosen = drawnEdges(scene.edges, eyeAbout(picture, origin), ranks?.bodies);
      const shown = linesInView(chosen, matrix, lineMargin(pixel, size));
      edges = shown.length / drawnStride;
      fillBuffer(gl, edgeBuffer, quadsOf(shown), true);
      const past =
        picture.style === 'main'
          ? silhouettesBeyond(shown, gazeAbout(picture.frame, origin), picture.frame.far)
          : shown.subarray(0, 0);
      beyond = past.length / drawnStride;
      if (beyond) fillBuffer(gl, beyondBuffer, quadsOf(past), true);
    },

    drawWater(d: Drawing): void {
      const { picture, palette } = d;
      if (picture.ground === null) return;
      if (d.hair !== strewn) fillBuffer(gl, strokeBuffer, quadsOf(waterStrokes((strewn = d.hair))));
      const origin: Vec3 = [0, picture.ground, 0];
      lines(d, {
        ...{ kind: 2, color: palette.teal, opacity: 0.3, widths: [1, 1], family: -1, array: strokeArray },
        ...{ count: strokeCount, matrix: gpuMatrix(picture.frame, origin), origin },
      });
    },

    draw(d: Drawing, family: number, dim: number): void {
      const widths = d.picture.style === 'main' ? ([0.95, 0.45] as const) : ([0.75, 0.35] as const);
      lines(d, {
        ...{ kind: 0, color: d.palette.ink, opacity: dim, widths, family, array: edgeArray, count: edges },
        ...{ matrix: d.matrix, origin: d.origin },
      });
    },

    /** The outlines of what lies past far, dotted: over everything, since nothing hides them. */
    drawBeyond(d: Drawing): void {
      if (!beyond) return;
      const { frame } = d.picture;
      lines(d, {
        ...{
          kind: 1,
          color: d.palette.ink2,
          opacity: 1,
          widths: [0.9, 0],
          family: -1,
          array: beyondArray,
          count: beyond,
        },
        ...{ matrix: gpuMatrix(frame, d.origin, true), origin: d.origin },
      });
    },
  };
}
