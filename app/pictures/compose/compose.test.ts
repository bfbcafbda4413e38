import { describe, expect, it } from 'vitest';
import { saltmarrowChart } from '../../../demo/chart';
import { saltmarrow } from '../../../demo/saltmarrow';
import { cameraInSpace } from '../../../formats/camera';
import type { Project } from '../../../formats/project';
import { momentOf } from '../../state/moment';
import type { PicturesInput } from './picturesInput';
import { compose } from './compose';
import { fitted, fittedOutside } from './drawings';
import type { PaneName } from './panes';
import { layOut, type Slot } from './slots';

function inputOf(project: Project, panes: readonly PaneName[] = ['plan', 'section']): PicturesInput {
  const moment = momentOf(project);
  const size = { width: 720, height: 696 };
  const { width, height } = moment.frame.viewport;
  const slots = layOut(size, { aspect: width / height, enlarged: null, panes, strip: 0, beside: null });
  const slot = slots.panes[0]!.slot;
  return {
    ...{ seen: null, time: 0, size, pixel: 1, slots, theme: 'paper', route: 'frame' },
    plan: fitted('plan', slot, moment),
    section: moment.flat ? { middle: [0, 0], unitsPerPixel: 1 } : fitted('section', slot, moment),
    outside: fittedOutside(moment),
    ...{ rested: moment.frame, table: null, selected: [], folds: {}, css: [641.5, 360.5], answers: {} },
    shown: { snapshot: null, how: 'beside' },
    isPainting: false,
    isSending: false,
  };
}
const turned = (project: Project, yaw: number): Project => ({
  ...project,
  camera: { ...cameraInSpace(project), orientation: { kind: 'angles', yaw, pitch: -5, roll: 0 } },
});
const serials = ({ pictures }: ReturnType<typeof compose>) => pictures.map(({ frame }) => frame.serial);
const wordsIn = ({ layers }: ReturnType<typeof compose>) =>
  layers.flatMap(({ marks }) => marks.flatMap((mark) => ('text' in mark ? [mark.text] : [])));

describe('what stands in the centre', () => {
  it('is the same pictures while the pointer alone moves, and the same plan while the camera turns', () => {
    const project = saltmarrow();
    const input = inputOf(project);
    const first = compose(project, input);
    expect(first.pictures.map(({ style }) => style)).toEqual(['main', 'plan', 'section']);
    const moved = compose(project, { ...input, css: [100, 200] });
    expect(serials(moved)).toEqual(serials(first));
    const { meshRevision } = first.scene;
    expect(moved.layers).not.toEqual(first.layers);
    const after = compose(turned(project, 40), input);
    const [main, plan, section] = serials(after).map((serial, i) => serial === serials(first)[i]);
    expect([main, plan, section]).toEqual([false, true, false]);
    expect(after.scene.meshRevision).toBe(meshRevision);
  });

  it('is painted with its names only while it is asked for; what goes with the pointer always is', () => {
    const project = saltmarrow();
    const input = inputOf(project);
    expect(wordsIn(compose(project, input))).not.toContain('Lighthouse');
    expect(wordsIn(compose(project, input))).toContain('641.5');
    const painted = wordsIn(compose(project, { ...input, isPainting: true }));
    // Once in the picture, once in each drawing.
    expect(painted.filter((text) => text === 'Lighthouse')).toHaveLength(3);
    expect(painted).toContain('641.5');
  });

  it('has the screens beside a flat world’s plan, of the camera as it last rested', () => {
    const project = saltmarrowChart();
    const input = inputOf(project, ['plan', 'screens']);
    const { pictures } = compose(project, input);
    expect(pictures.every(({ flat }) => flat?.tiles === project.tiles)).toBe(true);
    expect(pictures).toHaveLength(2 + project.screens.sizes.length);
    const [main, , ...tray] = pictures;
    expect(main!.frame).toBe(momentOf(project).frame);
    // Each within its slot.
    const { x, width } = input.slots.panes[1]!.slot;
    for (const { rect } of tray) {
      expect(rect.x).toBeGreaterThanOrEqual(x - 1e-9);
      expect(rect.x + rect.width).toBeLessThanOrEqual(x + width + 1e-9);
    }
  });

  it('has the free view from outside, with the frustum and the other cameras in it', () => {
    const project = saltmarrow();
    const input = { ...inputOf(project, ['plan', 'section', 'outside']), isPainting: true };
    const { pictures, layers } = compose(project, input);
    expect(pictures.map(({ name }) => name)).toEqual(['camera', 'plan', 'section', 'outside']);
    expect(pictures[3]!.frame.kind).toBe('perspective');
    const inks = layers.flatMap(({ marks }) => marks.map(({ ink }) => ink));
    expect(inks.filter((ink) => ink === 'other-eye').length).toBeGreaterThanOrEqual(project.cameras.length);
    expect(inks).toContain('frustum-line');
  });

  it('of a camera that cannot be is the last that could', () => {
    const project = saltmarrow();
    const last = momentOf(project).seen.frame;
    const camera = cameraInSpace(project);
    const bad = { ...project, camera: { ...camera, projection: { ...camera.projection, near: -1 } } } as Project;
    const { seen } = momentOf(bad);
    expect(seen.problems).not.toEqual([]);
    const { pictures } = compose(bad, { ...inputOf(project), seen });
    expect(pictures[0]!.frame).toBe(last);
    // Back at one that was looked at before, it is that one.
    momentOf(turned(project, 40));
    expect(momentOf(project).frame).toBe(last);
    expect(momentOf({ ...bad }).frame).toBe(last);
  });

  it('moves with the clock: another time is other places, the same meshes, and the same names', () => {
    const project = saltmarrow();
    const input = inputOf(project);
    const first = compose(project, input);
    const { meshRevision } = first.scene;
    const before = first.pictures[0]!.poses.values;
    const later = compose(project, { ...input, time: 7.3 });
    expect(later.pictures[0]!.poses.values).not.toEqual(before);
    expect(serials(later)).toEqual(serials(first));
    expect(later.scene.meshRevision).toBe(meshRevision);
    expect(compose(project, input).pictures[0]!.poses.values).toBe(before);
  });
});

describe('a short window', () => {
  const wanted = { aspect: 16 / 9, enlarged: null, panes: ['plan', 'screens'], strip: 46, beside: null } as const;
  const isApart = (a: Slot, b: Slot) =>
    a.x + a.width <= b.x || b.x + b.width <= a.x || a.y + a.height <= b.y || b.y + b.height <= a.y;
  it('has its panes beside the camera’s picture, all of them within it and apart', () => {
    for (const [width, height] of [
      [853, 277],
      [760, 300],
      [1100, 330],
    ] as const) {
      const { main, panes } = layOut({ width, height }, wanted);
      const all = [main!, ...panes.map(({ slot }) => slot)];
      expect(panes.map(({ name }) => name)).toEqual(wanted.panes);
      for (const slot of all) {
        expect(slot.x).toBeGreaterThanOrEqual(0);
        expect(slot.x + slot.width).toBeLessThanOrEqual(width);
        expect(slot.y + slot.height).toBeLessThanOrEqual(height);
      }
      all.forEach((a, i) => all.slice(i + 1).forEach((b) => expect(isApart(a, b)).toBe(true)));
    }
  });
  it('keeps the panes below the picture when it is high', () => {
    const { main, panes } = layOut({ width: 853, height: 700 }, wanted);
    for (const { slot } of panes) expect(slot.y).toBeGreaterThan(main!.y + main!.height);
  });
});
