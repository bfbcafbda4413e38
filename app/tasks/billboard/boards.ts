import {
  billboard,
  facePoint,
  modesApart,
  type Billboard,
  type BillboardMode,
} from '../../../core/billboard/billboard';
import { axesOf, readingOf, type ItemAxes, type Reading } from '../../../core/billboard/lettering';
import { screenSize, type SizeAt } from '../../../core/billboard/size';
import { reframed, type CameraFrame } from '../../../core/camera/frame';
import { angleBetween, turnBetween } from '../../../core/convert/compare';
import {
  pixelToPicture,
  pictureToViewRuf,
  viewRufToWorld,
  worldToPixel,
  worldToViewRuf,
} from '../../../core/convert/project';
import { transformPoint } from '../../../core/math/mat4';
import { add, addScaled, dot, negate, scale, type Vec2, type Vec3 } from '../../../core/math/vec3';
import { faultySource } from '../../../core/pick/faults';
import { mapPicture, type PictureMap } from '../../pictures/compose/contourLines';
import type { Size } from '../../pictures/compose/contract';
import { memo } from '../../state/memo';
import { momentOf, type Moment } from '../../state/moment';
import type { BillboardState, Board } from './kept';

/* What Billboard's sheet, pictures and queries have in common: each worked out once, here. */

type Now = Moment<BillboardState>;

/** Where a board stands now: with its body, or in the world; null where its body is gone. */
export function placeOf({ placed }: Pick<Now, 'placed'>, { body, at }: Pick<Board, 'body' | 'at'>): Vec3 | null {
  if (body === null) return at;
  const of = placed.get(body);
  return of ? add(transformPoint(of.toWorld, [0, 0, 0]), at) : null;
}

/** The board that the sheet is about; null without one. */
export const chosenOf = ({ boards, chosen }: BillboardState): Board | null =>
  boards.find(({ id }) => id === chosen) ?? null;

const before = memo((frame: CameraFrame, turnRate: number, speed: number, frameTime: number): CameraFrame | null => {
  const still = { angles: { yaw: 0, pitch: 0, roll: 0 }, offset: [0, 0] as Vec2 };
  const terms = { shake: still, recoil: 0, turnRate, velocity: scale(frame.right, speed), frameTime, aspect: 1, devicePixelRatio: 1 }; // prettier-ignore
  return faultySource(frame, [0, 0], 'frameBefore', terms)?.frame ?? null;
});

/**
 * The camera of the frame before: where it stood then by the project's own motion, and turned and
 * moved back by the rates that are set. Null where that leaves the doubles.
 */
export function beforeNow({ slice, project, time, frame }: Now): CameraFrame | null {
  const dt = 1 / slice.stale.frameRate;
  const then = time > 0 ? momentOf(project, Math.max(0, time - dt)).frame : frame;
  return before(then, slice.stale.turnRate, slice.stale.speed, dt);
}

/** A board as an item of the core. */
export const itemOf = (frame: CameraFrame, position: Vec3, board: Board, mode: BillboardMode = board.mode): Billboard =>
  billboard(frame, position, mode, board.axis);

/** A board's place and axes by its own mode; null where its body is gone. */
export function basisPlace(
  now: Pick<Now, 'placed'>,
  board: Board,
  frame: CameraFrame,
): (ItemAxes & { position: Vec3 }) | null {
  const position = placeOf(now, board);
  return position && { position, ...axesOf(itemOf(frame, position, board), null) };
}

/** The four corners of a board, from its lower left as its lettering runs. */
export const cornersOf = ({ position, along, up }: Pick<ItemAxes, 'along' | 'up'> & { position: Vec3 }, [w, h]: Vec2): Vec3[] =>
  ([[-1, -1], [1, -1], [1, 1], [-1, 1]] as const).map(([x, y]) => addScaled(addScaled(position, along, (x * w) / 2), up, (y * h) / 2)); // prettier-ignore

