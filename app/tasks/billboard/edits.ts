import type { Draft } from 'immer';
import { degrees } from '../../../core/math/angle';
import { addScaled, distance, type Vec3 } from '../../../core/math/vec3';
import { moveEye, turnTo } from '../../edits/camera';
import { newId } from '../../state/crashLog';
import { endGesture } from '../../state/document';
import { editSlice } from '../../state/slices';
import { currentTaskMoment } from '../../state/tempo';
import { chosenOf, placeOf } from './boards';
import { mostBoards, type BillboardState, type Board } from './kept';

export const change = (name: string, recipe: (draft: Draft<BillboardState>) => void, gesture?: string): void =>
  editSlice<BillboardState>('billboard', name, recipe, gesture ?? null);

/** Changes the board that the sheet is about. */
export const changeBoard = (name: string, recipe: (draft: Draft<Board>) => void, gesture?: string): void =>
  change(
    name,
    (draft) => {
      const board = draft.boards.find(({ id }) => id === draft.chosen);
      if (board) recipe(board);
    },
    gesture,
  );

/** A new board in the middle of the picture, as far ahead as the probe or a third of the scene. */
export function addBoard(): void {
  const { frame, chain, flat, sceneBounds, slice } = currentTaskMoment<BillboardState>('billboard');
  if (slice.boards.length >= mostBoards) return;
  const id = newId();
  const probed = chain.ok && chain.value.viewRuf[2] > frame.near ? chain.value.viewRuf[2] : null;
  const ahead = probed ?? Math.max(frame.near * 2, sceneBounds.radius / 3);
  const place = flat ? ([frame.eye[0], frame.eye[1], 0] as Vec3) : addScaled(frame.eye, frame.forward, ahead);
  const tall = flat ? sceneBounds.radius / 20 : ahead / 16;
  const round = (v: number) => Number(v.toPrecision(3));
  change('add a board', (draft) => {
    const names = new Set(draft.boards.map(({ name }) => name));
    let number = draft.boards.length + 1;
    while (names.has(`Board ${number}`)) number++;
    draft.boards.push({
      ...{
        id,
        name: `Board ${number}`,
        text: `BOARD ${number}`,
        body: null,
        at: [round(place[0]), round(place[1]), round(place[2])],
      },
      ...{ size: [round(4 * tall), round(tall)], mode: 'viewPlane', axis: [0, 1, 0] },
    });
    draft.chosen = id;
  });
}

export const removeBoard = (): void =>
  change('delete a board', (draft) => {
    const at = draft.boards.findIndex(({ id }) => id === draft.chosen);
    if (at < 0) return;
    draft.boards.splice(at, 1);
    draft.chosen = draft.boards[Math.min(at, draft.boards.length - 1)]?.id ?? null;
  });

/** Has a board go with a body, or stand in the world: where it is seen stays. */
export function attach(body: string | null): void {
  const now = currentTaskMoment<BillboardState>('billboard');
  const board = chosenOf(now.slice);
  const place = board && placeOf(now, board);
  if (!board || !place) return;
  const origin = body === null ? ([0, 0, 0] as Vec3) : placeOf(now, { body, at: [0, 0, 0] });
  if (!origin) return;
  const round = (v: number) => Number(v.toFixed(6)) || 0;
  changeBoard('have a board go with a body', (draft) => {
    draft.body = body;
    draft.at = [round(place[0] - origin[0]), round(place[1] - origin[1]), round(place[2] - origin[2])];
  });
}

/** Moves the board that is chosen to a place in the world. */
export function moveBoard(
  to: Vec3,
  edit: (name: string, recipe: (draft: Draft<BillboardState>) => void) => void,
): void {
  const now = currentTaskMoment<BillboardState>('billboard');
  const board = chosenOf(now.slice);
  if (!board) return;
  const origin = board.body === null ? ([0, 0, 0] as Vec3) : placeOf(now, { body: board.body, at: [0, 0, 0] });
  if (!origin) return;
  edit('move a board', (draft) => {
    const own = draft.boards.find(({ id }) => id === draft.chosen);
    if (own) own.at = [to[0] - origin[0], to[1] - origin[1], to[2] - origin[2]];
  });
}

/** How steeply, in degrees below the level. */
const steep = 62;

/** Brings the camera above the chosen board, looking steeply down on it, as far from it as it now is, or nearer. */
export function lookDown(): void {
  const now = currentTaskMoment<BillboardState>('billboard');
  const board = chosenOf(now.slice);
  const place = board && placeOf(now, board);
  if (!board || !place || now.flat) return;
  const { frame } = now;
  const gesture = `look down ${performance.now()}`;
  const far = Math.min(distance(frame.eye, place), 9 * Math.max(...board.size)) || 10;
  const level = Math.hypot(frame.forward[0], frame.forward[2]) || 1;
  const [x, z] = [frame.forward[0] / level, frame.forward[2] / level];
  const [along, above] = [far * Math.cos((steep * Math.PI) / 180), far * Math.sin((steep * Math.PI) / 180)];
  const round = (v: number) => Number(v.toFixed(3)) || 0;
  const range = Math.max(far, frame.near * 1.5);
  moveEye([round(place[0] - (x * along * range) / far), round(place[1] + (above * range) / far), round(place[2] - (z * along * range) / far)], gesture); // prettier-ignore
  turnTo(degrees(Math.atan2(x, -z)), -steep, gesture);
  endGesture();
}
