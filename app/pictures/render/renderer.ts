import type { Picture } from '../compose/picture';
import type { GpuLayer, Size } from '../compose/contract';
import { angleLayer } from './layers/angles';
import { edgeLayer } from './layers/edges';
import { faceLayer } from './layers/faces';
import { fieldLayers } from './layers/field';
import { gpuMatrix, type Drawing, type RankDepths } from './layers/gl';
import { groundLayer } from './layers/ground';
import { instanceLayers } from './layers/instances';
import { pointLayer } from './layers/points';
import { createImageTextures } from './layers/imageTextures';
import { lineLayers } from './layers/segments';
import { speckLayers } from './layers/specks';
import { triangleLayers } from './layers/triangles';
import type { Palette } from '../compose/palette';
import type { Scene } from '../compose/scene';
import { passesOf, type Ground, type Surfaces } from './surfaces';
import { rankDepths } from './rankDepths';

type Layers = ReturnType<typeof makeLayers>;
function makeLayers(gl: WebGL2RenderingContext) {
  const images = createImageTextures(gl);
  return {
    images,
    ground: groundLayer(gl, images),
    faces: faceLayer(gl, images),
    edges: edgeLayer(gl),
    points: pointLayer(gl),
  };
}
type TaskLayers = ReturnType<typeof makeTaskLayers>;
const makeTaskLayers = (gl: WebGL2RenderingContext) => ({
  instances: instanceLayers(gl),
  specks: speckLayers(gl),
  triangles: triangleLayers(gl),
  lines: lineLayers(gl),
  field: fieldLayers(gl),
});

/** A canvas of the page, or one that a thread draws on. */
export type AnyCanvas = OffscreenCanvas | HTMLCanvasElement;

/** Rows of pixels that are read at once. */
const stripHeight = 256;

/** Milliseconds for which a lost context is waited for in silence. */
const patience = 3000;

/**
 * Draws any number of pictures of one scene on one WebGL2 canvas, each a scissored rectangle seen
 * by its own frame.
 */
export class Renderer implements Surfaces {
  private readonly gl: WebGL2RenderingContext;
  private layers!: Layers;
  /** Made when a task first has layers of its own. */
  private ofTasks: TaskLayers | null = null;
  /** What stands on the canvas: a picture that has not changed is not drawn again. */
  private drawn: readonly string[] = [];
  /** The pictures that have been drawn once: until all have, one a call is drawn that has not. */
  private readonly once = new Set<string>();
  private begun = false;
  /** Where pictures are drawn that are not to stand on the canvas. */
  private surface: WebGLFramebuffer | null = null;
  /** Signalled when the GPU has done what it was last given. */
  private done: WebGLSync | null = null;
  /** Made when a picture of equal angles is first shown. */
  private angles: ReturnType<typeof angleLayer> | null = null;
  private ranks: { readonly order: Int32Array; readonly mesh: number; readonly depths: RankDepths | null } | null =
    null;
  private readonly names = new WeakMap<object, number>();
  private lastName = 0;

  /** `onRestored` is called when what the GPU had forgotten is there again and is to be drawn. */
  constructor(
    private readonly canvas: AnyCanvas,
    onRestored: () => void,
    /** Told when what was lost has not come back in a while, and null when it has. */
    onGone: (message: string | null) => void,
  ) {
    const gl = canvas.getContext('webgl2', {
      antialias: false,
      alpha: false,
      preserveDrawingBuffer: true,
      stencil: true,
    }) as WebGL2RenderingContext | null;
    if (!gl) throw new Error('This browser has no WebGL2.');
    this.gl = gl;
    this.build();
    let missed: ReturnType<typeof setTimeout> | undefined;
    canvas.addEventListener('webglcontextlost', (event) => {
      event.preventDefault();
      missed = setTimeout(
        () =>
          onGone('The browser took the GPU away and has not given it back. Reload the page to have pictures again.'),
        patience,
      );
    });
    canvas.addEventListener('webglcontextrestored', () => {
      clearTimeout(missed);
      onGone(null);
      this.build();
      onRestored();
    });
  }