/** A board as it is drawn. */
export interface DrawnBoard {
  readonly board: Board;
  readonly mode: BillboardMode;
  /** One of the copies of the chosen board. */
  readonly chosen: boolean;
  /** Where it is drawn. */
  readonly position: Vec3;
  readonly axes: ItemAxes;
  readonly size: Vec2;
  readonly opacity: number;
  readonly reading: Reading;
  /** Not drawn by a rasteriser that leaves out back faces. */
  readonly culled: boolean;
}

/** The size of a board now: its own, or what keeps it so large on the screen. */
export function sizeNow(
  { slice, frame }: Now,
  board: Board,
  position: Vec3,
): { size: Vec2; opacity: number; kept: SizeAt | null } {
  if (!slice.screen.on) return { size: board.size, opacity: 1, kept: null };
  const found = screenSize(frame, position, slice.screen);
  if (!found.ok) return { size: board.size, opacity: 1, kept: null };
  const { height, opacity } = found.value;
  return { size: [(height * board.size[0]) / board.size[1], height], opacity, kept: found.value };
}

const drawn = memo((now: Now): readonly DrawnBoard[] => {
  const { slice, frame } = now;
  const stale = slice.stale.on ? beforeNow(now) : (now.stale.billboards ?? null);
  return slice.boards.flatMap((board): DrawnBoard[] => {
    const own = placeOf(now, board);
    if (!own) return [];
    const chosen = board.id === slice.chosen;
    const { size, opacity } = sizeNow(now, board, own);
    if (opacity === 0) return [];
    const shown = chosen && slice.shown.length ? slice.shown : [board.mode];
    const fault = chosen ? slice.fault : null;
    return shown.map((mode, i): DrawnBoard => {
      // The copies have the attitudes that the board has at its own place, and are drawn apart.
      const aside = slice.apart ? (i - (shown.length - 1) / 2) * size[0] * 1.16 : 0;
      const position = addScaled(own, frame.right, aside);
      const axes = axesOf(itemOf(stale ?? frame, own, board, mode), fault);
      const reading = readingOf(frame, position, axes, fault);
      return {
        board,
        mode,
        chosen,
        position,
        axes,
        size,
        opacity,
        reading,
        culled: slice.cull && reading.shows === 'back',
      };
    });
  });
});
/** Every board as it is drawn now; the chosen one by its copies. */
export const drawnNow = (now: Now): readonly DrawnBoard[] => (now.flat ? [] : drawn(now));

/** A board of a flat world: its right and up on it. */
export interface FlatBoard {
  readonly board: Board;
  readonly position: Vec3;
  readonly axes: ItemAxes;
  readonly size: Vec2;
}
/** The boards of a flat world: upright on the screen, or as they lie in the world; as large as they are, or on the screen. */
export function flatNow(now: Now): readonly FlatBoard[] {
  const { slice, frame } = now;
  const axes: ItemAxes = slice.upright
    ? { along: frame.right, up: frame.up, front: [0, 0, 1] }
    : { along: [1, 0, 0], up: [0, 1, 0], front: [0, 0, 1] };
  return slice.boards.flatMap((board): FlatBoard[] => {
    const position = placeOf(now, board);
    return position ? [{ board, position, axes, size: sizeNow(now, board, position).size }] : [];
  });
}

/** What a board that was turned for the frame before is off by. */
export interface Stale {
  /** Between the two normals, and of the turn from the one attitude to the other; radians. */
  readonly angle: number;
  readonly turn: number;
  /** The farthest that a corner is off, in pixels of the viewport; null where one has no place. */
  readonly pixels: number | null;
}
export function staleOf(
  frame: CameraFrame,
  then: CameraFrame,
  position: Vec3,
  board: Board,
  mode: BillboardMode,
): Stale {
  const [now, old] = [itemOf(frame, position, board, mode), itemOf(then, position, board, mode)];
  const places = [now, old].map((item) => cornersOf({ position, ...axesOf(item, null) }, board.size).map((p) => worldToPixel(frame, p))); // prettier-ignore
  let pixels: number | null = 0;
  places[0]!.forEach((at, i) => {
    const other = places[1]![i]!;
    if (!at.ok || !other.ok) pixels = null;
    else if (pixels !== null)
      pixels = Math.max(pixels, Math.hypot(at.value[0] - other.value[0], at.value[1] - other.value[1]));
  });
  return { angle: angleBetween(now.normal, old.normal), turn: turnBetween(now.quaternion, old.quaternion), pixels };
}

