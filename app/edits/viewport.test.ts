import fc from 'fast-check';
import { describe, expect, it, vi } from 'vitest';
import { onScreen, screenFits, fitZoom } from '../../core/camera/fit';
import { worldToPixel } from '../../core/convert/project';
import { cameraInSpace, flatCamera } from '../../formats/camera';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { currentProject, edit, openProject, undo } from '../state/document';
import { momentOf } from '../state/moment';
import { setViewport } from './viewport';
import { runs } from '../../core/testing/seed';

vi.stubGlobal('requestAnimationFrame', () => 0);
vi.stubGlobal('cancelAnimationFrame', () => undefined);

const frame = () => momentOf(currentProject()).frame;
const side = fc.integer({ min: 40, max: 4000 });

describe('another viewport', () => {
  it('shows what was seen, by the way in which screens are fitted, its middle in the middle', () => {
    const chart = saltmarrowChart();
    fc.assert(
      fc.property(
        fc.constantFrom(...screenFits),
        side,
        side,
        fc.double({ min: -180, max: 180, noNaN: true }),
        (fit, width, height, rotation) => {
          const camera = { ...flatCamera(chart), rotation, anchor: [200, 555] as [number, number] };
          openProject({ ...chart, camera, screens: { ...chart.screens, fit } });
          const before = frame();
          setViewport({ width, height });
          const after = frame();
          // The zoom is pixels per unit of what the tray shows there.
          const { extents: e, viewport: v } = onScreen(
            fit,
            before.extents,
            before.viewport,
            { width, height },
            camera.zoom,
          );
          if (['keepHeight', 'keepWidth', 'showAll', 'fillAndCrop'].includes(fit)) {
            expect(after.extents.right / e.right).toBeCloseTo(1, 9);
            expect(after.extents.top / e.top).toBeCloseTo(1, 9);
          } else if (fit !== 'stretch')
            // Bars are on whole pixels.
            expect(
              Math.abs(
                ((fitZoom(fit, camera.zoom, before.viewport, { width, height }) / camera.zoom) *
                  before.viewport.width) /
                  v.width -
                  1,
              ),
            ).toBeLessThan(0.51 / Math.min(v.width, v.height));
          const middle = worldToPixel(after, before.eye);
          if (!middle.ok) throw new Error(middle.reason);
          expect(middle.value[0]).toBeCloseTo(width / 2, 5);
          expect(middle.value[1]).toBeCloseTo(height / 2, 5);
        },
      ),
      { numRuns: runs(60) },
    );
  });

  it('is fitted once, where width and height are typed one after the other', () => {
    const chart = saltmarrowChart();
    for (const fit of screenFits) {
      openProject({ ...chart, screens: { ...chart.screens, fit } });
      setViewport({ width: 320, height: 180 });
      const both = currentProject().camera;
      openProject({ ...chart, screens: { ...chart.screens, fit } });
      setViewport({ width: 320 });
      setViewport({ height: 180 });
      expect(currentProject().camera, fit).toEqual(both);
      // A camera that was edited meanwhile is the one that is fitted.
      edit('zoom', (draft) => void ((draft.camera as { zoom: number }).zoom = 3));
      setViewport({ width: 640, height: 360 });
      expect(flatCamera(currentProject()).zoom, fit).toBe(6);
    }
  });

  it('comes out the same whatever was typed on the way, and is one step', () => {
    const chart = saltmarrowChart();
    openProject({ ...chart, screens: { ...chart.screens, fit: 'wholeMultiples' } });
    const before = currentProject();
    for (const width of [2, 25, 256, 2560]) setViewport({ width }, 'typing');
    const typed = currentProject().camera;
    undo();
    expect(currentProject()).toBe(before);
    setViewport({ width: 2560 });
    expect(currentProject().camera).toEqual(typed);
  });

  it('changes no lens in space', () => {
    openProject(saltmarrow());
    const { projection } = cameraInSpace(currentProject());
    setViewport({ width: 500, height: 900 });
    expect(cameraInSpace(currentProject()).projection).toEqual(projection);
  });
});
