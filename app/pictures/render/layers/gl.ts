import { projectionMatrix, type CameraFrame } from '../../../../core/camera/frame';
import { mat4, multiply, type Mat4 } from '../../../../core/math/mat4';
import { dot, negate, sub, type Vec3 } from '../../../../core/math/vec3';
import type { Palette } from '../../compose/palette';
import type { Picture } from '../../compose/picture';

/* What the layers of the renderer share. */

export interface Program {
  readonly program: WebGLProgram;
  readonly uniform: (name: string) => WebGLUniformLocation | null;
}

/**
 * A program from its sources, its attributes in the order of their names. A lost context gives one
 * that draws nothing.
 */
export function compile(
  gl: WebGL2RenderingContext,
  vertex: string,
  fragment: string,
  attributes: readonly string[],
): Program {
  const program = gl.createProgram();
  for (const [type, source] of [
    [gl.VERTEX_SHADER, vertex],
    [gl.FRAGMENT_SHADER, fragment],
  ] as const) {
    const shader = gl.createShader(type)!;
    gl.shaderSource(shader, source);
    gl.compileShader(shader);
    if (!gl.getShaderParameter(shader, gl.COMPILE_STATUS) && !gl.isContextLost())
      throw new Error(gl.getShaderInfoLog(shader) ?? 'shader');
    gl.attachShader(program, shader);
  }
  attributes.forEach((name, i) => gl.bindAttribLocation(program, i, name));
  gl.linkProgram(program);
  if (!gl.getProgramParameter(program, gl.LINK_STATUS) && !gl.isContextLost())
    throw new Error(gl.getProgramInfoLog(program) ?? 'link');
  const known = new Map<string, WebGLUniformLocation | null>();
  return {
    program,
    uniform: (name) => {
      if (!known.has(name)) known.set(name, gl.getUniformLocation(program, name));
      return known.get(name)!;
    },
  };
}

/** A shader's source with a word defined in it: what stands between `#ifdef` and `#endif` counts. */
export const defining = (word: string, source: string): string =>
  source.replace('#version 300 es\n', `#version 300 es\n#define ${word}\n`);

/** One attribute of singles in the buffer that is bound. */
export function attribute(
  gl: WebGL2RenderingContext,
  index: number,
  size: number,
  stride: number,
  offset: number,
  divisor = 0,
): void {
  gl.enableVertexAttribArray(index);
  gl.vertexAttribPointer(index, size, gl.FLOAT, false, stride * 4, offset * 4);
  gl.vertexAttribDivisor(index, divisor);
}

/** An array of vertices, as `fill` lays it out. */
export function vertexArray(gl: WebGL2RenderingContext, fill: () => void): WebGLVertexArrayObject {
  const made = gl.createVertexArray();
  gl.bindVertexArray(made);
  fill();
  gl.bindVertexArray(null);
  return made;
}

/** Puts singles into a buffer. */
export function fillBuffer(
  gl: WebGL2RenderingContext,
  buffer: WebGLBuffer,
  data: ArrayBufferView,
  often = false,
): void {
  gl.bindBuffer(gl.ARRAY_BUFFER, buffer);
  gl.bufferData(gl.ARRAY_BUFFER, data as Float32Array<ArrayBuffer>, often ? gl.DYNAMIC_DRAW : gl.STATIC_DRAW);
}

/**
 * Canonical space to the GPU: NDC depth −1 to 1, places relative to `origin`, columns after one
 * another in singles.
 */
export function gpuMatrix(frame: CameraFrame, origin: Vec3, beyondFar = false): Float32Array {
  const lens = beyondFar && frame.kind === 'perspective' ? { ...frame, far: null } : frame;
  const d = sub(origin, frame.eye);
  const view: Mat4 = mat4([
    ...[...frame.right, dot(frame.right, d)],
    ...[...frame.up, dot(frame.up, d)],
    ...[...frame.forward, dot(frame.forward, d)],
    ...[0, 0, 0, 1],
  ]);
  const m = multiply(projectionMatrix(lens, -1, 1), view);
  return new Float32Array([0, 1, 2, 3].flatMap((column) => [0, 1, 2, 3].map((row) => m[4 * row + column]!)));
}

/** The eye about an origin with 1 behind it, or the direction to it with 0. */
export const eyeAbout = ({ frame }: Pick<Picture, 'frame'>, origin: Vec3): [number, number, number, number] =>
  frame.kind === 'perspective' ? [...sub(frame.eye, origin), 1] : [...negate(frame.forward), 0];

/** The gaze with minus its product with the eye about an origin: how far ahead a place is. */
export const gazeAbout = ({ forward, eye }: CameraFrame, origin: Vec3): [number, number, number, number] => [
  ...forward,
  -dot(forward, sub(eye, origin)),
];

/** What every layer of a picture is drawn with. */
export interface Drawing {
  readonly picture: Picture;
  readonly palette: Palette;
  /** The middle of the scene, that places are about. */
  readonly origin: Vec3;
  readonly matrix: Float32Array;
  /** The picture in device pixels, and how many of them a pixel of the page is. */
  readonly size: readonly [number, number];
  readonly pixel: number;
  /** The height of the ground about the origin; far below without one. */
  readonly ground: number;
  /** What a small length is in this scene: a five-hundredth of the ground's grid. */
  readonly hair: number;
  /** What stands for depth where the picture is painted in an order. */
  readonly ranks: RankDepths | null;
}

/** Depths that put what is painted later before what is painted earlier. */
export interface RankDepths {
  readonly triangles: Float32Array;
  /** Of each body the nearest of its triangles. */
  readonly bodies: Float32Array;
}

/** Blended over what is there, hidden by what is nearer. */
export function blendOver(gl: WebGL2RenderingContext): void {
  gl.enable(gl.DEPTH_TEST);
  gl.depthFunc(gl.LEQUAL);
  gl.depthMask(false);
  gl.enable(gl.BLEND);
  gl.blendFunc(gl.SRC_ALPHA, gl.ONE_MINUS_SRC_ALPHA);
}

/** Lets go of what is held for layers that no picture shows any more. */
export function letGo<H>(held: Map<string, H>, keys: ReadonlySet<string>, free: (one: H) => void): void {
  for (const [key, one] of held)
    if (!keys.has(key)) {
      free(one);
      held.delete(key);
    }
}
