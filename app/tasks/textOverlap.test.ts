import { describe, expect, it, vi } from 'vitest';
import { saltmarrowChart } from '../../demo/chart';
import { saltmarrowQuay } from '../../demo/quay';
import { emptyFlat, emptySpace } from '../../demo/empty';
import { saltmarrow } from '../../demo/saltmarrow';
import type { Project } from '../../formats/project';
import { compose, composePane } from '../pictures/compose/compose';
import { cameraHandleBoxes } from '../pictures/compose/handlePoints';
import { fitted, fittedOutside } from '../pictures/compose/drawings';
import { overlap, type Rect } from '../pictures/compose/labels';
import type { Layer } from '../pictures/compose/layer';
import type { PaneName } from '../pictures/compose/panes';
import type { PicturesInput } from '../pictures/compose/picturesInput';
import { layOut } from '../pictures/compose/slots';
import { textBox } from '../pictures/compose/textBoxes';
import { cornerOf, viewIn } from '../pictures/compose/views';
import { momentOf } from '../state/moment';
import { taskNames } from './names';

/*
 * No text of a picture meets other text: names, figures, dimensions, rulers, scale bars and the pointer's
 * readout, over demos, tasks and sizes. Widths are estimates (`textBoxes.ts`); walks look at the real ones.
 */

vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
vi.stubGlobal('window', { matchMedia: () => ({ matches: false, addEventListener: () => undefined }) });
await (await import('./page')).loadAllTasks();

const tall = (project: Project): Project => ({
  ...project,
  viewport: { ...project.viewport, width: 1080, height: 1920 },
});
const projects = {
  harbour: saltmarrow(),
  chart: saltmarrowChart(),
  quay: saltmarrowQuay(),
  'an upright harbour': tall(saltmarrow()),
  'an empty space': emptySpace('empty'),
  'an empty plane': emptyFlat('empty'),
};
const sizes = [
  { width: 720, height: 696 },
  { width: 520, height: 640 },
  { width: 1060, height: 890 },
];

interface Placed {
  readonly text: string;
  readonly box: Rect;
}
/** The text of layers with the middle of its boxes, some pixels inside. */
const placedText = (layers: readonly Layer[]): Placed[] =>
  layers.flatMap(({ marks, x, y, clip }) =>
    marks.flatMap((mark): Placed[] => {
      if (!('text' in mark)) return [];
      const box = textBox(mark);
      // Text that is clipped away meets nothing.
      if (!overlap(box, clip)) return [];
      return [
        { text: mark.text, box: { x: box.x + x + 1, y: box.y + y + 2, width: box.width - 2, height: box.height - 4 } },
      ];
    }),
  );
const meetings = (all: readonly Placed[]): string[] =>
  all.flatMap((a, i) => all.slice(i + 1).flatMap((b) => (overlap(a.box, b.box) ? [`${a.text} | ${b.text}`] : [])));

function inputOf(project: Project, size: (typeof sizes)[number], route: string): PicturesInput {
  const now = momentOf(project);
  const panes: readonly PaneName[] = now.flat ? ['plan', 'screens'] : ['plan', 'section', 'outside'];
  const { width, height } = now.frame.viewport;
  const slots = layOut(size, { aspect: width / height, enlarged: null, panes, strip: 0, beside: null });
  const slot = slots.panes[0]!.slot;
  return {
    ...{ seen: null, time: 0, size, pixel: 1, slots, theme: 'paper', route, answers: {} },
    plan: fitted('plan', slot, now),
    section: now.flat ? { middle: [0, 0], unitsPerPixel: 1 } : fitted('section', slot, now),
    outside: fittedOutside(now),
    ...{ rested: now.frame, table: null, selected: [], folds: {}, css: [width / 2, height / 2] },
    ...{ shown: { snapshot: null, how: 'beside' }, isPainting: true, isSending: false },
  };
}

describe.each(Object.entries(projects))('text in the pictures of %s', (_, project) => {
  it.each(sizes)('does not meet other text at $width × $height', (size) => {
    const found = taskNames.flatMap(({ route }) => {
      const input = inputOf(project, size, route);
      return ['main', ...input.slots.panes.map(({ name }) => name)].flatMap((pane) =>
        meetings(placedText(composePane(project, input, pane)?.layers ?? [])).map((one) => `${route}, ${pane}: ${one}`),
      );
    });
    expect(found).toEqual([]);
  });

  it.each(sizes)('leaves the handles of the camera free at $width × $height', (size) => {
    const now = momentOf(project);
    const input = inputOf(project, size, 'frame');
    const { layers } = compose(project, input);
    const found = input.slots.panes.flatMap(({ name, slot }) => {
      if (now.flat || (name !== 'plan' && name !== 'section')) return [];
      const handles = cameraHandleBoxes(viewIn(name, slot, now, input, null)!, now);
      const [x, y] = cornerOf(name, slot);
      return placedText(layers.filter((layer) => layer.x === x && layer.y === y))
        .filter(({ box }) => handles.some((handle) => overlap({ ...handle, x: handle.x + x, y: handle.y + y }, box)))
        .map(({ text }) => `${name}: ${text}`);
    });
    expect(found).toEqual([]);
  });

  it.each(sizes)('keeps inside the frame of its picture at $width × $height', (size) => {
    const input = inputOf(project, size, 'frame');
    const { size: whole, layers } = composePane(project, input, 'main')!;
    // The inner line of the frame is 4.5 pixels from its edge.
    const frame = { x: 4.5, y: 4.5, right: whole.width - 4.5, bottom: whole.height - 4.5 };
    const outside = placedText(layers).filter(
      ({ box: { x, y, width, height } }) =>
        x < frame.x || y < frame.y || x + width > frame.right || y + height > frame.bottom,
    );
    expect(outside.map(({ text }) => text)).toEqual([]);
  });

  it.each(sizes)('leaves room for the readout at the pointer at $width × $height', (size) => {
    const base = inputOf(project, size, 'frame');
    const { width, height } = project.viewport;
    const found = [0.07, 0.23, 0.38, 0.5, 0.64, 0.81, 0.95].flatMap((u) =>
      [0.12, 0.3, 0.47, 0.66, 0.9].flatMap((v) => {
        const { layers } = compose(project, { ...base, css: [u * width, v * height] });
        const main = layers.filter(({ y }) => y < base.slots.panes[0]!.slot.y);
        return meetings(placedText(main)).map((one) => `at ${u}, ${v}: ${one}`);
      }),
    );
    expect(found).toEqual([]);
  });
});
