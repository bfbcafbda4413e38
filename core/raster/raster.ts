/*
 * A software rasteriser with a depth buffer. It draws what a GPU draws with the rules of WebGL: clip volume
 * −w ≤ x, y, z ≤ w, samples at pixel centres, varyings divided by w, depth linear on the screen.
 */

/** A corner of a triangle: x, y, z, w in clip space, then its varyings. */
export type Vertex = Float64Array;

/** A sample of a triangle, written for the shader. The same object for each sample. */
export interface Fragment {
  /** The pixel's centre from the bottom left corner of the whole picture, in pixels. */
  x: number;
  y: number;
  /** 0 at near, 1 at far. The shader may replace it. */
  depth: number;
  /** The triangle's varyings here; `varyingCount` of them count. */
  readonly varyings: Float64Array;
  /** The shader's answer: red, green, blue and opacity, 0…1. */
  red: number;
  green: number;
  blue: number;
  opacity: number;
}

/** Computes the colour of a fragment. Returns false to discard it. */
export type Shader = (fragment: Fragment) => boolean;

/** How fragments meet what is there. */
export interface RasterState {
  /** Whether nearer fragments hide farther ones. Without it everything is drawn. */
  readonly hasDepthTest: boolean;
  readonly writesDepth: boolean;
  /** Whether colours are blended by opacity. Without it they replace what is there. */
  readonly isBlended: boolean;
  /** Whether corners keep their places between the steps that others snap to. */
  readonly isExact?: boolean;
  /** Whether each pixel is drawn at most once until `clearOnce`. */
  readonly isOnce?: boolean;
}

/** A rectangle of the picture in pixels, from the top left corner. */
export interface RasterArea {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** The most varyings of a vertex. */
const mostVaryings = 12;
const stride = 4 + mostVaryings;
/** Corners of a triangle after six cuts. */
const mostCorners = 9;

/** A picture that triangles are drawn into. */
export class Raster {
  /** Red, green, blue, opacity of each pixel, row by row from the top. */
  readonly colours: Uint8ClampedArray;
  readonly depths: Float64Array;
  private readonly touched: Uint8Array;
  private area: RasterArea;
  private readonly fragment: Fragment = {
    ...{ x: 0, y: 0, depth: 0, red: 0, green: 0, blue: 0, opacity: 1 },
    varyings: new Float64Array(mostVaryings),
  };
  private readonly polygon = [new Float64Array(mostCorners * stride), new Float64Array(mostCorners * stride)] as const;
  /** Of each attribute over w: value at the first corner, change across and down. */
  private readonly slopes = new Float64Array(3 * stride);

  /**
   * @param width - pixels, at least 1
   * @param height - pixels, at least 1
   * @param steps - places to a pixel that corners snap to; 0 for none. GPUs have 16 or more (Vulkan,
   *   `subPixelPrecisionBits` ≥ 4)
   */
  constructor(
    readonly width: number,
    readonly height: number,
    private readonly steps = 0,
  ) {
    this.colours = new Uint8ClampedArray(4 * width * height);
    this.depths = new Float64Array(width * height).fill(1);
    this.touched = new Uint8Array(width * height);
    this.area = { x: 0, y: 0, width, height };
  }

  /** Sets the rectangle that NDC −1…1 spans. Nothing is drawn outside it. */
  setArea(area: RasterArea): void {
    this.area = area;
  }

  /** Calls back for each pixel of the area: its place in `depths`, and its NDC across and upward. */
  forEachPixel(visit: (at: number, across: number, upward: number, x: number, y: number) => void): void {
    const { x, y, width, height } = this.area;
    const [left, right] = [Math.max(0, x), Math.min(this.width, x + width)];
    for (let row = Math.max(0, y); row < Math.min(this.height, y + height); row++)
      for (let column = left; column < right; column++)
        visit(
          row * this.width + column,
          ((column + 0.5 - x) / width) * 2 - 1,
          1 - ((row + 0.5 - y) / height) * 2,
          column + 0.5,
          this.height - row - 0.5,
        );
  }

