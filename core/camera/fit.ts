import { addScaled, dot, type Vec3 } from '../math/vec3';
import type { CameraFrame } from './frame';
import type { Extents } from './projection';

/**
 * Where a camera must stand, and how large it must see, to have points in its picture with its gaze
 * unchanged.
 */
export interface Fitted {
  readonly eye: Vec3;
  /**
   * In orthographic the factor by which what it sees grows; 1 in perspective, where stepping back
   * does it.
   */
  readonly scale: number;
  /**
   * The least and the greatest distance ahead of the points from there: what near and far must
   * leave between them.
   */
  readonly ahead: readonly [number, number];
}

/**
 * The nearest place along and across the gaze from which all points lie within the picture's edges,
 * drawn in by `margin` (a share of the half picture, 0 up to below 1), with equal room on either
 * side. Null without points. In perspective each edge is a line through the eye with a slope s: r −
 * e_r ≤ s·(f − e_f) for all points bounds e_r − s·e_f, and two opposite edges together bound e_f
 * (`docs/derivations.md`, "Fitting"). Near and far play no part, but no point comes to lie nearer
 * than near.
 */
export function fitPoints(frame: CameraFrame, points: readonly Vec3[], margin = 0): Fitted | null {
  if (!points.length) return null;
  const { near, extents: e, kind } = frame;
  const parts = points.map((p) => [dot(p, frame.right), dot(p, frame.up), dot(p, frame.forward)] as const);
  const [low, high] = spanOf(parts, (p) => p[2]);
  const room = 1 - margin;
  const at = (right: number, up: number, forward: number): Vec3 =>
    addScaled(addScaled(addScaled([0, 0, 0], frame.right, right), frame.up, up), frame.forward, forward);

  if (kind === 'orthographic') {
    const span = (i: 0 | 1, from: number, to: number) => {
      const [least, most] = spanOf(parts, (p) => p[i]);
      // Where the middle of the picture is to lie, and how large the points are against it.
      return {
        middle: (least + most) / 2,
        share: (most - least) / (Math.abs(to - from) * room),
        offset: (from + to) / 2,
      };
    };
    const [across, upward] = [span(0, e.left, e.right), span(1, e.bottom, e.top)];
    const scale = Math.max(across.share, upward.share) || 1;
    const ahead = dot(frame.eye, frame.forward);
    // The eye stays where it is along the gaze unless the points would lie nearer than near.
    const forward = Math.min(ahead, low - near);
    return {
      eye: at(across.middle - across.offset * scale, upward.middle - upward.offset * scale, forward),
      scale,
      ahead: [low - forward, high - forward],
    };
  }

  const sides = (i: 0 | 1, from: number, to: number) => {
    const [a, b] = [Math.min(from, to) / near, Math.max(from, to) / near];
    const middle = (a + b) / 2;
    const [s, t] = [middle - ((b - a) / 2) * room, middle + ((b - a) / 2) * room];
    // e − s·f ≤ least over the points, e − t·f ≥ most.
    const [least] = spanOf(parts, (p) => p[i] - s * p[2]);
    const [, most] = spanOf(parts, (p) => p[i] - t * p[2]);
    return { nearest: (least - most) / (t - s), across: (f: number) => (least + s * f + most + t * f) / 2 };
  };
  const [horizontal, vertical] = [sides(0, e.left, e.right), sides(1, e.bottom, e.top)];
  const forward = Math.min(horizontal.nearest, vertical.nearest, low - near);
  return {
    eye: at(horizontal.across(forward), vertical.across(forward), forward),
    scale: 1,
    ahead: [low - forward, high - forward],
  };
}

/** The least and the greatest of what is asked of each part; there may be hundreds of thousands. */
function spanOf(parts: readonly Vec3[], ask: (part: Vec3) => number): readonly [number, number] {
  let [least, most] = [Infinity, -Infinity];
  for (const part of parts) {
    const value = ask(part);
    least = Math.min(least, value);
    most = Math.max(most, value);
  }
  return [least, most];
}