  /**
   * Draws pictures once, apart from the canvas: larger ones than a canvas may be in this browser. The
   * pixels, or null where the GPU holds no picture of such a size. What stands on the canvas is drawn
   * anew after it.
   */
  print(
    scene: Scene,
    ground: Ground,
    pictures: readonly Picture[],
    palette: Palette,
    size: Size,
    pixel: number,
  ): OffscreenCanvas | null {
    const { gl } = this;
    const [width, height] = [Math.round(size.width * pixel), Math.round(size.height * pixel)];
    if (gl.isContextLost() || Math.max(width, height) > gl.getParameter(gl.MAX_RENDERBUFFER_SIZE)) return null;
    const [surface, colours, depths] = [gl.createFramebuffer(), gl.createRenderbuffer(), gl.createRenderbuffer()];
    gl.bindFramebuffer(gl.FRAMEBUFFER, surface);
    for (const [buffer, format, place] of [
      [colours, gl.RGBA8, gl.COLOR_ATTACHMENT0],
      [depths, gl.DEPTH24_STENCIL8, gl.DEPTH_STENCIL_ATTACHMENT],
    ] as const) {
      gl.bindRenderbuffer(gl.RENDERBUFFER, buffer);
      gl.renderbufferStorage(gl.RENDERBUFFER, format, width, height);
      gl.framebufferRenderbuffer(gl.FRAMEBUFFER, place, gl.RENDERBUFFER, buffer);
    }
    this.surface = surface;
    this.drawn = [];
    try {
      if (gl.checkFramebufferStatus(gl.FRAMEBUFFER) !== gl.FRAMEBUFFER_COMPLETE) return null;
      while (!this.draw(scene, ground, pictures, palette, size, pixel));
      return this.pixels(width, height);
    } finally {
      this.surface = null;
      this.drawn = [];
      gl.bindFramebuffer(gl.FRAMEBUFFER, null);
      gl.deleteFramebuffer(surface);
      gl.deleteRenderbuffer(colours);
      gl.deleteRenderbuffer(depths);
    }
  }

  /** What has been drawn, on a canvas without a GPU; read in strips, the lowest first as the GPU has them. */
  private pixels(width: number, height: number): OffscreenCanvas | null {
    const { gl } = this;
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d');
    if (!context) return null;
    const strip = new Uint8ClampedArray(4 * width * Math.min(height, stripHeight));
    for (let y = 0; y < height; y += stripHeight) {
      const rows = Math.min(stripHeight, height - y);
      gl.readPixels(0, y, width, rows, gl.RGBA, gl.UNSIGNED_BYTE, strip);
      const image = new ImageData(width, rows);
      for (let r = 0; r < rows; r++)
        image.data.set(strip.subarray(4 * width * r, 4 * width * (r + 1)), 4 * width * (rows - 1 - r));
      for (let i = 3; i < image.data.length; i += 4) image.data[i] = 255;
      context.putImageData(image, 0, height - y - rows);
    }
    return canvas;
  }

  /** Gives back what the GPU holds for it; nothing is drawn any more. */
  close(): void {
    this.gl.getExtension('WEBGL_lose_context')?.loseContext();
  }

  private build(): void {
    this.layers = makeLayers(this.gl);
    this.ofTasks = null;
    this.angles = null;
    this.drawn = [];
    this.done = null;
  }

  /**
   * Whether the GPU has done what it was last given. Given more before that, a slow one would have
   * the whole browser wait for pictures that are overtaken when they are shown.
   */
  get ready(): boolean {
    const { gl, done } = this;
    // What is lost is waited for by its own event: a fence of before is never signalled.
    if (!done || gl.isContextLost()) return true;
    if (gl.getSyncParameter(done, gl.SYNC_STATUS) !== gl.SIGNALED) return false;
    gl.deleteSync(done);
    this.done = null;
    return true;
  }

