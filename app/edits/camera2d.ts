import { focusFor, worldAt, type Camera2d } from '../../core/camera/camera2d';
import { pixelToPicture } from '../../core/convert/project';
import type { Vec2 } from '../../core/math/vec3';
import { coreCamera2d, coreViewport, flatCamera } from '../../formats/camera';
import { currentProject, editCamera2d } from '../state/document';

/*
 * What the hand in a picture does to a 2D camera. Numbers are kept as short as a drag is fine: to
 * the hundredth of a pixel.
 */

/** A world length to the hundredth of a pixel at a zoom. */
const short = (length: number, zoom: number): number =>
  Number(length.toFixed(Math.max(0, Math.min(12, Math.ceil(Math.log10(Math.max(zoom, 1e-9))) + 2)))) || 0;
const shortPair = ([a, b]: Vec2, zoom: number): [number, number] => [short(a, zoom), short(b, zoom)];

/** The camera as it is, for what is worked out from it; null while its zoom is none. */
function present(): { camera: Camera2d; viewport: ReturnType<typeof coreViewport> } | null {
  const project = currentProject();
  const viewport = coreViewport(project);
  const camera = coreCamera2d(flatCamera(project), viewport);
  return camera.zoom > 0 ? { camera, viewport } : null;
}

/**
 * The world point under a pixel of the viewport, by the numbers of the camera, snapping left out.
 */
export function pointUnder(pixel: Vec2): Vec2 | null {
  const now = present();
  return now && worldAt(now.camera, now.viewport, pixelToPicture(now, pixel));
}

/** Moves the world so that a point of it comes to lie under a pixel. */
export function bringUnder(world: Vec2, pixel: Vec2, gesture: string): void {
  const now = present();
  if (!now) return;
  const focus = focusFor(now.camera, now.viewport, world, pixelToPicture(now, pixel));
  editCamera2d('move the camera', (camera) => void (camera.focus = shortPair(focus, camera.zoom)), gesture);
}

export const setFocus = (focus: Vec2, gesture: string | null = null): void =>
  editCamera2d('move the focus', (camera) => void (camera.focus = shortPair(focus, camera.zoom)), gesture);

/** Changes the zoom, the world point under a pixel kept there. Whole numbers stay whole. */
export function zoomAbout(pixel: Vec2, zoom: number, gesture: string | null = null): void {
  const now = present();
  if (!now) return;
  const k = Number(Math.max(1e-6, Math.min(1e6, zoom)).toPrecision(6));
  const at = pixelToPicture(now, pixel);
  const focus = focusFor({ ...now.camera, zoom: k }, now.viewport, worldAt(now.camera, now.viewport, at), at);
  editCamera2d(
    'change the zoom',
    (camera) => {
      camera.zoom = k;
      camera.focus = shortPair(focus, k);
    },
    gesture,
  );
}

/** Brings a world point to the middle of the viewport at a zoom, as one step of the given name. */
export function showAt(name: string, world: Vec2, zoom: number): void {
  const now = present();
  if (!now) return;
  const k = Number(zoom.toPrecision(6));
  const focus = focusFor({ ...now.camera, zoom: k }, now.viewport, world, [0, 0]);
  editCamera2d(name, (camera) => {
    camera.zoom = k;
    camera.focus = shortPair(focus, k);
  });
}

/** The next whole zoom up or down; below 1 the halves, thirds and so on. */
export function wholeStep(zoom: number, up: boolean): number {
  if (!up && zoom <= 1) return 1 / (Math.floor(1 / zoom + 1e-9) + 1);
  if (up && zoom < 1) return 1 / Math.max(1, Math.ceil(1 / zoom - 1e-9) - 1);
  return up ? Math.floor(zoom + 1e-9) + 1 : Math.max(1, Math.ceil(zoom - 1e-9) - 1);
}

/**
 * Turns the world about the focus, as seen on the screen, counter-clockwise, to degrees between
 * −180 and 180.
 */
export const turnWorld = (degrees: number, gesture: string | null = null): void =>
  editCamera2d(
    'turn the world',
    (camera) => void (camera.rotation = Number((((((degrees + 180) % 360) + 360) % 360) - 180).toFixed(3)) || 0),
    gesture,
  );

/** Puts the anchor at another pixel, the picture kept: another world point becomes the focus. */
export function moveAnchor(pixel: Vec2, gesture: string | null = null): void {
  const focus = pointUnder(pixel);
  if (!focus) return;
  editCamera2d(
    'move the anchor',
    (camera) => {
      camera.anchor = [Math.round(pixel[0] * 2) / 2, Math.round(pixel[1] * 2) / 2];
      const exact = pointUnder(camera.anchor);
      camera.focus = shortPair(exact ?? focus, camera.zoom);
    },
    gesture,
  );
}
