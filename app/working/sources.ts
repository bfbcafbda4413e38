import type { NavigateFunction } from 'react-router';

/** Where numbers of a working are set: the task on whose sheet, and the names of the field, the first that is there. `null` is the page's header. */
const places: Readonly<Record<string, { task: string | null; fields: readonly string[]; says: string }>> = {
  eye: { task: 'frame', fields: ['Eye x'], says: 'the eye' },
  gaze: { task: 'frame', fields: ['yaw'], says: 'the gaze' },
  lens: { task: 'frame', fields: ['Vertical field', 'Height', 'Zoom'], says: 'the lens' },
  near: { task: 'frame', fields: ['Near'], says: 'the near limit' },
  far: { task: 'frame', fields: ['Far'], says: 'the far limit' },
  zoom: { task: 'frame', fields: ['Zoom'], says: 'the zoom' },
  turned: { task: 'frame', fields: ['Turned'], says: 'the turn of the world' },
  focus: { task: 'frame', fields: ['Focus x', 'Focus y', 'Focus z'], says: 'focus and anchor' },
  body: { task: 'convert', fields: ['Node'], says: 'the node' },
  space: { task: 'convert', fields: ['In the space of'], says: 'the other node' },
  canvas: { task: 'convert', fields: ['Canvas x'], says: 'where the canvas lies' },
  canvasScale: { task: 'convert', fields: ['Canvas scale'], says: 'the scale it is shown at' },
  devicePixels: { task: 'convert', fields: ['Device pixels per css px'], says: 'the device pixel ratio' },
  framebuffer: { task: 'convert', fields: ['Framebuffer scale'], says: 'the framebuffer’s scale' },
  bars: { task: 'convert', fields: ['Bar left'], says: 'the bars' },
  tiles: { task: 'convert', fields: ['Scroll right'], says: 'the map' },
  pixel: { task: 'convert', fields: ['Pixel x'], says: 'the pixel' },
  back: { task: 'convert', fields: ['Depth value', 'Distance ahead', 'Range', 'Plane'], says: 'the depth' },
  viewport: { task: null, fields: ['Viewport'], says: 'the viewport' },
  conventions: { task: null, fields: ['Conventions in force'], says: 'the conventions' },
  probe: { task: null, fields: ['Local x', 'World x', 'View x', 'NDC x', 'Screen x'], says: 'the probe' },
};

/** What a link says it leads to. */
export const sourceName = (from: string): string =>
  from.startsWith('line-') ? 'the line that gives it' : (places[from]?.says ?? from);

/** Goes to where a number is set: opens the task and takes its field in focus. */
export function goToSource(from: string, navigate: NavigateFunction): void {
  const place = places[from];
  if (!place) return;
  if (place.task && !window.location.pathname.endsWith(`/${place.task}`)) void navigate(`/${place.task}`);
  // The sheet of another task is there a frame later, or two.
  let tries = 0;
  const look = () => {
    for (const field of place.fields) {
      const found = document.querySelector<HTMLElement>(
        `input[aria-label="${field}"], select[aria-label="${field}"], button[data-source="${field}"]`,
      );
      if (!found) continue;
      found.scrollIntoView({ block: 'center' });
      found.focus();
      if (found instanceof HTMLButtonElement) found.click();
      return;
    }
    if (tries++ < 20) requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
}
