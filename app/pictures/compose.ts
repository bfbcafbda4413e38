import type { CameraFrame } from '../../core/camera/frame';
import { addScaled, normalize, type Vec2, type Vec3 } from '../../core/math/vec3';
import type { Project } from '../../formats/project';
import type { Corner } from '../state/settings';
import { memo, situationOf, situationSeen, type Seen, type Situation } from '../state/situation';
import { overlays } from '../tasks/overlays';
import { drawingMarks, drawingClip, inkedIn } from './construction';
import {
  headingOf,
  planFrame,
  sectionFrame,
  worldFrame,
  type DrawingName,
  type DrawingView,
  type Size,
} from './drawings';
import type { Rect } from './labels';
import type { Mark } from './marks';
import { plateMarks } from './names';
import type { Palette } from './palette';
import type { Picture } from './renderer';
import { pointerMarks, rulerFigures } from './rulers';
import { sceneOf, type SceneBuffers } from './scene';
import { layTray, screenFrame } from './screens';
import { caption, plateSize, rulerX, rulerY, type Slot, type Slots } from './slots';
import { worldMarks } from './worldMarks';

/* What stands in the centre, made from the project and from how it is looked at: pictures for the renderer, and marks over them. */

/** How the project is looked at: all that the pictures depend on beside it. */
export interface Sight {
  /** What the camera sees where it cannot be as it is; null where that follows from the project. */
  readonly seen: Seen | null;
  /** The centre, in CSS pixels, and how many device pixels one of them is. */
  readonly size: Size;
  readonly pixel: number;
  readonly slots: Slots;
  readonly plan: DrawingView;
  readonly section: DrawingView;
  readonly corner: Corner;
  readonly theme: string;
  readonly palette: Palette;
  /** The task's. */
  readonly route: string;
  /** What the screens of the tray show: the camera when it last rested. */
  readonly rested: CameraFrame;
  /** The table's points. */
  readonly table: Float64Array | null;
  readonly selected: readonly string[];
  /** Parts of the worksheet that the user has opened or closed. */
  readonly folds: Readonly<Record<string, boolean>>;
  /** The pointer, in CSS pixels of the viewport. */
  readonly css: Vec2;
  /** Whether the marks are painted with the pictures; otherwise they are set in the page. What goes with the pointer is always painted. */
  readonly painting: boolean;
}

/** Marks that belong together: where their own pixels begin, and outside of what nothing of them is seen. */
export interface Layer {
  readonly marks: readonly Mark[];
  readonly x: number;
  readonly y: number;
  readonly clip: Rect;
  /** Classes of the drawing that the marks belong to. */
  readonly inked: string;
}