/** How a picture made for one screen is shown on others. */
export type ScreenFit =
  'keepHeight' | 'keepWidth' | 'showAll' | 'fillAndCrop' | 'letterbox' | 'wholeMultiples' | 'stretch';
/** All of them, in the order in which they are offered. */
export const screenFits: readonly ScreenFit[] = [
  'keepHeight',
  'keepWidth',
  'showAll',
  'fillAndCrop',
  'letterbox',
  'wholeMultiples',
  'stretch',
];

export interface Size {
  readonly width: number;
  readonly height: number;
}

export interface Screened {
  /**
   * The part of the screen that shows the picture, in its pixels from the top left; the rest is
   * bars.
   */
  readonly viewport: Size & { readonly x: number; readonly y: number };
  /** What the picture's edges are there, on the near plane in perspective. */
  readonly extents: Extents;
}

/**
 * A picture of certain extents, made for a screen of `reference` pixels, on another screen.
 * `keepHeight` and `keepWidth` hold one side and let the other follow the screen; `showAll` shows
 * at least what the reference shows and `fillAndCrop` at most. `letterbox` shows exactly that, as
 * large as it goes, with bars on whole pixels; `wholeMultiples` too, every reference pixel as a
 * square of a whole number of pixels (or, on a screen smaller than it, of a whole fraction of one). In
 * 2D the squares are world units. `stretch` shows exactly that from edge to edge, its scales across and upward differing. The
 * optical axis stays at its share of the picture.
 */
export function onScreen(fit: ScreenFit, extents: Extents, reference: Size, screen: Size, zoom = 1): Screened {
  const full = { x: 0, y: 0, ...screen };
  if (fit === 'stretch') return { viewport: full, extents };
  if (fit === 'wholeMultiples' || fit === 'letterbox') {
    const least = Math.min(screen.width / reference.width, screen.height / reference.height);
    const multiple = fit === 'letterbox' ? least : wholeMultiple(least * zoom) / zoom;
    const [width, height] = [reference.width, reference.height].map((side) => Math.max(1, Math.round(side * multiple))) as [number, number]; // prettier-ignore
    return {
      viewport: {
        x: Math.floor((screen.width - width) / 2),
        y: Math.floor((screen.height - height) / 2),
        width,
        height,
      },
      extents,
    };
  }
  const wider = screen.width / screen.height / (reference.width / reference.height);
  const widens = fit === 'keepHeight' || (fit === 'showAll' && wider >= 1) || (fit === 'fillAndCrop' && wider <= 1);
  const { left, right, bottom, top } = extents;
  return {
    viewport: full,
    extents: widens
      ? { left: left * wider, right: right * wider, bottom, top }
      : { left, right, bottom: bottom / wider, top: top / wider },
  };
}

/**
 * Returns the zoom (pixels per world unit) with which a screen shows a 2D picture made for `reference` pixels at
 * `zoom`, its middle kept in the middle. The policies are those of `onScreen`. The whole screen is the picture:
 * where `onScreen` has bars, it shows more of the world. A picture with one scale for both directions is
 * stretched no further than it fits. Whole multiples are whole zooms: every world unit is a square of whole
 * pixels, or on a smaller screen a whole fraction of one.
 */
export function fitZoom(fit: ScreenFit, zoom: number, reference: Size, screen: Size): number {
  const [across, upward] = [screen.width / reference.width, screen.height / reference.height];
  if (fit === 'keepHeight') return zoom * upward;
  if (fit === 'keepWidth') return zoom * across;
  if (fit === 'fillAndCrop') return zoom * Math.max(across, upward);
  const least = zoom * Math.min(across, upward);
  return fit === 'wholeMultiples' ? wholeMultiple(least) : least;
}

/** Keeps quotients that rounding leaves just below a whole number. */
const roundingMargin = 1 + 1e-6;

/** Returns the largest whole multiple, or the largest whole fraction, that is no more than a factor. */
function wholeMultiple(most: number): number {
  const raised = most * roundingMargin;
  return raised >= 1 ? Math.floor(raised) : 1 / Math.ceil(1 / raised);
}
