import { cameraInSpace } from '../../formats/camera';
import { describe, expect, it } from 'vitest';
import { saltmarrowChart } from '../../demo/chart';
import { saltmarrow } from '../../demo/saltmarrow';
import type { Project } from '../../formats/project';
import { situationOf } from '../state/situation';
import { compose, type Sight } from './compose';
import { fitted } from './drawings';
import type { Palette } from './palette';
import { layOut } from './slots';

function sightOf(project: Project): Sight {
  const situation = situationOf(project);
  const size = { width: 720, height: 696 };
  const slots = layOut(size, situation.frame.viewport.width / situation.frame.viewport.height, null);
  return {
    ...{ seen: null, size, pixel: 1, slots, theme: 'paper', palette: {} as Palette, route: 'frame' },
    plan: fitted('plan', slots.plan!, situation),
    section: situation.flat ? { middle: [0, 0], unitsPerPixel: 1 } : fitted('section', slots.section!, situation),
    ...{ corner: 'section', rested: situation.frame, table: null, selected: [], folds: {}, css: [641.5, 360.5] },
    painting: false,
  };
}
const turned = (project: Project, yaw: number): Project => ({
  ...project,
  camera: { ...cameraInSpace(project), orientation: { kind: 'angles', yaw, pitch: -5, roll: 0 } },
});
const serials = ({ pictures }: ReturnType<typeof compose>) => pictures.map(({ frame }) => frame.serial);

describe('what stands in the centre', () => {
  it('is the same pictures while the pointer alone moves, and the same plan while the camera turns', () => {
    const project = saltmarrow();
    const sight = sightOf(project);
    const first = compose(project, sight);
    expect(first.pictures.map(({ style }) => style)).toEqual(['main', 'plan', 'section']);
    const moved = compose(project, { ...sight, css: [100, 200] });
    expect(serials(moved)).toEqual(serials(first));
    expect(moved.scene).toBe(first.scene);
    expect(moved.layers).not.toEqual(first.layers);
    const after = compose(turned(project, 40), sight);
    const [main, plan, section] = serials(after).map((serial, i) => serial === serials(first)[i]);
    expect([main, plan, section]).toEqual([false, true, false]);
    expect(after.scene).toBe(first.scene);
  });

  it('is painted with its names only while it is asked for; what goes with the pointer always is', () => {
    const project = saltmarrow();
    const sight = sightOf(project);
    const words = (one: Sight) =>
      compose(project, one).layers.flatMap(({ marks }) => marks.flatMap((mark) => ('text' in mark ? [mark.text] : [])));
    expect(words(sight)).not.toContain('Lighthouse');
    expect(words(sight)).toContain('641.5');
    const painted = words({ ...sight, painting: true });
    // Once in the picture, once in each drawing.
    expect(painted.filter((text) => text === 'Lighthouse')).toHaveLength(3);
    expect(painted).toContain('641.5');
  });

  it('has the screens beside a flat world’s plan, of the camera as it last rested', () => {
    const project = saltmarrowChart();
    const sight: Sight = { ...sightOf(project), corner: 'screens' };
    const { pictures } = compose(project, sight);
    expect(pictures.every(({ flat }) => flat?.tiles === project.tiles)).toBe(true);
    expect(pictures).toHaveLength(2 + project.screens.sizes.length);
    const [main, , ...tray] = pictures;
    expect(main!.frame).toBe(situationOf(project).frame);
    // Each within its slot.
    const { x, width } = sight.slots.section!;
    for (const { rect } of tray) {
      expect(rect.x).toBeGreaterThanOrEqual(x - 1e-9);
      expect(rect.x + rect.width).toBeLessThanOrEqual(x + width + 1e-9);
    }
  });

  it('of a camera that cannot be is the last that could', () => {
    const project = saltmarrow();
    const last = situationOf(project).seen.frame;
    const camera = cameraInSpace(project);
    const bad = { ...project, camera: { ...camera, projection: { ...camera.projection, near: -1 } } } as Project;
    const { seen } = situationOf(bad);
    expect(seen.problems).not.toEqual([]);
    const { pictures } = compose(bad, { ...sightOf(project), seen });
    expect(pictures[0]!.frame).toBe(last);
    // Back at one that was looked at before, it is that one.
    situationOf(turned(project, 40));
    expect(situationOf(project).frame).toBe(last);
    expect(situationOf({ ...bad }).frame).toBe(last);
  });
});
