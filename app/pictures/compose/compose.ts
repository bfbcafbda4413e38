import type { Layer } from './layer';
import type { PicturesInput } from './picturesInput';
import { cornerOf, viewIn, viewOf } from './views';
import type { CameraFrame } from '../../../core/camera/frame';
import { angularSpan, planeOfAngles } from '../../../core/order/angular';
import { addScaled, normalize, type Vec2, type Vec3 } from '../../../core/math/vec3';
import type { Project } from '../../../formats/project';
import { memo } from '../../state/memo';
import { momentOf, momentSeen, type Moment } from '../../state/moment';
import type { Look, Size } from './contract';
import { furnitureMarks } from './rulers';
import { plateMarks, snapshotPlateMarks } from './furniture';
import { gridStepOf, headingOf } from './drawings';
import type { Rect } from './labels';
import type { Mark } from './marks';
import type { Picture } from './picture';
import { pointerMarks, rulerFigures } from './rulers';
import { Scene } from './scene';
import { layTray, screenFrame } from './screens';
import { caption, plateSize, type Slot } from './slots';
import { snapshotFrame } from './snapshots';
import { clipOf, groundOf, rulersAround, type StandingLayer } from './clips';
import { standingIn } from './standing';
import { layersOf, openTask, paintingOf, standingOf, tintsOf, underPointerOf, type OpenTask } from './taskMarks';
import { textBoxes } from './textBoxes';
import { trayLayers } from './tray';

/** A picture with its caption left out, and the layers of marks over it. */
interface Pane {
  readonly name: string;
  readonly rect: Rect;
  readonly pictures: readonly Picture[];
  readonly layers: readonly Layer[];
  /** The marks that the page sets while nothing moves; the same object while they are. */
  readonly standing?: readonly StandingLayer[];
}

export interface Composition {
  readonly scene: Scene;
  readonly ground: { readonly gridStep: number };
  readonly pictures: readonly Picture[];
  readonly layers: readonly Layer[];
}

/** The marks of each pane that the page sets. */
export type StandingMarks = ReadonlyMap<string, readonly StandingLayer[]>;

/** A pane for a file. Places are from its own corner. */
export interface SavedPane extends Composition {
  readonly size: Size;
}

const mainLight = normalize([-0.62, 0.7, 0.5])!;
const planLight = normalize([-0.3, 0.9, 0.2])!;
const sectionLight = (frame: CameraFrame): Vec3 => {
  const { heading, right } = headingOf(frame);
  return normalize(addScaled(addScaled([0, 0.66, 0], right, 0.62), heading, -0.42))!;
};
const screens = memo(layTray);
const screenFrames = memo((of: CameraFrame, { fit, sizes }: Project['screens'], flat: boolean) =>
  sizes.map((one) => screenFrame(of, fit, one, flat)),
);

const scene = new Scene();

/** Composes the pictures on the screen: what the painter draws, and the marks it paints over them. */
export function compose(project: Project, input: PicturesInput): Composition & { readonly standing: StandingMarks } {
  const now = momentIn(project, input);
  const { ground } = takeScene(now, input);
  const panes = panesIn(now, input, 'screen');
  return {
    ...{ scene, ground },
    pictures: panes.flatMap(({ pictures }) => pictures),
    layers: panes.flatMap(({ layers }) => layers),
    standing: new Map(panes.flatMap(({ name, standing }) => (standing ? [[name, standing]] : []))),
  };
}

/**
 * Composes one pane for a file: with its frame and rulers, without the pointer's marks.
 *
 * @returns null where the pane is not on the screen or is no picture
 */
export function composePane(project: Project, input: PicturesInput, name: string): SavedPane | null {
  const now = momentIn(project, input);
  const { ground } = takeScene(now, input);
  const pane = panesIn(now, input, 'file').find((one) => one.name === name);
  if (!pane) return null;
  const { x, y, width, height } = pane.rect;
  return {
    ...{ scene, ground, size: { width, height } },
    pictures: pane.pictures.map((one) => ({ ...one, rect: { ...one.rect, x: one.rect.x - x, y: one.rect.y - y } })),
    layers: pane.layers.map((one) => ({ ...one, x: one.x - x, y: one.y - y })),
  };
}

