import { horizonLine } from '../../core/order/horizon';
import { projectionMatrix, type CameraFrame } from '../../core/camera/frame';
import { mat4, multiply, type Mat4 } from '../../core/math/mat4';
import { dot, negate, sub, type Vec3 } from '../../core/math/vec3';
import type { Tiles } from '../../formats/project';
import { roundLength } from './drawings';
import type { Color, Palette } from './palette';
import { drawnEdges, drawnStride, faceStride, quadIndices, quadsOf, quadStride, type SceneBuffers } from './scene';
import {
  chartFragment,
  faceFragment,
  faceVertex,
  groundFragment,
  groundVertex,
  lineFragment,
  lineVertex,
  pointFragment,
  pointVertex,
} from './shaders';

/** One picture on the canvas: where, seen by which frame, drawn how. */
export interface Picture {
  /** In CSS pixels from the canvas's top left corner. */
  readonly rect: { readonly x: number; readonly y: number; readonly width: number; readonly height: number };
  readonly frame: CameraFrame;
  readonly style: 'main' | 'plan' | 'section';
  /** A flat world: its ground is a map of tiles, if it has one. */
  readonly flat?: { readonly tiles: Tiles | null };
  readonly ground: number | null;
  /** The family that stands in front of the rest, at full strength; the rest is dimmed. */
  readonly emphasis: number | null;
  readonly light: Vec3;
}

interface Program {
  readonly program: WebGLProgram;
  readonly uniform: (name: string) => WebGLUniformLocation | null;
}

