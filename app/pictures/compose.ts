import type { CameraFrame } from '../../core/camera/frame';
import { angularSpan, planeOfAngles } from '../../core/order/angular';
import { addScaled, normalize, type Vec2, type Vec3 } from '../../core/math/vec3';
import type { Project } from '../../formats/project';
import type { DrawingView, OutsideView } from '../state/drawings';
import { memo } from '../state/memo';
import { momentOf, momentSeen, type Moment, type Seen } from '../state/moment';
import type { Look, PictureView, Size } from './contract';
import { gridStepOf, headingOf, outsideFrame, planFrame, sectionFrame, worldFrame } from './drawings';
import type { Rect } from './labels';
import type { Mark } from './marks';
import type { Palette } from './palette';
import type { Picture } from './layers/picture';
import { pointerMarks, rulerFigures } from './rulers';
import { Scene } from './scene';
import { layTray, screenFrame } from './screens';
import { caption, plateSize, rulerX, rulerY, type Slot, type Slots } from './slots';
import { snapshotFrame } from './snapshots';
import type { Shown } from './snapshots';
import { clipOf, inkedIn, standingIn } from './standing';
import { layersOf, openTask, paintingOf, standingOf, tintsOf, underPointerOf, type OpenTask } from './taskMarks';
import { pictureView } from './view';

/*
 * What stands in the centre, made from the project and from how it is looked at: pictures for the
 * renderer, and marks over them.
 */

/** How the project is looked at: all that the pictures depend on beside it. */
export interface PicturesInput {
  /** What the camera sees where it cannot be as it is; null where that follows from the project. */
  readonly seen: Seen | null;
  /** Seconds, by the clock. */
  readonly time: number;
  /** The centre, in CSS pixels, and how many device pixels one of them is. */
  readonly size: Size;
  readonly pixel: number;
  readonly slots: Slots;
  readonly plan: DrawingView;
  readonly section: DrawingView;
  readonly outside: OutsideView;
  readonly theme: string;
  readonly palette: Palette;
  /** The task's. */
  readonly route: string;
  /** What its jobs have found. */
  readonly answers: Readonly<Record<string, unknown>>;
  /** What the screens of the tray show: the camera when it last rested. */
  readonly rested: CameraFrame;
  /** The snapshot that is shown beside the present frame. */
  readonly shown: Shown;
  /** The table's points. */
  readonly table: Float64Array | null;
  readonly selected: readonly string[];
  /** Parts of the worksheet that the user has opened or closed. */
  readonly folds: Readonly<Record<string, boolean>>;
  /** The pointer, in CSS pixels of the viewport. */
  readonly css: Vec2;
  /**
   * Whether the marks are painted with the pictures; otherwise they are set in the page. What goes
   * with the pointer is always painted.
   */
  readonly painting: boolean;
}

/**
 * Marks that belong together: where their own pixels begin, and outside of what nothing of them is
 * seen.
 */
export interface Layer {
  readonly marks: readonly Mark[];
  readonly x: number;
  readonly y: number;
  readonly clip: Rect;
  /** Classes of the drawing that the marks belong to. */
  readonly inked: string;
}

interface Composition {
  readonly scene: Scene;
  readonly ground: { readonly gridStep: number };
  readonly pictures: readonly Picture[];
  readonly layers: readonly Layer[];
}

const mainLight = normalize([-0.62, 0.7, 0.5])!;
const planLight = normalize([-0.3, 0.9, 0.2])!;
const sectionLight = (frame: CameraFrame): Vec3 => {
  const { heading, right } = headingOf(frame);
  return normalize(addScaled(addScaled([0, 0.66, 0], right, 0.62), heading, -0.42))!;
};

// A frame that is the same is the same picture, which is not drawn again.
const plan = memo(planFrame);
const world = memo(worldFrame);
const section = memo(sectionFrame);
const outside = memo(outsideFrame);
const screens = memo(layTray);
const screenFrames = memo((of: CameraFrame, { fit, sizes }: Project['screens']) =>
  sizes.map((one) => screenFrame(of, fit, one)),
);
const sized = (name: string) =>
  memo((frame: CameraFrame, width: number, height: number) => pictureView(name, frame, { width, height }));
const views = new Map<string, ReturnType<typeof sized>>();
/**
 * A picture's view: the same object while the picture is, so that what stands in it is not worked
 * out again.
 */
function viewOf(name: string, frame: CameraFrame, { width, height }: Size): PictureView {
  const own = views.get(name) ?? sized(name);
  views.set(name, own);
  return own(frame, width, height);
}

/**
 * The view of a picture of the house or of the task in its slot; null for one that the GPU does not
 * draw.
 */
export function viewIn(
  name: string,
  slot: Slot,
  now: Moment,
  input: Pick<PicturesInput, 'plan' | 'section' | 'outside'>,
  task: OpenTask | null,
): PictureView | null {
  const { sceneBounds: bounds, flat } = now;
  const size = { width: slot.width, height: slot.height };
  switch (name) {
    case 'camera':
      return viewOf('camera', now.frame, plateSize(slot));
    case 'plan':
      return flat
        ? viewOf('world', world(input.plan, slot), size)
        : viewOf('plan', plan(input.plan, slot, bounds), size);
    case 'section':
      return viewOf('section', section(input.section, slot, now.frame, bounds), size);
    case 'outside':
      return viewOf('outside', outside(input.outside, slot), size);
    case 'screens':
    case 'points':
      return null;
    default: {
      const own = task?.marks.pictures?.find((one) => `${task.name}/${one.name}` === name);
      const frame = own?.frame(task!.now, task!.derived, size) ?? null;
      return frame && viewOf(name, frame, size);
    }
  }
}