const momentIn = (project: Project, { seen, time }: PicturesInput): Moment =>
  seen ? momentSeen(project, seen, time) : momentOf(project, time);

/** Brings the buffers of bodies up to date. */
function takeScene(
  { project, roots, sceneBounds, flat }: Moment,
  { table, images = null }: PicturesInput,
): Pick<Composition, 'ground'> {
  scene.take(project.bodies, roots, sceneBounds.centre, flat, table, images);
  return { ground: { gridStep: gridStepOf(sceneBounds) } };
}

const plane = memo((frame: CameraFrame) => {
  const span = angularSpan(frame);
  const wide = span && planeOfAngles(frame, span);
  return wide && { span, frame: wide };
});
/**
 * A camera's picture as one of equal angles: which, the plane that holds them all, and the largest
 * rectangle of the camera's own proportions.
 */
function equalAngles(frame: CameraFrame, { x, y, width, height }: Picture['rect']): Partial<Picture> {
  const found = plane(frame);
  if (!found) return {};
  const k = Math.min(width / frame.viewport.width, height / frame.viewport.height);
  const [w, h] = [frame.viewport.width * k, frame.viewport.height * k];
  return { ...found, rect: { x: x + (width - w) / 2, y: y + (height - h) / 2, width: w, height: h } };
}

const lookOf = memo((selected: readonly string[], folds: PicturesInput['folds']): Look => ({ selected, folds }));