  /** Sets the depth of the area to far. */
  clearDepth(): void {
    this.forEachPixel((at) => (this.depths[at] = 1));
  }

  /** Forgets which pixels were drawn with `isOnce`. */
  clearOnce(): void {
    this.touched.fill(0);
  }

  /** Writes a colour, 0…1 each, blended by opacity. */
  put(at: number, red: number, green: number, blue: number, opacity = 1): void {
    const { colours } = this;
    const i = 4 * at;
    if (opacity >= 1) {
      colours[i] = 255 * red;
      colours[i + 1] = 255 * green;
      colours[i + 2] = 255 * blue;
    } else {
      const rest = 1 - opacity;
      colours[i] = 255 * red * opacity + colours[i]! * rest;
      colours[i + 1] = 255 * green * opacity + colours[i + 1]! * rest;
      colours[i + 2] = 255 * blue * opacity + colours[i + 2]! * rest;
    }
    colours[i + 3] = 255;
  }

  /**
   * Draws a triangle.
   *
   * @param varyingCount - how many varyings follow x, y, z, w in each corner, at most 12
   */
  triangle(a: Vertex, b: Vertex, c: Vertex, varyingCount: number, state: RasterState, shader: Shader): void {
    const size = 4 + varyingCount;
    let [from, to] = this.polygon as readonly [Float64Array, Float64Array];
    for (let k = 0; k < size; k++) {
      from[k] = a[k]!;
      from[stride + k] = b[k]!;
      from[2 * stride + k] = c[k]!;
    }
    let count = 3;
    // Behind the eye first: the other cuts then divide by positive w alone.
    for (let plane = 0; plane < 3; plane++) {
      count = cutPolygon(from, count, to, size, plane);
      [from, to] = [to, from];
      if (count < 3) return;
    }
    for (let i = 2; i < count; i++) this.fill(from, 0, (i - 1) * stride, i * stride, varyingCount, state, shader);
  }

