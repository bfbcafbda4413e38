import type { Vec2 } from '../math/vec3';

/**
 * What lies between a pointer event and the viewport. All pixels run to the right.
 * - client: CSS pixels of the page, as a pointer event gives them, downward from the top left
 * - css: CSS pixels of the canvas, downward from its own top left corner, undoing the scale at which
 *   it is shown
 * - framebuffer: pixels that are rendered, from the framebuffer's `origin`: downward from its top
 *   left, or upward from its bottom left
 * - viewport: pixels of the framebuffer from that corner of the viewport
 */
export interface PointerPath {
  /** Where the canvas's corner lies on the page, in CSS pixels. */
  readonly canvas: Vec2;
  /** How much larger the canvas is shown than its own CSS size. */
  readonly cssScale: number;
  readonly devicePixelRatio: number;
  /** Rendered pixels to a device pixel: below 1 where less is rendered than is shown. */
  readonly framebufferScale: number;
  /** Whence the pixels of framebuffer and viewport are counted. CSS pixels are from the top left. */
  readonly origin: 'top-left' | 'bottom-left';
  /**
   * The viewport within the framebuffer, in its pixels; `y` is what the framebuffer has above it,
   * `bottom` what it has below.
   */
  readonly viewport: {
    readonly x: number;
    readonly y: number;
    readonly width: number;
    readonly height: number;
    readonly bottom: number;
  };
}

/** Page to canvas, in CSS pixels. Its inverse is `cssToClient`. */
export const clientToCss = ({ canvas, cssScale }: Pick<PointerPath, 'canvas' | 'cssScale'>, [x, y]: Vec2): Vec2 => [
  (x - canvas[0]) / cssScale,
  (y - canvas[1]) / cssScale,
];
/** From CSS pixels of the canvas to the page’s: the way back of `clientToCss`. */
export const cssToClient = ({ canvas, cssScale }: Pick<PointerPath, 'canvas' | 'cssScale'>, [x, y]: Vec2): Vec2 => [
  x * cssScale + canvas[0],
  y * cssScale + canvas[1],
];

/** Rendered pixels to a CSS pixel of the canvas. */
export const pixelsPerCss = (path: Pick<PointerPath, 'devicePixelRatio' | 'framebufferScale'>): number =>
  path.devicePixelRatio * path.framebufferScale;

/** Rows of the framebuffer. */
const rows = ({ viewport: v }: Pick<PointerPath, 'viewport'>): number => v.y + v.height + v.bottom;

/**
 * A picture position (across, upward, −1…1 over the viewport) to pixels of the framebuffer, counted
 * from its origin.
 */
export function pictureToFramebuffer(path: Pick<PointerPath, 'viewport' | 'origin'>, [x, y]: Vec2): Vec2 {
  const { viewport: v } = path;
  const up = path.origin === 'bottom-left';
  return [v.x + ((x + 1) / 2) * v.width, up ? v.bottom + ((1 + y) / 2) * v.height : v.y + ((1 - y) / 2) * v.height];
}

/** Pixels of the framebuffer, counted from its origin, to CSS pixels of the canvas. */
export function framebufferToCss(
  path: Pick<PointerPath, 'devicePixelRatio' | 'framebufferScale' | 'viewport' | 'origin'>,
  [x, y]: Vec2,
): Vec2 {
  const k = pixelsPerCss(path);
  return [x / k, (path.origin === 'bottom-left' ? rows(path) - y : y) / k];
}

/** What is usually left out on the way, one name a step. */
export type Omission =
  'canvasOffset' | 'cssScale' | 'devicePixelRatio' | 'framebufferScale' | 'viewportOrigin' | 'viewportSize' | 'flip';
export const omissions: readonly Omission[] = [
  'canvasOffset',
  'cssScale',
  'devicePixelRatio',
  'framebufferScale',
  'viewportOrigin',
  'viewportSize',
  'flip',
];

/** A pointer at every step of its way. */
export interface PointerSteps {
  readonly client: Vec2;
  readonly css: Vec2;
  readonly framebuffer: Vec2;
  readonly viewport: Vec2;
  /** Across and upward, −1…1. */
  readonly picture: Vec2;
}

