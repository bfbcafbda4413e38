import type { CameraFrame } from '../../../core/camera/frame';
import { codecOf } from '../../../core/conventions/codec';
import { projectFrame } from '../../../formats/camera';
import type { Project, Snapshot } from '../../../formats/project';
import { remembered } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { PictureView } from './contract';
import { pictureCorners } from './drawings';
import type { Mark } from './marks';

/** The snapshot that is shown, and how. */
export interface Shown {
  readonly snapshot: Project['snapshots'][number] | null;
  readonly how: 'beside' | 'reticle';
}

/* Frames that were set aside, shown beside the present one. */

const codec = remembered(codecOf);
const frames = remembered(({ camera, viewport }: Snapshot) =>
  remembered((conventions: Project['conventions']): CameraFrame | null => {
    const made = projectFrame({ camera, viewport }, codec(conventions));
    return made.ok ? made.value : null;
  }),
);

/** The frame of a snapshot; null for one of a camera that could not be. */
export const snapshotFrame = (snapshot: Snapshot, { conventions }: Pick<Project, 'conventions'>): CameraFrame | null =>
  frames(snapshot)(conventions);

/**
 * A second reticle: the edges of the snapshot's picture at the probe's distance ahead of it, and
 * its middle, as the present camera shows them.
 */
export function snapshotMarks(view: PictureView, { chain, project, flat }: Moment, shown: Shown): Mark[] {
  const { snapshot, how } = shown;
  const frame = snapshot && how === 'reticle' ? snapshotFrame(snapshot, project) : null;
  if (!frame) return [];
  const ahead = aheadOf(frame, chain.ok ? chain.value.world : null, flat);
  const corners = pictureCorners(frame, ahead);
  const middle = corners[0].map((v, i) => (v + corners[2][i]!) / 2) as unknown as readonly [number, number, number];
  const at = view.point(middle);
  const marks: Mark[] = [{ ink: 'second-reticle', d: view.line(corners, true) }];
  if (at) {
    marks.push({ ink: 'second-reticle', x: at[0], y: at[1], d: 'M-9 0h6M3 0h6M0 -9v6M0 3v6' });
    marks.push({ ink: 'note', x: at[0] + 12, y: at[1] + 4, text: snapshot!.name });
  }
  return marks;
}

/** How far ahead of a frame its edges are shown: at the probe if that is ahead. */
function aheadOf(frame: CameraFrame, probe: readonly [number, number, number] | null, flat: boolean): number {
  if (flat) return 0;
  const d = probe ? frame.forward.reduce((sum, f, i) => sum + f * (probe[i]! - frame.eye[i]!), 0) : 0;
  return d > frame.near ? d : Math.max(frame.near * 4, (frame.far ?? frame.near * 40) / 4);
}