  private fill(
    p: Float64Array,
    a: number,
    b: number,
    c: number,
    varyingCount: number,
    state: RasterState,
    shader: Shader,
  ): void {
    const { x: left, y: top, width: wide, height: high } = this.area;
    const steps = state.isExact ? 0 : this.steps;
    const snapped = (v: number): number => (steps ? Math.round(v * steps) / steps : v);
    const [aw, bw, cw] = [1 / p[a + 3]!, 1 / p[b + 3]!, 1 / p[c + 3]!];
    const ax = snapped(left + ((p[a]! * aw + 1) / 2) * wide);
    const bx = snapped(left + ((p[b]! * bw + 1) / 2) * wide);
    const cx = snapped(left + ((p[c]! * cw + 1) / 2) * wide);
    const ay = snapped(top + ((1 - p[a + 1]! * aw) / 2) * high);
    const by = snapped(top + ((1 - p[b + 1]! * bw) / 2) * high);
    const cy = snapped(top + ((1 - p[c + 1]! * cw) / 2) * high);
    const area = (bx - ax) * (cy - ay) - (by - ay) * (cx - ax);
    if (!area || !Number.isFinite(area)) return;
    const { slopes, fragment, width, height, depths, touched } = this;
    const { varyings } = fragment;
    /** Makes the plane of a value that is linear on the screen. */
    const slope = (k: number, va: number, vb: number, vc: number): void => {
      slopes[3 * k] = va;
      slopes[3 * k + 1] = ((vb - va) * (cy - ay) - (by - ay) * (vc - va)) / area;
      slopes[3 * k + 2] = ((bx - ax) * (vc - va) - (vb - va) * (cx - ax)) / area;
    };
    slope(0, p[a + 2]! * aw, p[b + 2]! * bw, p[c + 2]! * cw);
    slope(1, aw, bw, cw);
    for (let k = 0; k < varyingCount; k++) slope(2 + k, p[a + 4 + k]! * aw, p[b + 4 + k]! * bw, p[c + 4 + k]! * cw);
    const lowest = Math.max(0, top, Math.ceil(Math.min(ay, by, cy) - 0.5));
    const highest = Math.min(height, top + high, Math.ceil(Math.max(ay, by, cy) - 0.5));
    const { hasDepthTest, writesDepth, isBlended, isOnce = false } = state;
    for (let row = lowest; row < highest; row++) {
      const y = row + 0.5;
      let [first, last] = [Infinity, -Infinity];
      for (let k = 0; k < 3; k++) {
        const px = k === 0 ? ax : k === 1 ? bx : cx;
        const py = k === 0 ? ay : k === 1 ? by : cy;
        const qx = k === 0 ? bx : k === 1 ? cx : ax;
        const qy = k === 0 ? by : k === 1 ? cy : ay;
        if (py <= y === qy <= y) continue;
        // From the upper end, whichever way it runs, so that two triangles agree about their common edge.
        const x = py < qy ? px + ((qx - px) * (y - py)) / (qy - py) : qx + ((px - qx) * (y - qy)) / (py - qy);
        if (x < first) first = x;
        if (x > last) last = x;
      }
      const begin = Math.max(0, left, Math.ceil(first - 0.5));
      const end = Math.min(width, left + wide, Math.ceil(last - 0.5));
      const dy = y - ay;
      for (let column = begin, at = row * width + begin; column < end; column++, at++) {
        const dx = column + 0.5 - ax;
        const depth = (slopes[0]! + slopes[1]! * dx + slopes[2]! * dy + 1) / 2;
        fragment.depth = depth;
        if (isOnce && touched[at]) continue;
        if (hasDepthTest && !(depth <= depths[at]!) && !replacesDepth(shader)) continue;
        const w = 1 / (slopes[3]! + slopes[4]! * dx + slopes[5]! * dy);
        for (let k = 0; k < varyingCount; k++)
          varyings[k] = (slopes[6 + 3 * k]! + slopes[7 + 3 * k]! * dx + slopes[8 + 3 * k]! * dy) * w;
        fragment.x = column + 0.5;
        fragment.y = height - y;
        if (!shader(fragment)) continue;
        if (hasDepthTest && !(fragment.depth <= depths[at]!)) continue;
        if (isOnce) touched[at] = 1;
        if (writesDepth) depths[at] = fragment.depth;
        this.put(at, fragment.red, fragment.green, fragment.blue, isBlended ? fragment.opacity : 1);
      }
    }
  }
}

const replacing = new WeakSet<Shader>();
/** Marks a shader that replaces the depth of its fragments: they are not rejected by their own. */
export function withOwnDepth(shader: Shader): Shader {
  replacing.add(shader);
  return shader;
}
const replacesDepth = (shader: Shader): boolean => replacing.has(shader);

/** Signed distance inside a plane of the clip volume: 0 w above 0, 1 near, 2 far. */
const inside = (p: Float64Array, i: number, plane: number): number =>
  plane === 0 ? p[i + 3]! - 1e-12 : plane === 1 ? p[i + 2]! + p[i + 3]! : p[i + 3]! - p[i + 2]!;

/** Cuts a convex polygon of `count` corners at a plane of the clip volume. Returns how many corners are left. */
function cutPolygon(from: Float64Array, count: number, to: Float64Array, size: number, plane: number): number {
  let out = 0;
  for (let i = 0; i < count; i++) {
    const [p, q] = [i * stride, ((i + 1) % count) * stride];
    const [dp, dq] = [inside(from, p, plane), inside(from, q, plane)];
    if (dp >= 0) {
      for (let k = 0; k < size; k++) to[out * stride + k] = from[p + k]!;
      out++;
    }
    if (dp >= 0 === dq >= 0) continue;
    const t = dp / (dp - dq);
    for (let k = 0; k < size; k++) to[out * stride + k] = from[p + k]! + (from[q + k]! - from[p + k]!) * t;
    out++;
  }
  return out;
}