/**
 * The whole way of a pointer, some of its steps left out as an engine may leave them out:
 * - `canvasOffset`: the event's coordinates are taken for the canvas's own
 * - `cssScale`: the scale at which the canvas is shown is not undone
 * - `devicePixelRatio`, `framebufferScale`: CSS pixels are taken for rendered ones
 * - `viewportOrigin`: the viewport is taken to begin at the framebuffer's corner
 * - `viewportSize`: the whole framebuffer is taken for the viewport
 * - `flip`: y is not turned over, so that up on the screen is down in NDC; where the framebuffer's
 *   pixels run upward they are wrong already
 */
export function pointerSteps(path: PointerPath, client: Vec2, leaveOut: ReadonlySet<Omission> = none): PointerSteps {
  const out = (one: Omission) => leaveOut.has(one);
  const css = clientToCss(
    { canvas: out('canvasOffset') ? [0, 0] : path.canvas, cssScale: out('cssScale') ? 1 : path.cssScale },
    client,
  );
  const k = pixelsPerCss({
    devicePixelRatio: out('devicePixelRatio') ? 1 : path.devicePixelRatio,
    framebufferScale: out('framebufferScale') ? 1 : path.framebufferScale,
  });
  const { x, y, width, height, bottom } = path.viewport;
  const up = path.origin === 'bottom-left';
  // Where pixels run upward y is turned over on the way to them, and otherwise on the way to NDC.
  const over = up && !out('flip');
  const framebuffer: Vec2 = [css[0] * k, over ? rows(path) - css[1] * k : css[1] * k];
  const origin: Vec2 = out('viewportOrigin') ? [0, 0] : [x, up ? bottom : y];
  // What lies right of the viewport is taken to be as wide as what lies left of it.
  const size: Vec2 = out('viewportSize') ? [width + 2 * x, rows(path)] : [width, height];
  const viewport: Vec2 = [framebuffer[0] - origin[0], framebuffer[1] - origin[1]];
  const share = (viewport[1] / size[1]) * 2 - 1;
  return {
    client,
    css,
    framebuffer,
    viewport,
    picture: [(viewport[0] / size[0]) * 2 - 1, up || out('flip') ? share : -share],
  };
}
const none: ReadonlySet<Omission> = new Set();

/** The client position that the whole way, nothing left out, takes to a picture position. */
export const pictureToClient = (path: PointerPath, picture: Vec2): Vec2 =>
  cssToClient(path, framebufferToCss(path, pictureToFramebuffer(path, picture)));

/** Whether leaving a step out of this path can change anything. */
export function matters(path: PointerPath, omission: Omission): boolean {
  const { x, y, bottom } = path.viewport;
  const up = path.origin === 'bottom-left';
  switch (omission) {
    case 'canvasOffset':
      return path.canvas[0] !== 0 || path.canvas[1] !== 0;
    case 'cssScale':
      return path.cssScale !== 1;
    case 'devicePixelRatio':
      return path.devicePixelRatio !== 1;
    case 'framebufferScale':
      return path.framebufferScale !== 1;
    case 'viewportOrigin':
      return x !== 0 || (up ? bottom : y) !== 0;
    case 'viewportSize':
      return x !== 0 || y !== 0 || bottom !== 0;
    case 'flip':
      return true;
  }
}

/** A set of omissions that explains what an engine prints, and how far off it is. */
export interface Explanation {
  readonly omissions: readonly Omission[];
  /** In the units of what was printed. */
  readonly miss: number;
}

/**
 * The omissions under which a pointer at `client` would be where an engine says it is: `says` gives
 * what it would print for steps. Sets that come as near as `tolerance`, the fewest omissions first;
 * none of them contains another that explains as much. Steps that change nothing on this path are
 * not blamed.
 */
export function explainPointer(
  path: PointerPath,
  client: Vec2,
  printed: Vec2,
  says: (steps: PointerSteps) => Vec2,
  tolerance: number,
): Explanation[] {
  const blamable = omissions.filter((one) => matters(path, one));
  const found: Explanation[] = [];
  for (let bits = 0; bits < 1 << blamable.length; bits++) {
    const set = blamable.filter((_, i) => bits & (1 << i));
    const [x, y] = says(pointerSteps(path, client, new Set(set)));
    const miss = Math.max(Math.abs(x - printed[0]), Math.abs(y - printed[1]));
    if (miss <= tolerance) found.push({ omissions: set, miss });
  }
  found.sort((a, b) => a.omissions.length - b.omissions.length || a.miss - b.miss);
  return found.filter(
    (one, i) => !found.slice(0, i).some((fewer) => fewer.omissions.every((o) => one.omissions.includes(o))),
  );
}
