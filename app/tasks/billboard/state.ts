import type { Query } from '../../../core/compute/operations';
import { writeCamera } from '../../../core/request/write';
import type { BillboardMode } from '../../../core/billboard/billboard';
import { radians } from '../../../core/math/angle';
import type { Vec3 } from '../../../core/math/vec3';
import type { Project } from '../../../formats/project';
import type { Slice } from '../../state/slices';
import { basisPlace, beforeNow, cornersOf, placeOf } from './boards';
import { billboardState, modes, type BillboardState, type Board } from './kept';

type Triple = [number, number, number];

const boards = (project: Project): Board[] => {
  const one = (id: string, name: string, text: string, body: string | null, at: Triple, size: [number, number], mode: BillboardMode): Board => ({ ...{ id, name, text, body, at, size, mode }, axis: [0, 1, 0] }); // prettier-ignore
  if (project.guide === 'harbour')
    return [
      one('fairway-board', 'Fairway board', 'FAIRWAY', null, [-2, 5.4, 36], [4.2, 1.5], 'axisEye'),
      one('quay-board', 'Quay board', 'SALTMARROW', null, [20, 7.2, -9], [13, 3], 'axisEye'),
      one('hen-board', 'Name board', 'MARSH HEN', 'marsh-hen', [0, 9.5, 0], [11, 2.6], 'axisEye'),
      one('tern-board', 'Name board of Tern', 'TERN', 'tern', [0, 8.5, 0], [7, 2.4], 'axisEye'),
      one('gull-1-board', 'Gull 1', 'GULL 1', 'gull-1', [0, 1.6, 0], [3.4, 1.3], 'eyePoint'),
      one('gull-2-board', 'Gull 2', 'GULL 2', 'gull-2', [0, 1.6, 0], [3.4, 1.3], 'viewPlane'),
      one('fire', 'Signal fire', 'FIRE', null, [-16, 5.2, -14.5], [2.8, 4.8], 'axisView'),
      one('tree-1', 'Tree on the shore', 'TREE', null, [38, 7.4, -14], [4.2, 7.6], 'axisEye'),
      one('tree-2', 'Second tree', 'TREE', null, [43, 7, -6], [4.2, 6.8], 'axisEye'),
    ];
  if (project.guide === 'chart')
    return [one('launch-board', 'Pilot', 'PILOT', 'launch', [0, 9, 0], [26, 8], 'viewPlane')];
  return [];
};

/** Version 1 had its angles in degrees. */
function toRadians(older: unknown): unknown {
  const { contour, pass, stale, ...rest } = older as BillboardState;
  return {
    ...rest,
    contour: contour === null ? null : radians(contour),
    pass: { ...pass, hold: radians(pass.hold) },
    stale: { ...stale, turnRate: radians(stale.turnRate) },
  };
}

export const slice: Slice<BillboardState> = {
  version: 2,
  migrate: [toRadians],
  schema: billboardState,
  initial: (project) => {
    const list = boards(project);
    return {
      ...{ boards: list, chosen: list[0]?.id ?? null, shown: [...modes], apart: true },
      ...{ pair: ['viewPlane', 'eyePoint'], contour: radians(10), front: '+z', up: '+y', fault: null, cull: true },
      pass: { offset: 0.5, speed: 6, height: 10, hold: 0 },
      screen: { on: false, pixels: 28, nearest: 10, farthest: 120, fade: [90, 120] },
      stale: { on: false, turnRate: radians(90), speed: 20, frameRate: 60 },
      ...{ ahead: 40, upright: true },
    };
  },
  forget: (kept, gone) => {
    const boards = kept.boards.filter(({ body }) => body === null || !gone.has(body));
    const chosen = boards.some(({ id }) => id === kept.chosen) ? kept.chosen : (boards[0]?.id ?? null);
    return boards.length === kept.boards.length ? kept : { ...kept, boards, chosen };
  },
  queries: (kept, now) => {
    const { codec: e, frame, world } = now;
    const written = (p: Vec3) => world.writePoint(p, e) as Triple;
    const list = kept.boards.flatMap((board) => {
      const position = placeOf(now, board);
      return position ? [{ board, position }] : [];
    });
    if (!list.length) return [];
    const points = list.map(({ position }) => written(position));
    const seen: Query = { id: 'boards on the screen', op: 'worldToScreen', points } as Query;
    if (!world.hasDepth) return [seen];
    const item = ({ board, position }: (typeof list)[number], mode: BillboardMode) => ({
      ...{ position: written(position), size: [...board.size] as [number, number], mode, front: '+n' as const },
      ...(mode.startsWith('axis') && { axis: written(board.axis) }),
    });
    const chosen = list.find(({ board }) => board.id === kept.chosen);
    const before = beforeNow(now);
    return [
      seen,
      { id: 'boards', op: 'billboard', items: list.map((one) => item(one, one.board.mode)) },
      ...(chosen
        ? ([
            { id: 'the chosen board by every mode', op: 'billboard', items: modes.map((mode) => item(chosen, mode)) },
            ...(before
              ? [
                  {
                    ...{ id: 'the frame before', op: 'compareCameras', camera: writeCamera(before, e) },
                    items: modes.map((mode) => item(chosen, mode)),
                  },
                  {
                    ...{ id: 'corners now', op: 'worldToScreen' },
                    points: cornersOf(basisPlace(now, chosen.board, frame)!, chosen.board.size).map(written),
                  },
                ]
              : []),
          ] as Query[])
        : []),
    ];
  },
};
