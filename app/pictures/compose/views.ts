import type { PicturesInput } from './picturesInput';
import type { CameraFrame } from '../../../core/camera/frame';
import type { Vec2 } from '../../../core/math/vec3';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { PictureView, Size } from './contract';
import { outsideFrame, planFrame, sectionFrame, worldFrame } from './drawings';
import { caption, plateSize, rulerX, rulerY, type Slot } from './slots';
import type { OpenTask } from './taskMarks';
import { pictureView } from './view';

// A frame that is the same is the same picture, which is not drawn again.
const plan = memo(planFrame);

const world = memo(worldFrame);

const section = memo(sectionFrame);

const outside = memo(outsideFrame);

const sized = (name: string) =>
  memo((frame: CameraFrame, width: number, height: number) => pictureView(name, frame, { width, height }));

const views = new Map<string, ReturnType<typeof sized>>();

/** Returns the view of a picture: the same object while frame and size are the same. */
export function viewOf(name: string, frame: CameraFrame, { width, height }: Size): PictureView {
  const own = views.get(name) ?? sized(name);
  views.set(name, own);
  return own(frame, width, height);
}

/** Returns the view of a picture in its slot; null for panes that the renderer does not draw. */
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
export const cornerOf = (name: string, { x, y }: Slot): Vec2 =>
  name === 'camera' ? [x + rulerX, y + caption + rulerY] : [x, y + caption];
