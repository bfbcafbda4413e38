import * as z from 'zod';
import type { BillboardMode } from '../../../core/billboard/billboard';
import { letteringFaults, type LetteringFault } from '../../../core/billboard/lettering';
import { signedAxes, type SignedAxis } from '../../../core/conventions/axes';
import { listOf, vec2Schema, vec3Schema } from '../../../core/compute/valueSchemas';
import type { Query } from '../../../core/compute/schema';
import type { Vec3 } from '../../../core/math/vec3';
import type { Project } from '../../../formats/project';
import { writeCamera } from '../../../core/compute/write';
import type { Slice } from '../../state/slices';
import { basisPlace, beforeNow, cornersOf, placeOf } from './boards';

export const modes = ['viewPlane', 'eyePoint', 'axisEye', 'axisView'] as const satisfies readonly BillboardMode[];

type Triple = [number, number, number];

/** A board with lettering that faces the viewer. */
export interface Board {
  id: string;
  name: string;
  /** What is written on it. */
  text: string;
  /** The body that it goes with, or null; and where it is, from that body's origin or in the world. */
  body: string | null;
  at: Triple;
  /** Width and height in world units. */
  size: [number, number];
  mode: BillboardMode;
  /** What it turns about, in the modes about an axis. */
  axis: Triple;
}
export const mostBoards = 200;

export interface BillboardState {
  boards: Board[];
  /** The board that the sheet is about. */
  chosen: string | null;
  /** The modes of which the chosen board has a copy, and whether the copies stand apart. */
  shown: BillboardMode[];
  apart: boolean;
  /** The two modes that are held against each other over the picture, and by how many degrees they differ along the line; null for none. */
  pair: [BillboardMode, BillboardMode];
  contour: number | null;
  /** The axes of the mesh that is turned: letters of the conventions in force. */
  front: SignedAxis;
  up: SignedAxis;
  /** What the engine gets wrong, and whether it leaves out back faces. */
  fault: LetteringFault | null;
  cull: boolean;
  /** An eye that passes over: units beside the axis, units a second, units above, degrees of the cone. */
  pass: { offset: number; speed: number; height: number; hold: number };
  /** A constant size on the screen. */
  screen: { on: boolean; pixels: number; nearest: number; farthest: number; fade: [number, number] };
  /** Whether boards are turned before the camera has moved; how fast that turns, degrees a second of yaw, and moves to its right, units a second. */
  stale: { on: boolean; turnRate: number; speed: number; frameRate: number };
  /** How far ahead of the eye a point is that boards are told to face by mistake; world units. */
  ahead: number;
  /** Whether the boards of a flat world stay upright on the screen. */
  upright: boolean;
}

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

const mode = z.enum(modes);
const positive = z.number().positive();

/** What Billboard keeps: places in canonical space, angles in degrees. */
export const slice: Slice<BillboardState> = {
  version: 1,
  schema: z.object({
    boards: listOf(
      z.object({
        ...{ id: z.string().min(1), name: z.string().min(1), text: z.string().max(40) },
        ...{ body: z.string().nullable(), at: vec3Schema, size: z.tuple([positive, positive]), mode, axis: vec3Schema },
      }),
    ).max(mostBoards),
    chosen: z.string().nullable(),
    shown: listOf(mode).max(modes.length),
    apart: z.boolean(),
    pair: z.tuple([mode, mode]),
    contour: positive.max(180).nullable(),
    front: z.enum(signedAxes as [SignedAxis, ...SignedAxis[]]),
    up: z.enum(signedAxes as [SignedAxis, ...SignedAxis[]]),
    fault: z.enum(letteringFaults).nullable(),
    cull: z.boolean(),
    pass: z.object({ offset: z.number().nonnegative(), speed: positive, height: z.number(), hold: z.number().min(0).max(80) }), // prettier-ignore
    screen: z.object({ on: z.boolean(), pixels: positive, nearest: positive, farthest: positive, fade: vec2Schema }),
    stale: z.object({ on: z.boolean(), turnRate: z.number(), speed: z.number(), frameRate: positive }),
    ahead: positive,
    upright: z.boolean(),
  }) as z.ZodType<BillboardState>,
  initial: (project) => {
    const list = boards(project);
    return {
      ...{ boards: list, chosen: list[0]?.id ?? null, shown: [...modes], apart: true },
      ...{ pair: ['viewPlane', 'eyePoint'], contour: 10, front: '+z', up: '+y', fault: null, cull: true },
      pass: { offset: 0.5, speed: 6, height: 10, hold: 0 },
      screen: { on: false, pixels: 28, nearest: 10, farthest: 120, fade: [90, 120] },
      stale: { on: false, turnRate: 90, speed: 20, frameRate: 60 },
      ...{ ahead: 40, upright: true },
    };
  },
  reread: (kept, from, to) => {
    const carried = (p: Vec3): Triple => [...to.fromWorld(from.toWorld(p))];
    return { ...kept, boards: kept.boards.map((one) => ({ ...one, at: carried(one.at), axis: carried(one.axis) })) };
  },
  forget: (kept, gone) => {
    const boards = kept.boards.filter(({ body }) => body === null || !gone.has(body));
    const chosen = boards.some(({ id }) => id === kept.chosen) ? kept.chosen : (boards[0]?.id ?? null);
    return boards.length === kept.boards.length ? kept : { ...kept, boards, chosen };
  },
  queries: (kept, now) => {
    const { codec: e, flat, frame } = now;
    const written = (p: Vec3): Triple => [...e.toWorld(p)];
    const list = kept.boards.flatMap((board) => {
      const position = placeOf(now, board);
      return position ? [{ board, position }] : [];
    });
    if (!list.length) return [];
    const points = list.map(({ position }) => (flat ? [...e.toWorld(position)].slice(0, 2) : written(position)));
    const seen: Query = { id: 'boards on the screen', op: 'worldToScreen', points } as Query;
    if (flat) return [seen];
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