function panesIn(now: Moment, input: PicturesInput, purpose: 'screen' | 'file'): Pane[] {
  const { project, frame, roots, flat } = now;
  const { slots } = input;
  const task = openTask(input.route, now, input.answers);
  const look = lookOf(input.selected, input.folds);
  const tints = tintsOf(task);
  const ground = flat ? null : (project.ground?.height ?? null);
  const isSaved = purpose === 'file';
  /** The part of a picture that follows from the current state alone. */
  const all = {
    ...{ ground, emphasis: null, poses: now.poses, tints, painting: null },
    ...(flat && { flat: { tiles: project.tiles, step: scene.step } }),
  };
  const rectOf = ([x, y]: Vec2, { width, height }: Size) => ({ x, y, width, height });
  const paneAt = (name: string, slot: Slot, pictures: Picture[], layers: Layer[]): Pane => ({
    ...{ name, pictures, layers, rect: rectOf([slot.x, slot.y + caption], slot) },
  });

  const viewPane = (pane: string, name: string, slot: Slot): Pane[] => {
    const view = viewIn(name, slot, now, input, task);
    if (!view) return [];
    const drawn = standingOf(task, view, look);
    const corner = cornerOf(name, slot);
    const { body } = project.probe;
    const style = name === 'camera' || name === 'outside' ? 'main' : name === 'section' ? 'section' : 'plan';
    const own = task?.marks.pictures?.find((one) => `${task.name}/${one.name}` === name);
    const picture: Picture = {
      ...all,
      ...{ name, rect: rectOf(corner, view.size), frame: view.frame, style, layers: layersOf(view, drawn) },
      light: style === 'main' ? mainLight : style === 'plan' ? planLight : sectionLight(frame),
      ...(name === 'section' && {
        emphasis: body === null ? null : (scene.families.get(roots.get(body)!) ?? null),
      }),
      ...(own?.poses && { poses: own.poses(task!.now, task!.derived) }),
      ...(name === 'camera' && { painting: paintingOf(task) }),
      ...(own?.equalAngles && equalAngles(view.frame, rectOf(corner, view.size))),
    };
    const layer = (marks: readonly Mark[], within: StandingLayer['within']): Layer => ({
      ...{ marks, x: corner[0], y: corner[1], clip: clipOf(view, within), ground: groundOf(view, now) },
    });
    const layers: Layer[] = [];
    const standing =
      isSaved || input.isPainting || input.isSending ? standingIn(view, now, drawn, look, input.shown) : [];
    if (isSaved && name === 'camera') layers.push(layer(plateMarks(view.size), 'rulers'));
    if (isSaved || input.isPainting) for (const { marks, within } of standing) layers.push(layer(marks, within));
    if (isSaved) layers.push(layer(furnitureMarks(view, now), 'rulers'));
    // The pointer's marks are always painted, in the other pictures too.
    else if (name !== 'camera') {
      const under = underPointerOf(task, view, input.css, look);
      if (under.length) layers.push(layer(under, 'picture'));
    }
    return [{ ...paneAt(pane, slot, [picture], layers), standing }];
  };

  const snapshotPane = (slot: Slot): Pane[] => {
    const { snapshot } = input.shown;
    const then = snapshot && snapshotFrame(snapshot, project);
    if (!then) return [];
    const corner = cornerOf('camera', slot);
    const size = plateSize(slot);
    const picture: Picture = {
      ...{ ...all, name: 'snapshot', frame: then, style: 'main', light: mainLight, layers: [], tints: null },
      ...{ rect: rectOf(corner, size), poses: momentOf(project, snapshot.time).poses },
    };
    const [x, y] = corner;
    const layer: Layer = { marks: snapshotPlateMarks(size), x, y, clip: rulersAround(size), ground: 'plate' };
    return [paneAt('snapshot', slot, [picture], isSaved ? [layer] : [])];
  };

  const screensPane = (slot: Slot): Pane => {
    const { scale, places } = screens(project.screens.sizes, slot);
    const pictures = screenFrames(input.rested, project.screens, now.flat).flatMap((one, i): Picture[] => {
      if (!one) return [];
      const { viewport: v } = one;
      const x = slot.x + places[i]!.x + v.x * scale;
      const y = slot.y + caption + places[i]!.y + v.y * scale;
      return [
        {
          ...{ ...all, name: `screen ${i}`, frame: one, style: 'main', light: mainLight, layers: [] },
          rect: rectOf([x, y], { width: v.width * scale, height: v.height * scale }),
        },
      ];
    });
    const layers = trayLayers(slot, input.rested, now, task, look).map((one): Layer => ({
      ...one,
      x: one.x + slot.x,
      y: one.y + slot.y + caption,
      ground: 'plate',
    }));
    return paneAt('screens', slot, pictures, isSaved ? layers : []);
  };

  const panes = [
    ...(slots.main ? viewPane('main', 'camera', slots.main) : []),
    ...(slots.beside ? snapshotPane(slots.beside) : []),
    ...slots.panes.flatMap(({ name, slot }) => (name === 'screens' ? screensPane(slot) : viewPane(name, name, slot))),
  ];
  // Over everything else.
  if (slots.main && !isSaved)
    panes.push(paneAt('pointer', slots.main, [], [pointerLayer(now, input, task, look, slots.main)]));
  return panes;
}

/** The marks at the pointer over the camera's picture, and the figures of its rulers, which make room for them. */
function pointerLayer(now: Moment, input: PicturesInput, task: OpenTask | null, look: Look, slot: Slot): Layer {
  const { css } = input;
  const view = viewOf('camera', now.frame, plateSize(slot));
  const { size } = view;
  const [x, y] = cornerOf('camera', slot);
  const standing = standingIn(view, now, standingOf(task, view, look), look, input.shown);
  return {
    ...{ x, y, ground: 'plate', clip: clipOf(view, 'rulers') },
    marks: [
      ...underPointerOf(task, view, css, look),
      ...rulerFigures(now, css, size.width, size.height),
      ...pointerMarks(now, css, view, textBoxes(standing.flatMap(({ marks }) => marks))),
    ],
  };
}
