import type { Query } from '../../../core/compute/operations';
import type { ConventionCodec } from '../../../core/conventions/codec';
import type { RequestCamera2d } from '../../../core/request/cameraSchema';
import { expressCamera2d } from '../../../formats/camera';
import { readPasted2d, type Given2dNumbers, type Reading2d } from '../../../formats/pasted2d';
import type { Project } from '../../../formats/project';
import { camera2dNow } from '../../state/cameraNow';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { Correction, DiagnoseState } from './kept';
import type { Asked } from './asked';

/* The pasted numbers where the camera is a 2D camera. */

const readingOf = memo((text: string, corrections: readonly Correction[], byColumns: boolean): Reading2d =>
  readPasted2d(text, corrections, { byColumns }),
);

/** Returns the reading of the pasted text in the current conventions. */
export const reading2dNow = ({ slice, codec }: Moment<DiagnoseState>): Reading2d =>
  readingOf(slice.text, slice.corrections, codec.listsColumns);

/** The same object while everything that is asked is the same. */
const askedFor = memo(
  (
    e: ConventionCodec,
    { width, height, devicePixelRatio }: Project['viewport'],
    mark: string,
    cameras: Project['cameras'],
    given: Given2dNumbers,
    digits: number,
  ): Asked => {
    const viewport = { x: 0, y: 0, width, height };
    const others = cameras.flatMap((one) =>
      one.kind === '2d' ? [{ name: one.name, camera: expressCamera2d(one, viewport, e) }] : [],
    );
    const query = {
      ...{ id: 'the pasted numbers', op: 'diagnose', given, digits, others: others.slice(0, 64) },
      ...(devicePixelRatio !== 1 && { devicePixelRatio }),
    };
    const request = {
      ...{ astrolabe: 1, conventions: e.conventions, viewport },
      ...{ camera: JSON.parse(mark) as RequestCamera2d },
      queries: [query, { id: 'by themselves', op: 'identify', given, digits }] as unknown as Query[],
    } as Asked['request'];
    return { mark: JSON.stringify(request), request };
  },
);

/** Returns the request that answers for the sheet; null where there is nothing to ask. */
export function asked2dNow(now: Moment<DiagnoseState>): Asked | null {
  const { given, digits } = reading2dNow(now);
  if (!given || now.seen.problems.length) return null;
  const { project, codec, slice } = now;
  const cameras = slice.others ? project.cameras : [];
  return askedFor(codec, project.viewport, JSON.stringify(camera2dNow(now)), cameras, given, slice.digits ?? digits);
}