interface Composition {
  readonly scene: SceneBuffers;
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
const scene = memo(sceneOf);
const plan = memo(planFrame);
const world = memo(worldFrame);
const section = memo(sectionFrame);
const screens = memo(layTray);
const screen = (of: Sight['rested'], fit: Project['screens']['fit'], sizes: Project['screens']['sizes']) =>
  sizes.map((one) => screenFrame(of, fit, one));
const screenFrames = memo(screen);

const within = ({ x, y, width, height }: Slot, dx: number, dy: number): Rect => ({
  x: x + dx,
  y: y + caption + dy,
  width: width - 2 * dx,
  height: height - 2 * dy,
});

export function compose(project: Project, sight: Sight): Composition {
  const situation = sight.seen ? situationSeen(project, sight.seen) : situationOf(project);
  const { placed, roots, extent, flat } = situation;
  const buffers = scene(project.bodies, placed, roots, extent.centre, flat, sight.table);
  return {
    scene: buffers,
    pictures: picturesOf(situation, sight, buffers),
    layers: [...(sight.painting ? standingLayers(situation, sight) : []), ...pointerLayers(situation, sight)],
  };
}

function picturesOf(situation: Situation, sight: Sight, { families }: SceneBuffers): Picture[] {
  const { project, frame, extent, roots, flat } = situation;
  const { slots, corner } = sight;
  const ground = flat ? null : (project.ground?.height ?? null);
  /** What every picture of the present world is drawn with. */
  const all = { ground, emphasis: null, ...(flat && { flat: { tiles: project.tiles } }) };
  const pictures: Picture[] = [];
  if (slots.main)
    pictures.push({ ...all, rect: within(slots.main, rulerX, rulerY), frame, style: 'main', light: mainLight });
  if (slots.plan)
    pictures.push({
      ...all,
      rect: within(slots.plan, 0, 0),
      frame: flat ? world(sight.plan, slots.plan) : plan(sight.plan, slots.plan, extent),
      style: 'plan',
      light: planLight,
    });
  if (slots.section && corner === 'screens') {
    const { fit, sizes } = project.screens;
    const { scale, places } = screens(sizes, slots.section);
    for (const [i, made] of screenFrames(sight.rested, fit, sizes).entries()) {
      if (!made) continue;
      const { viewport: v } = made;
      const rect = {
        x: slots.section.x + places[i]!.x + v.x * scale,
        y: slots.section.y + caption + places[i]!.y + v.y * scale,
        width: v.width * scale,
        height: v.height * scale,
      };
      pictures.push({ ...all, rect, frame: made, style: 'main', light: mainLight });
    }
  } else if (slots.section && corner === 'section') {
    const { body } = project.probe;
    pictures.push({
      rect: within(slots.section, 0, 0),
      frame: section(sight.section, slots.section, frame, extent),
      style: 'section',
      ground,
      emphasis: body === null ? null : (families.get(roots.get(body)!) ?? null),
      light: sectionLight(frame),
    });
  }
  return pictures;
}

/** The plate's picture, and its layers' place and outer clip. */
function plateOf(slot: Slot, { frame }: Situation) {
  const size = plateSize(slot);
  const { x, y } = within(slot, rulerX, rulerY);
  const outer = { x: -rulerX, y: -rulerY, width: slot.width, height: slot.height };
  return { plate: { ...size, scale: size.width / frame.viewport.width }, place: { x, y, inked: '' }, outer };
}

/** What stands in the pictures whether the pointer is there or not. */
function standingLayers(situation: Situation, sight: Sight): Layer[] {
  const { slots, route, selected } = sight;
  const { flat } = situation;
  const layers: Layer[] = [];
  if (slots.main) {
    const { plate, place, outer } = plateOf(slots.main, situation);
    const { own, ground, names } = plateMarks(situation, plate, route, selected);
    layers.push(
      { ...place, clip: outer, marks: own },
      { ...place, clip: { x: 0, y: 0, width: plate.width, height: plate.height }, marks: ground },
      { ...place, clip: outer, marks: names },
    );
  }
  const drawing = (name: DrawingName, slot: Slot, marks: readonly Mark[]) =>
    layers.push({
      ...{ x: slot.x, y: slot.y + caption, marks },
      inked: inkedIn(name, situation),
      clip: drawingClip(slot),
    });
  if (slots.plan)
    drawing(
      'plan',
      slots.plan,
      flat ? worldMarks(slots.plan, sight.plan, situation) : drawingMarks('plan', slots.plan, sight.plan, situation),
    );
  if (slots.section && sight.corner === 'section')
    drawing('section', slots.section, drawingMarks('section', slots.section, sight.section, situation));
  return layers;
}

function pointerLayers(situation: Situation, sight: Sight): Layer[] {
  const { slots, css, route, folds } = sight;
  if (!slots.main) return [];
  const {
    plate: { width, height, scale },
    place,
    outer,
  } = plateOf(slots.main, situation);
  return [
    {
      ...place,
      clip: outer,
      marks: [
        ...(overlays[route]?.withPointer?.(situation, { scale, css, folds }) ?? []),
        ...rulerFigures(situation, css, width, height),
        ...pointerMarks(situation, css, width, height, scale),
      ],
    },
  ];
}