  /**
   * Draws the pictures; `size` is the canvas in CSS pixels, `pixel` how many device pixels one of
   * them is. The first time it is one picture a call, since the GPU has everything to make ready
   * and the page is waiting to be shown: false while there are more.
   */
  draw(
    scene: Scene,
    { gridStep }: Ground,
    pictures: readonly Picture[],
    palette: Palette,
    size: Size,
    pixel: number,
  ): boolean {
    const { gl, canvas } = this;
    // Nothing is drawn, and nothing waits for it.
    if (gl.isContextLost()) return true;
    const [width, height] = [Math.round(size.width * pixel), Math.round(size.height * pixel)];
    if (!this.surface && (canvas.width !== width || canvas.height !== height)) {
      [canvas.width, canvas.height] = [width, height];
      this.drawn = [];
    }
    const page = [width, height, this.nameOf(palette)].join();
    const keys = pictures.map((one) => this.keyOf(one, page, scene));
    const same =
      keys.length === this.drawn.length && keys.every((key, i) => key.split('|')[0] === this.drawn[i]!.split('|')[0]);
    if (!same) {
      gl.disable(gl.SCISSOR_TEST);
      gl.clearColor(...palette.page, 1);
      gl.clear(gl.COLOR_BUFFER_BIT);
    }
    gl.enable(gl.SCISSOR_TEST);
    const due = pictures.flatMap((_, i) => (same && keys[i] === this.drawn[i] ? [] : [i]));
    // One that has never been drawn goes first: what moves all the time would keep it waiting for
    // ever.
    const now = this.begun
      ? due
      : [due.find((i) => !this.once.has(pictures[i]!.name)) ?? due[0]].filter((i) => i !== undefined);
    for (const i of now) {
      const picture = pictures[i]!;
      const { rect } = picture;
      const [x, y] = [Math.round(rect.x * pixel), Math.round((size.height - rect.y - rect.height) * pixel)];
      const [w, h] = [Math.round(rect.width * pixel), Math.round(rect.height * pixel)];
      if (w <= 0 || h <= 0) continue;
      const onCanvas = () => {
        gl.viewport(x, y, w, h);
        gl.scissor(x, y, w, h);
      };
      if (picture.span) {
        this.angles ??= angleLayer(gl);
        const size = this.angles.begin([w, h]);
        this.drawOne(picture, palette, scene, size, (pixel * size[0]) / w, gridStep);
        gl.bindFramebuffer(gl.FRAMEBUFFER, this.surface);
        onCanvas();
        this.angles.end(picture.frame, picture.span);
      } else {
        onCanvas();
        this.drawOne(picture, palette, scene, [w, h], pixel, gridStep);
      }
      this.once.add(picture.name);
    }
    if (this.ofTasks) this.forget(pictures);
    // What is still to come has its place and shows nothing yet.
    this.drawn = keys.map((key, i) => (due.includes(i) && !now.includes(i) ? `${key.split('|')[0]}|` : key));
    this.begun ||= pictures.every(({ name }) => this.once.has(name));
    const whole = now.length === due.length;
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

  /** Where a picture stands, then what it shows: by the revisions that its makers give. */
  private keyOf(picture: Picture, page: string, scene: Scene): string {
    const { rect, frame, style, flat, ground, emphasis, light, poses, layers, tints, painting } = picture;
    const shown = [
      ...[frame.serial, ground, emphasis, light.join(), scene.meshRevision, this.nameOf(poses.values)],
      ...[flat?.tiles ? this.nameOf(flat.tiles) : '', tints ? this.nameOf(tints) : '', painting?.revision ?? ''],
      ...layers.map((layer) => `${layer.key}:${layer.revision}:${'tintRevision' in layer ? layer.tintRevision : ''}`),
    ];
    return `${page},${style},${Object.values(rect).join()}|${shown.join()}`;
  }

  private drawOne(
    picture: Picture,
    palette: Palette,
    scene: Scene,
    size: readonly [number, number],
    pixel: number,
    gridStep: number,
  ): void {
    const { gl } = this;
    const { images, ground, faces, edges, points } = this.layers;
    const { frame, emphasis } = picture;
    scene.pose(picture.poses);
    const { origin } = scene;
    const d: Drawing = {
      ...{ picture, palette, origin, size, pixel, matrix: gpuMatrix(frame, origin), hair: gridStep / 500 },
      ground: picture.ground === null ? -1e30 : picture.ground - origin[1],
      ranks: this.ranksOf(picture.painting?.order ?? null, scene),
    };
    gl.clear(gl.DEPTH_BUFFER_BIT);
    gl.disable(gl.DEPTH_TEST);
    gl.disable(gl.BLEND);
    images.upload(scene.images);
    if (picture.flat) ground.drawChart(d, scene.images);
    else ground.drawGround(d, scene);
    if (picture.style === 'main') edges.drawWater(d);

    faces.upload(scene, d.matrix);
    faces.uploadTints(picture.tints);
    points.upload(scene);
    edges.choose(scene, d);
    for (const { family, dim } of passesOf(emphasis)) {
      if (family >= 0) gl.clear(gl.DEPTH_BUFFER_BIT);
      faces.draw(d, family, dim);
      edges.draw(d, family, dim);
    }
    this.drawTask(d, ['instances', 'specks', 'triangles', 'lines']);
    points.draw(d);
    if (picture.style === 'main' && frame.far !== null && !picture.flat) edges.drawBeyond(d);
    this.drawTask(d, ['field']);
  }

  /** Depths by an order of the scene's triangles; null without one, or where it is of other triangles. */
  private ranksOf(order: Int32Array | null, scene: Scene): RankDepths | null {
    if (!order) return null;
    if (this.ranks?.order === order && this.ranks.mesh === scene.meshRevision) return this.ranks.depths;
    const depths = rankDepths(order, scene);
    this.ranks = { order, mesh: scene.meshRevision, depths };
    return depths;
  }

  private drawTask(d: Drawing, kinds: readonly GpuLayer['kind'][]): void {
    const layers = d.picture.layers.filter(({ kind }) => kinds.includes(kind));
    if (!layers.length) return;
    const { instances, specks, triangles, lines, field } = (this.ofTasks ??= makeTaskLayers(this.gl));
    for (const layer of layers)
      switch (layer.kind) {
        case 'instances':
          instances.upload(layer);
          instances.draw(d, layer);
          break;
        case 'specks':
          specks.upload(layer);
          specks.draw(d, layer);
          break;
        case 'triangles':
          triangles.upload(layer);
          triangles.draw(d, layer);
          break;
        case 'lines':
          lines.upload(layer);
          lines.draw(d, layer);
          break;
        case 'field':
          field.upload(layer);
          field.draw(d, layer);
      }
  }

  /** Lets go of layers that no picture has. */
  private forget(pictures: readonly Picture[]): void {
    const keys = new Set(pictures.flatMap(({ layers }) => layers.map(({ key }) => key)));
    for (const one of Object.values(this.ofTasks!)) one.keepOnly(keys);
  }
}