/**
 * Where a picture begins in the centre: the plate's within its rulers, the others' under their
 * caption.
 */
const cornerOf = (name: string, { x, y }: Slot): Vec2 =>
  name === 'camera' ? [x + rulerX, y + caption + rulerY] : [x, y + caption];

const scene = new Scene();

export function compose(project: Project, input: PicturesInput): Composition {
  const now = input.seen ? momentSeen(project, input.seen, input.time) : momentOf(project, input.time);
  const task = openTask(input.route, now, input.answers);
  scene.take(project.bodies, now.roots, now.sceneBounds.centre, now.flat, input.table);
  return {
    scene,
    ground: { gridStep: gridStepOf(now.sceneBounds) },
    ...made(now, input, task),
  };
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

function made(now: Moment, input: PicturesInput, task: OpenTask | null): Pick<Composition, 'pictures' | 'layers'> {
  const { project, frame, roots, flat } = now;
  const { slots } = input;
  const look = lookOf(input.selected, input.folds);
  const tints = tintsOf(task);
  const ground = flat ? null : (project.ground?.height ?? null);
  const pictures: Picture[] = [];
  const layers: Layer[] = [];
  /** What every picture of the present world is drawn with. */
  const all = {
    ...{ ground, emphasis: null, poses: now.poses, tints, painting: null },
    ...(flat && { flat: { tiles: project.tiles, step: scene.step } }),
  };
  const rectOf = ([x, y]: Vec2, { width, height }: Size) => ({ x, y, width, height });

  const shownIn = (name: string, slot: Slot) => {
    const view = viewIn(name, slot, now, input, task);
    if (!view) return;
    const drawn = standingOf(task, view, look);
    const corner = cornerOf(name, slot);
    const { body } = project.probe;
    const style = name === 'camera' || name === 'outside' ? 'main' : name === 'section' ? 'section' : 'plan';
    const own = task?.marks.pictures?.find((one) => `${task.name}/${one.name}` === name);
    pictures.push({
      ...all,
      ...{ name, rect: rectOf(corner, view.size), frame: view.frame, style, layers: layersOf(view, drawn) },
      light: style === 'main' ? mainLight : style === 'plan' ? planLight : sectionLight(frame),
      ...(name === 'section' && {
        emphasis: body === null ? null : (scene.families.get(roots.get(body)!) ?? null),
      }),
      ...(own?.poses && { poses: own.poses(task!.now, task!.derived) }),
      ...(name === 'camera' && { painting: paintingOf(task) }),
      ...(own?.equalAngles && equalAngles(view.frame, rectOf(corner, view.size))),
    });
    if (input.painting)
      for (const { marks, within } of standingIn(view, now, drawn, look, input.shown))
        layers.push({
          ...{ marks, x: corner[0], y: corner[1], clip: clipOf(view, within), inked: inkedIn(view, now) },
        });
    // What goes with the pointer is always painted, over the other pictures too.
    const under = name === 'camera' ? [] : underPointerOf(task, view, input.css, look);
    if (under.length)
      layers.push({
        ...{ marks: under, x: corner[0], y: corner[1], clip: clipOf(view, 'picture'), inked: inkedIn(view, now) },
      });
  };

  if (slots.main) shownIn('camera', slots.main);
  if (slots.beside && input.shown.snapshot) {
    const { snapshot } = input.shown;
    const then = snapshotFrame(snapshot, project);
    if (then)
      pictures.push({
        ...{ ...all, name: 'snapshot', frame: then, style: 'main', light: mainLight, layers: [], tints: null },
        rect: rectOf(cornerOf('camera', slots.beside), plateSize(slots.beside)),
        poses: momentOf(project, snapshot.time).poses,
      });
  }
  for (const { name, slot } of slots.panes) {
    if (name !== 'screens') {
      shownIn(name, slot);
      continue;
    }
    const { scale, places } = screens(project.screens.sizes, slot);
    for (const [i, one] of screenFrames(input.rested, project.screens).entries()) {
      if (!one) continue;
      const { viewport: v } = one;
      const x = slot.x + places[i]!.x + v.x * scale;
      const y = slot.y + caption + places[i]!.y + v.y * scale;
      pictures.push({
        ...{ ...all, name: `screen ${i}`, frame: one, style: 'main', light: mainLight, layers: [] },
        rect: rectOf([x, y], { width: v.width * scale, height: v.height * scale }),
      });
    }
  }
  if (slots.main) layers.push(pointerLayer(now, input, task, look, slots.main));
  return { pictures, layers };
}

/** What goes with the pointer over the camera's picture. */
function pointerLayer(now: Moment, { css }: PicturesInput, task: OpenTask | null, look: Look, slot: Slot): Layer {
  const view = viewOf('camera', now.frame, plateSize(slot));
  const { size, scale } = view;
  const [x, y] = cornerOf('camera', slot);
  return {
    ...{ x, y, inked: '', clip: clipOf(view, 'rulers') },
    marks: [
      ...underPointerOf(task, view, css, look),
      ...rulerFigures(now, css, size.width, size.height),
      ...pointerMarks(now, css, size.width, size.height, scale),
    ],
  };
}