/** Returns the error of a board in a mode at another rate of turn, in radians a second. */
export function staleAt(now: Now, position: Vec3, board: Board, turnRate: number, mode: BillboardMode): Stale | null {
  const { speed, frameRate } = now.slice.stale;
  const then = before(now.frame, turnRate, speed, 1 / frameRate);
  return then && staleOf(now.frame, then, position, board, mode);
}

const differences = memo(
  (frame: CameraFrame, ahead: number, a: BillboardMode, b: BillboardMode, axis: Vec3, level: number): PictureMap =>
    mapPicture(
      frame,
      (pixel) => {
        const place = viewRufToWorld(frame, pictureToViewRuf(frame, ...pixelToPicture(frame, pixel), ahead));
        return modesApart(frame, place, [a, b], axis);
      },
      (most) => (level < most ? [level] : []),
    ),
);
/** By how many radians two modes differ over the picture, as far ahead as the chosen board; null where nothing is held against anything. */
export function differencesNow(now: Now): PictureMap | null {
  const { slice, frame } = now;
  const board = chosenOf(slice);
  const position = board && placeOf(now, board);
  if (!board || !position || slice.contour === null) return null;
  const ahead = Math.max(worldToViewRuf(frame, position)[2], frame.near);
  return differences(frame, ahead, ...slice.pair, board.axis, slice.contour);
}

/** What comes of facing a point ahead of the eye in the place of the reversed gaze. */
export interface PointAhead {
  /** Between the two normals, radians. */
  readonly angle: number;
  /** It shows its back to the viewer. */
  readonly away: boolean;
}
export function pointAheadOf({ frame, slice }: Now, position: Vec3): PointAhead | null {
  const item = facePoint(frame, position, addScaled(frame.eye, frame.forward, slice.ahead));
  if (!item) return null;
  const against = negate(frame.forward);
  const toEye = frame.kind === 'perspective' ? addScaled(frame.eye, position, -1) : against;
  return { angle: angleBetween(item.normal, against), away: dot(item.normal, toEye) < 0 };
}

/** The part of the picture round the chosen board, enlarged: the same eye and the same gaze. */
export function closeFrame(now: Now, size: Size): CameraFrame | null {
  const { slice, frame, flat } = now;
  const board = chosenOf(slice);
  const position = !flat && board ? placeOf(now, board) : null;
  if (!board || !position) return null;
  const [r, u, f] = worldToViewRuf(frame, position);
  const perspective = frame.kind === 'perspective';
  if (perspective && f < frame.near) return null;
  const k = perspective ? frame.near / f : 1;
  const { size: own } = sizeNow(now, board, position);
  const across = slice.apart ? Math.max(1, slice.shown.length) * 1.16 : 1.3;
  const half = Math.max((own[0] * across) / 2 + own[1] * 0.3, (own[1] * 1.5 * size.width) / size.height / 2) * k;
  const tall = (half * size.height) / size.width;
  const { extents: e } = frame;
  const [w, h] = [Math.sign(e.right - e.left) * half, Math.sign(e.top - e.bottom) * tall];
  return reframed(
    frame,
    { left: r * k - w, right: r * k + w, bottom: u * k - h, top: u * k + h },
    { x: 0, y: 0, width: Math.max(1, size.width), height: Math.max(1, size.height) },
  );
}
