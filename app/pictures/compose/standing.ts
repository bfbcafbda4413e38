import { type StandingLayer, inside } from './clips';
import type { Shown } from './snapshots';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { constructionOf, frustumFrom, namesOf } from './construction';
import { furnitureBoxes } from './furniture';
import { textBoxes } from './textBoxes';
import type { Drawn, Look, PictureView } from './contract';
import { drawnFar } from './drawings';
import { probeMarks, type Mark } from './marks';
import { groundMarks, nameMarks } from './names';
import { otherCameraMarks } from './otherCameraMarks';
import { placeWords } from './placement';
import { snapshotMarks } from './snapshots';
import { worldMarks } from './worldMarks';

/** Everything that stands in a picture whether the pointer is there or not. */
export const standingIn = memo(
  (view: PictureView, now: Moment, drawn: Drawn, look: Look, shown: Shown): StandingLayer[] => {
    const { marks = [], words = [] } = drawn;
    const { size } = view;
    switch (view.name) {
      case 'camera': {
        const snapshot = snapshotMarks(view, now, shown);
        const ground = now.flat ? { marks: [], words: [] } : groundMarks(view, now);
        return [
          { marks: [...marks, ...anchorMarks(view, now), ...snapshot], within: 'rulers' },
          { marks: ground.marks, within: 'picture' },
          { marks: nameMarks(view, now, look.selected, [...ground.words, ...words], textBoxes([...marks, ...snapshot])), within: 'rulers' }, // prettier-ignore
        ];
      }
      case 'plan':
      case 'section': {
        const others = otherCameraMarks(view, now);
        const names = namesOf(view, now);
        const fixed = [...names.taken, ...(view.name === 'plan' ? furnitureBoxes(view, now) : []), ...textBoxes(marks)];
        const construction = constructionOf(view, now, fixed);
        const taken = [...fixed, ...textBoxes(construction.marks)];
        const house = [...names.words, ...construction.words, ...others.words];
        const placed = placeWords([...house, ...words], inside(size, 3), taken);
        return picture([...names.marks, ...construction.marks, ...others.marks, ...marks, ...placed.marks]);
      }
      case 'world': {
        const others = otherCameraMarks(view, now);
        const world = worldMarks(view, now);
        const taken = [...world.taken, ...furnitureBoxes(view, now), ...textBoxes([...world.marks, ...marks])];
        const placed = placeWords([...world.words, ...others.words, ...words], inside(size, 3), taken);
        return picture([...world.marks, ...others.marks, ...marks, ...placed.marks]);
      }
      case 'outside': {
        const others = otherCameraMarks(view, now);
        const eye = view.point(now.frame.eye);
        const probe = now.chain.ok ? view.point(now.chain.value.world) : null;
        const own: Mark[] = frustumFrom(view, now.frame, drawnFar(now));
        if (eye) own.push({ ink: 'eye', x: eye[0], y: eye[1], d: 'M0 -5L4.5 3.5H-4.5Z' });
        if (probe) own.push(...probeMarks(probe, 5.5));
        const taken = [eye, probe].flatMap((p) => (p ? [{ x: p[0] - 9, y: p[1] - 9, width: 18, height: 18 }] : []));
        taken.push(...textBoxes(marks));
        const name = now.project.bodies.find(({ id }) => id === now.project.probe.body)?.name ?? 'Free point';
        const house = [
          ...(probe ? [{ text: name, at: probe, ink: 'name-strong' as const, priority: 0 }] : []),
          ...(eye ? [{ text: now.project.camera.name, at: eye, ink: 'note' as const, priority: 5 }] : []),
        ];
        const placed = placeWords([...house, ...others.words, ...words], inside(size, 3), taken);
        return picture([...own, ...others.marks, ...marks, ...placed.marks]);
      }
      default: {
        const placed = placeWords(words, inside(size, 3), textBoxes(marks));
        return picture([...marks, ...placed.marks]);
      }
    }
  },
);

/** Where the focus of a 2D camera lands: the cross that the world turns about. */
function anchorMarks(view: PictureView, { project }: Moment): Mark[] {
  if (project.camera.kind !== '2d') return [];
  const [x, y] = project.camera.anchor.map((v) => v * view.scale) as [number, number];
  return [{ ink: 'anchor', x, y, d: 'M-13 0h9M4 0h9M0 -13v9M0 4v9' }];
}

const picture = (marks: readonly Mark[]): StandingLayer[] => [{ marks, within: 'picture' }];
