import { quatOfBasis } from '../../../core/camera/orientation';
import type { Draft } from 'immer';
import { multiplyQuat, quatAbout } from '../../../core/math/quat';
import { addScaled, type Vec3 } from '../../../core/math/vec3';
import { sizeAt } from '../../../core/convert/project';
import { triangleAt } from '../../../core/order/faces';
import type { Hit } from '../../../core/pick/pick';
import type { ProjectBody } from '../../../formats/project';
import { bringIn } from '../../edits/bodies';
import { jumpTo } from '../../sheet/Sections';
import { editSlice } from '../../state/slices';
import { currentMoment } from '../../state/tempo';
import { say } from '../../ui/notices';
import type { OrderState } from './kept';
import { slice } from './state';

export const change = (name: string, recipe: (draft: Draft<OrderState>) => void, gesture?: string): void =>
  editSlice<OrderState>('order', name, recipe, gesture ?? null);

/** Follows the face that was clicked. */
export function followHit({ body, point }: Hit, gesture: string): void {
  const { placed, flat } = currentMoment();
  const own = placed.get(body);
  const triangle = own && !flat ? triangleAt(own, point) : -1;
  if (triangle >= 0)
    change('follow a face', (draft) => void (draft.followed = { kind: 'face', body, triangle }), gesture);
}

/** Follows the polygon that a project begins with. */
export function followFirst(): void {
  const { project } = currentMoment();
  const { followed } = slice.initial(project);
  change('follow a polygon', (draft) => void (draft.followed = followed));
}

/** Turns a moment's face into a polygon of its own, whose corners can be moved. */
export function freeCorners(polygon: readonly Vec3[], name: string): void {
  change('free the corners', (draft) => {
    draft.followed = { kind: 'polygon', name: `${name}, free`, corners: polygon.map((p) => [...p]) };
  });
}

export const toggleGhosts = (): void =>
  change('show or hide the ghosts', (draft) => void (draft.ghosts = !draft.ghosts));

/**
 * Lays three spars over one another in a ring before the camera, each over the next: no order of
 * whole bodies paints them right.
 */
export function layRing(): void {
  const { frame, chain, flat, sceneBounds, project } = currentMoment();
  const within =
    chain.ok && chain.value.viewRuf[2] > frame.near * 1.2 ? chain.value.viewRuf[2] * 0.6 : sceneBounds.radius;
  const least = frame.near * 2;
  const ahead = flat ? 0 : Math.max(least, Math.min(within, (frame.far ?? Infinity) * 0.4));
  const size = Math.min(...sizeAt(frame, ahead)) * 0.45;
  const middle: Vec3 = flat ? [frame.eye[0], frame.eye[1], 0] : addScaled(frame.eye, frame.forward, ahead);
  const turned = quatOfBasis(frame);
  const long = size;
  const spars = [0, 120, 240].map((angle, i): ProjectBody => {
    const a = (angle * Math.PI) / 180;
    const out = long * 0.235;
    const position = addScaled(addScaled(middle, frame.right, -out * Math.sin(a)), frame.up, out * Math.cos(a));
    const tilt = flat ? ([0, 0, 0, 1] as const) : quatAbout([0, 1, 0], (20 * Math.PI) / 180);
    const rotation = multiplyQuat(turned, multiplyQuat(quatAbout([0, 0, 1], a), tilt));
    return {
      ...{ id: `spar-${i + 1}`, name: `Spar ${i + 1}`, tone: (['white', 'roof', 'stone'] as const)[i]! },
      ...{ shape: { kind: 'box', size: [long, long * 0.1, long * 0.045] }, scale: [1, 1, 1], parent: null },
      ...{ position: [...position], rotation: [...rotation], castsShadow: true, fixed: false, handle: [0, 0, 0] },
      motion: null,
    };
  });
  if (!bringIn(spars, 'A ring of spars').length) return;
  jumpTo('order-draw');
  say(
    `Laid three spars in a ring ${flat ? 'in the picture' : 'before the camera'} of ${project.name}. Undo takes them away.`,
  );
}