function compile(gl: WebGL2RenderingContext, vertex: string, fragment: string, attributes: readonly string[]): Program {
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

/** The inside to the GPU: NDC depth −1 to 1, positions relative to `origin`, columns after one another in singles. */
function gpuMatrix(frame: CameraFrame, origin: Vec3, beyondFar: boolean): Float32Array {
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

/** Strokes that lie on the water: one set for all pictures, scattered by a fixed sequence over a disc of the given radius. */
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

/** Draws any number of pictures of one scene on one WebGL2 canvas, each a scissored rectangle seen by its own frame. */
export class Renderer {
  private readonly gl: WebGL2RenderingContext;
  private faces!: Program;
  private lines!: Program;
  private points!: Program;
  private grounds!: Partial<Record<Picture['style'], Program>>;
  private chart!: Program;
  private tileTexture!: WebGLTexture;
  private tiles: Tiles | null = null;
  private faceArray!: WebGLVertexArrayObject;
  private edgeArray!: WebGLVertexArrayObject;
  private strokeArray!: WebGLVertexArrayObject;
  private groundArray!: WebGLVertexArrayObject;
  private faceBuffer!: WebGLBuffer;
  private edgeBuffer!: WebGLBuffer;
  /** The triangles of quads, and of how many: shared by all that is drawn as lines. */
  private quadBuffer!: WebGLBuffer;
  private quadRoom = 0;
  private pointArray!: WebGLVertexArrayObject;
  private pointBuffer!: WebGLBuffer;
  private scene: SceneBuffers | null = null;
  /** What stands on the canvas: a picture that has not changed is not drawn again. */
  private drawn: readonly string[] = [];
  /** Whether all pictures have been drawn once. */
  private begun = false;
  /** Signalled when the GPU has done what it was last given. */
  private done: WebGLSync | null = null;
  private readonly names = new WeakMap<object, number>();
  private lastName = 0;
  private readonly strokeCount = 1100;

  /** `onRestored` is called when what the GPU had forgotten is there again and is to be drawn. */
  constructor(
    private readonly canvas: OffscreenCanvas,
    onRestored: () => void,
  ) {
    const gl = canvas.getContext('webgl2', { antialias: false, alpha: false, preserveDrawingBuffer: true });
    if (!gl) throw new Error('WebGL2 is not to be had in this browser');
    this.gl = gl;
    this.build();
    canvas.addEventListener('webglcontextlost', (event) => event.preventDefault());
    canvas.addEventListener('webglcontextrestored', () => {
      this.build();
      const { scene } = this;
      this.scene = null;
      if (scene) this.setScene(scene);
      onRestored();
    });
  }

  private build(): void {
    const { gl } = this;
    this.faces = compile(gl, faceVertex, faceFragment, ['aPosition', 'aNormal', 'aTone', 'aFamily']);
    this.lines = compile(gl, lineVertex, lineFragment, ['aCorner', 'aStart', 'aEnd', 'aSilhouette', 'aFamily']);
    this.points = compile(gl, pointVertex, pointFragment, ['aPosition']);
    this.grounds = {};
    this.chart = compile(gl, groundVertex, chartFragment, ['aCorner']);
    this.tileTexture = gl.createTexture();
    this.tiles = null;

    const attribute = (index: number, size: number, stride: number, offset: number) => {
      gl.enableVertexAttribArray(index);
      gl.vertexAttribPointer(index, size, gl.FLOAT, false, stride * 4, offset * 4);
    };
    const buffer = (data?: Float32Array) => {
      const made = gl.createBuffer();
      gl.bindBuffer(gl.ARRAY_BUFFER, made);
      if (data) gl.bufferData(gl.ARRAY_BUFFER, data as Float32Array<ArrayBuffer>, gl.STATIC_DRAW);
      return made;
    };
    const array = (fill: () => void) => {
      const made = gl.createVertexArray();
      gl.bindVertexArray(made);
      fill();
      return made;
    };
    this.quadBuffer = gl.createBuffer();
    this.quadRoom = 0;
    const lineArray = (quads: WebGLBuffer) =>
      array(() => {
        gl.bindBuffer(gl.ELEMENT_ARRAY_BUFFER, this.quadBuffer);
        gl.bindBuffer(gl.ARRAY_BUFFER, quads);
        [2, 3, 3, 1, 1].reduce((offset, size, i) => {
          attribute(i, size, quadStride, offset);
          return offset + size;
        }, 0);
      });

    this.faceBuffer = buffer();
    this.faceArray = array(() => {
      gl.bindBuffer(gl.ARRAY_BUFFER, this.faceBuffer);
      attribute(0, 3, faceStride, 0);
      attribute(1, 3, faceStride, 3);
      attribute(2, 1, faceStride, 6);
      attribute(3, 1, faceStride, 7);
    });
    this.edgeBuffer = buffer();
    this.edgeArray = lineArray(this.edgeBuffer);
    this.pointBuffer = buffer();
    this.pointArray = array(() => {
      gl.bindBuffer(gl.ARRAY_BUFFER, this.pointBuffer);
      attribute(0, 3, 3, 0);
    });
    this.strokeArray = lineArray(buffer(quadsOf(strokes(170, this.strokeCount))));
    this.groundArray = array(() => {
      buffer(new Float32Array([-1, -1, 1, -1, -1, 1, 1, 1]));
      attribute(0, 2, 2, 0);
    });
    gl.bindVertexArray(null);
  }

  setScene(scene: SceneBuffers): void {
    if (scene === this.scene) return;
    const { gl } = this;
    this.scene = scene;
    gl.bindBuffer(gl.ARRAY_BUFFER, this.faceBuffer);
    gl.bufferData(gl.ARRAY_BUFFER, scene.faces as Float32Array<ArrayBuffer>, gl.STATIC_DRAW);
    gl.bindBuffer(gl.ARRAY_BUFFER, this.pointBuffer);
    gl.bufferData(gl.ARRAY_BUFFER, scene.points as Float32Array<ArrayBuffer>, gl.STATIC_DRAW);
    this.drawn = [];
  }

  /**
   * Whether the GPU has done what it was last given. Given more before that, a slow one would have the whole browser wait for pictures that are overtaken when they are shown.
   */
  get ready(): boolean {
    const { gl, done } = this;
    if (!done) return true;
    if (gl.getSyncParameter(done, gl.SYNC_STATUS) !== gl.SIGNALED && !gl.isContextLost()) return false;
    gl.deleteSync(done);
    this.done = null;
    return true;
  }

  /**
   * Draws the pictures; `size` is the canvas in CSS pixels, `pixel` how many device pixels one of them is. The first time it is one picture a call, since the GPU has everything to
   * make ready and the page is waiting to be shown: false while there are more.
   */
  draw(
    pictures: readonly Picture[],
    palette: Palette,
    size: { width: number; height: number },
    pixel: number,
  ): boolean {
    const { gl, canvas, scene } = this;
    const [width, height] = [Math.round(size.width * pixel), Math.round(size.height * pixel)];
    if (canvas.width !== width || canvas.height !== height) {
      [canvas.width, canvas.height] = [width, height];
      this.drawn = [];
    }
    if (!scene) return true;
    const page = [width, height, this.nameOf(palette)].join();
    const keys = pictures.map((one) => this.keyOf(one, page));
    const same =
      keys.length === this.drawn.length && keys.every((key, i) => key.split('|')[0] === this.drawn[i]!.split('|')[0]);
    if (!same) {
      gl.disable(gl.SCISSOR_TEST);
      gl.clearColor(...palette.page, 1);
      gl.clear(gl.COLOR_BUFFER_BIT);
    }
    gl.enable(gl.SCISSOR_TEST);
    const due = pictures.flatMap((_, i) => (same && keys[i] === this.drawn[i] ? [] : [i]));
    const now = this.begun ? due : due.slice(0, 1);
    for (const i of now) {
      const picture = pictures[i]!;
      const { rect } = picture;
      const [x, y] = [Math.round(rect.x * pixel), Math.round((size.height - rect.y - rect.height) * pixel)];
      const [w, h] = [Math.round(rect.width * pixel), Math.round(rect.height * pixel)];
      if (w <= 0 || h <= 0) continue;
      gl.viewport(x, y, w, h);
      gl.scissor(x, y, w, h);
      this.drawOne(picture, palette, scene, [w, h], pixel);
    }
    // What is still to come has its place and shows nothing yet.
    this.drawn = keys.map((key, i) => (due.includes(i) && !now.includes(i) ? `${key.split('|')[0]}|` : key));
    const whole = now.length === due.length;
    this.begun ||= whole;
    if (!same || now.length) {
      this.done = gl.fenceSync(gl.SYNC_GPU_COMMANDS_COMPLETE, 0);
      gl.flush();
    }
    return whole;
  }

  /** A number that stands for an object for as long as it is the same one. */
  private nameOf(value: object): number {
    let name = this.names.get(value);
    if (name === undefined) this.names.set(value, (name = ++this.lastName));
    return name;
  }

  /** Where a picture stands, then what it shows. */
  private keyOf({ rect, frame, style, flat, ground, emphasis, light }: Picture, page: string): string {
    return `${page},${style},${Object.values(rect).join()}|${frame.serial},${ground},${emphasis},${light.join()},${flat?.tiles ? this.nameOf(flat.tiles) : ''}`;
  }

  private drawOne(
    picture: Picture,
    palette: Palette,
    scene: SceneBuffers,
    size: readonly [number, number],
    pixel: number,
  ): void {
    const { gl } = this;
    const { frame, emphasis } = picture;
    gl.clear(gl.DEPTH_BUFFER_BIT);
    gl.disable(gl.DEPTH_TEST);
    gl.disable(gl.BLEND);
    if (picture.flat) this.drawChart(picture, picture.flat.tiles, palette, size, pixel);
    else this.drawGround(picture, palette, scene, size, pixel);

    const far = frame.far ?? 1e30;
    const matrix = gpuMatrix(frame, scene.origin, false);
    const ground = picture.ground === null ? -1e30 : picture.ground - scene.origin[1];
    if (picture.style === 'main' && picture.ground !== null)
      this.drawLines(picture, matrix, scene, size, pixel, {
        kind: 2,
        color: palette.teal,
        opacity: 0.3,
        widths: [1, 1],
        family: -1,
        far,
        ground,
        array: this.strokeArray,
        count: this.strokeCount,
      });
    const chosen = drawnEdges(scene.edges, this.eyeUniform(picture, scene));
    const edges = chosen.length / drawnStride;
    gl.bindBuffer(gl.ARRAY_BUFFER, this.edgeBuffer);
    gl.bufferData(gl.ARRAY_BUFFER, quadsOf(chosen) as Float32Array<ArrayBuffer>, gl.DYNAMIC_DRAW);
    const widths: [number, number] = picture.style === 'main' ? [0.95, 0.45] : [0.75, 0.35];
    const layers =
      emphasis === null
        ? [{ family: -1, dim: 1 }]
        : [
            { family: -1, dim: 0.4 },
            { family: emphasis, dim: 1 },
          ];
    for (const { family, dim } of layers) {
      if (family >= 0) gl.clear(gl.DEPTH_BUFFER_BIT);
      gl.enable(gl.DEPTH_TEST);
      gl.depthFunc(gl.LEQUAL);
      gl.disable(gl.BLEND);
      this.drawFaces(picture, matrix, palette, scene, pixel, ground, family, dim);
      this.drawLines(picture, matrix, scene, size, pixel, {
        kind: 0,
        color: palette.ink,
        opacity: dim,
        widths,
        family,
        far,
        ground,
        array: this.edgeArray,
        count: edges,
      });
    }
    this.drawPoints(picture, matrix, palette, scene, pixel);
    if (picture.style === 'main' && frame.far !== null && !picture.flat)
      this.drawLines(picture, gpuMatrix(frame, scene.origin, true), scene, size, pixel, {
        kind: 1,
        color: palette.ink2,
        opacity: 1,
        widths: [0.9, 0],
        family: -1,
        far,
        ground,
        array: this.edgeArray,
        count: edges,
      });
  }

  /** The eye, or the direction to it, as the shaders take it. */
  private eyeUniform({ frame }: Picture, scene: SceneBuffers): [number, number, number, number] {
    return frame.kind === 'perspective' ? [...sub(frame.eye, scene.origin), 1] : [...negate(frame.forward), 0];
  }

  private drawFaces(
    picture: Picture,
    matrix: Float32Array,
    palette: Palette,
    scene: SceneBuffers,
    pixel: number,
    ground: number,
    family: number,
    dim: number,
  ): void {
    const { gl, faces } = this;
    gl.useProgram(faces.program);
    gl.uniformMatrix4fv(faces.uniform('uViewProjection'), false, matrix);
    gl.uniform4fv(faces.uniform('uEye'), this.eyeUniform(picture, scene));
    gl.uniform3fv(faces.uniform('uLight'), [...picture.light]);
    gl.uniform3fv(faces.uniform('uTones'), palette.tones.flat());
    gl.uniform3fv(faces.uniform('uInk'), [...palette.ink]);
    gl.uniform3fv(faces.uniform('uPaper'), [...palette.plate]);
    gl.uniform1f(faces.uniform('uGround'), ground);
    gl.uniform1f(faces.uniform('uPixel'), pixel);
    gl.uniform1i(faces.uniform('uFamily'), family);
    gl.uniform1f(faces.uniform('uDim'), dim);
    gl.uniform1i(faces.uniform('uHatch'), picture.style === 'main' ? 1 : 0);
    gl.bindVertexArray(this.faceArray);
    gl.drawArrays(gl.TRIANGLES, 0, scene.faces.length / faceStride);
  }

  private drawPoints(
    picture: Picture,
    matrix: Float32Array,
    palette: Palette,
    scene: SceneBuffers,
    pixel: number,
  ): void {
    const count = scene.points.length / 3;
    if (!count) return;
    const { gl, points } = this;
    const { frame, style } = picture;
    gl.useProgram(points.program);
    gl.enable(gl.DEPTH_TEST);
    gl.depthFunc(gl.LEQUAL);
    gl.depthMask(false);
    gl.enable(gl.BLEND);
    gl.blendFunc(gl.SRC_ALPHA, gl.ONE_MINUS_SRC_ALPHA);
    gl.uniformMatrix4fv(points.uniform('uViewProjection'), false, matrix);
    gl.uniform4fv(points.uniform('uGaze'), [...frame.forward, -dot(frame.forward, sub(frame.eye, scene.origin))]);
    gl.uniform3fv(points.uniform('uColor'), [...palette.ink]);
    gl.uniform3fv(points.uniform('uPaper'), [...palette.plate]);
    gl.uniform1f(points.uniform('uFar'), frame.far ?? 1e30);
    // Where there are many they are smaller, so that they stay apart.
    const share = count > 5000 ? 0.6 : count > 300 ? 0.75 : 1;
    gl.uniform1f(points.uniform('uSize'), (style === 'main' ? 9 : 6) * share * pixel);
    gl.uniform1f(points.uniform('uPixel'), pixel);
    gl.bindVertexArray(this.pointArray);
    gl.drawArrays(gl.POINTS, 0, count);
    gl.depthMask(true);
  }

  private drawLines(
    picture: Picture,
    matrix: Float32Array,
    scene: SceneBuffers,
    size: readonly [number, number],
    pixel: number,
    o: {
      kind: 0 | 1 | 2;
      color: Color;
      opacity: number;
      widths: [number, number];
      family: number;
      far: number;
      ground: number;
      array: WebGLVertexArrayObject;
      count: number;
    },
  ): void {
    const { gl, lines } = this;
    const { frame } = picture;
    gl.useProgram(lines.program);
    gl.enable(gl.DEPTH_TEST);
    gl.depthFunc(gl.LEQUAL);
    gl.depthMask(false);
    gl.enable(gl.BLEND);
    gl.blendFunc(gl.SRC_ALPHA, gl.ONE_MINUS_SRC_ALPHA);
    const eye = o.kind === 2 ? sub(frame.eye, [0, picture.ground ?? 0, 0]) : sub(frame.eye, scene.origin);
    // Strokes are scattered about the world's origin on the ground, not about the scene's.
    const shown = o.kind === 2 ? gpuMatrix(frame, [0, picture.ground ?? 0, 0], false) : matrix;
    gl.uniformMatrix4fv(lines.uniform('uViewProjection'), false, shown);
    gl.uniform4fv(lines.uniform('uEye'), frame.kind === 'perspective' ? [...eye, 1] : [...negate(frame.forward), 0]);
    gl.uniform4fv(lines.uniform('uGaze'), [...frame.forward, -dot(frame.forward, eye)]);
    gl.uniform2fv(lines.uniform('uViewport'), [...size]);
    gl.uniform1f(lines.uniform('uPixel'), pixel);
    gl.uniform2fv(lines.uniform('uWidths'), o.widths);
    gl.uniform1f(lines.uniform('uNear'), frame.near);
    gl.uniform1i(lines.uniform('uFamily'), o.family);
    gl.uniform1i(lines.uniform('uKind'), o.kind);
    gl.uniform3fv(lines.uniform('uAcross'), [...frame.right]);
    gl.uniform1f(lines.uniform('uLift'), picture.flat ? scene.step / 2 : 0.12);
    gl.uniform3fv(lines.uniform('uColor'), [...o.color]);
    gl.uniform1f(lines.uniform('uOpacity'), o.opacity);
    gl.uniform1f(lines.uniform('uFar'), o.far);
    gl.uniform1f(lines.uniform('uGround'), o.ground);
    gl.bindVertexArray(o.array);
    if (o.count > this.quadRoom) {
      this.quadRoom = Math.max(o.count, 2 * this.quadRoom, 2048);
      gl.bufferData(gl.ELEMENT_ARRAY_BUFFER, quadIndices(this.quadRoom) as Uint32Array<ArrayBuffer>, gl.STATIC_DRAW);
    }
    gl.drawElements(gl.TRIANGLES, 6 * o.count, gl.UNSIGNED_INT, 0);
    gl.depthMask(true);
  }

  /** The tones of a map as a texture, made when the map is another. */
  private setTiles(tiles: Tiles): void {
    if (this.tiles === tiles) return;
    this.tiles = tiles;
    const { gl } = this;
    const { bands, values, columns } = tiles;
    const tones = Uint8Array.from(values, (v) => (v === null ? 255 : bands.filter((band) => v >= band).length));
    gl.bindTexture(gl.TEXTURE_2D, this.tileTexture);
    gl.pixelStorei(gl.UNPACK_ALIGNMENT, 1);
    gl.texImage2D(
      gl.TEXTURE_2D,
      0,
      gl.R8UI,
      columns,
      values.length / columns,
      0,
      gl.RED_INTEGER,
      gl.UNSIGNED_BYTE,
      tones,
    );
    for (const filter of [gl.TEXTURE_MIN_FILTER, gl.TEXTURE_MAG_FILTER])
      gl.texParameteri(gl.TEXTURE_2D, filter, gl.NEAREST);
  }

  private drawChart(
    { frame, style }: Picture,
    tiles: Tiles | null,
    palette: Palette,
    size: readonly [number, number],
    pixel: number,
  ): void {
    const { gl, chart } = this;
    if (tiles) this.setTiles(tiles);
    const { extents: e, eye, right, up } = frame;
    const [width, height] = [e.right - e.left, e.top - e.bottom];
    const [x, y] = tiles?.corner ?? [0, 0];
    const perPixel = height / size[1];
    gl.useProgram(chart.program);
    gl.bindTexture(gl.TEXTURE_2D, this.tileTexture);
    gl.uniform2f(chart.uniform('uMiddle'), eye[0] - x, eye[1] - y);
    gl.uniform2f(chart.uniform('uRight'), (right[0] * width) / 2, (right[1] * width) / 2);
    gl.uniform2f(chart.uniform('uUp'), (up[0] * height) / 2, (up[1] * height) / 2);
    gl.uniform1f(chart.uniform('uTile'), tiles?.size ?? 1);
    gl.uniform1f(chart.uniform('uUnitsPerPixel'), perPixel);
    gl.uniform1f(chart.uniform('uPixel'), pixel);
    gl.uniform1f(chart.uniform('uGridStep'), roundLength(perPixel * pixel * (style === 'main' ? 40 : 30)));
    gl.uniform2i(chart.uniform('uCount'), tiles?.columns ?? 0, tiles ? tiles.values.length / tiles.columns : 0);
    gl.uniform1i(chart.uniform('uLast'), tiles?.bands.length ?? 0);
    for (const [name, color] of [
      ['uPlate', palette.sky],
      ['uWater', palette.water],
      ['uGrid', palette.grid],
      ['uRule', palette.rule],
      ['uLand', palette.tones[1]!],
      ['uInk', palette.ink],
    ] as const)
      gl.uniform3fv(chart.uniform(name), [...color]);
    gl.bindVertexArray(this.groundArray);
    gl.drawArrays(gl.TRIANGLE_STRIP, 0, 4);
  }

  private drawGround(
    picture: Picture,
    palette: Palette,
    scene: SceneBuffers,
    size: readonly [number, number],
    pixel: number,
  ): void {
    const { gl } = this;
    const { frame, style } = picture;
    const ground = (this.grounds[style] ??= compile(gl, groundVertex, groundFragment(style), ['aCorner']));
    const { extents: e } = frame;
    const perspective = frame.kind === 'perspective';
    const k = perspective ? 1 / frame.near : 1;
    const relative = sub(frame.eye, scene.origin);
    gl.useProgram(ground.program);
    gl.uniform4f(
      ground.uniform('uExtents'),
      ((e.right - e.left) / 2) * k,
      ((e.right + e.left) / 2) * k,
      ((e.top - e.bottom) / 2) * k,
      ((e.top + e.bottom) / 2) * k,
    );
    gl.uniform3fv(ground.uniform('uRight'), [...frame.right]);
    gl.uniform3fv(ground.uniform('uUp'), [...frame.up]);
    gl.uniform3fv(ground.uniform('uForward'), [...frame.forward]);
    gl.uniform3fv(ground.uniform('uEyePoint'), [...relative]);
    gl.uniform1i(ground.uniform('uPerspective'), perspective ? 1 : 0);
    gl.uniform1f(ground.uniform('uGround'), (picture.ground ?? 0) - scene.origin[1]);
    gl.uniform1i(ground.uniform('uHasGround'), picture.ground === null ? 0 : 1);
    gl.uniform1f(ground.uniform('uFar'), style === 'main' && frame.far !== null ? frame.far : 1e30);
    gl.uniform1f(ground.uniform('uPixel'), pixel);
    const line = horizonLine(frame, [0, 1, 0]);
    if (line) {
      // The line's value divided by its slope per device pixel is a distance in device pixels.
      const slope = Math.hypot((line.across * 2) / size[0], (line.upward * 2) / size[1]) || 1;
      gl.uniform3f(ground.uniform('uHorizon'), line.constant / slope, line.across / slope, line.upward / slope);
    } else gl.uniform3f(ground.uniform('uHorizon'), 1e6, 0, 0);
    for (const [name, color] of [
      ['uSky', palette.sky],
      ['uWater', palette.water],
      ['uBeyond', palette.beyond],
      ['uGrid', palette.grid],
      ['uRule', palette.rule],
    ] as const)
      gl.uniform3fv(ground.uniform(name), [...color]);
    gl.uniform2f(ground.uniform('uGridOrigin'), scene.origin[0], scene.origin[2]);
    const blocks = scene.footprints.slice(0, 16);
    gl.uniform1i(ground.uniform('uBlockCount'), blocks.length);
    if (blocks.length) {
      gl.uniform4fv(
        ground.uniform('uBlocks'),
        blocks.flatMap((b) => b.slice(0, 4)),
      );
      gl.uniform2fv(
        ground.uniform('uTurns'),
        blocks.flatMap((b) => b.slice(4, 6)),
      );
    }
    gl.uniform1f(ground.uniform('uUnitsPerPixel'), (e.top - e.bottom) / size[1]);
    gl.bindVertexArray(this.groundArray);
    gl.drawArrays(gl.TRIANGLE_STRIP, 0, 4);
  }
}
