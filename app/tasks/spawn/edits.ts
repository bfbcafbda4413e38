import type { Draft } from 'immer';
import { moveTo } from '../../sheet/moveTo';
import { newId } from '../../state/crashLog';
import { editSlice } from '../../state/slices';
import { currentTaskMoment } from '../../state/tempo';
import { mostDiscs, type FrameEvent, type SpawnState } from './kept';
import { termsNow } from './terms';

export const change = (name: string, recipe: (draft: Draft<SpawnState>) => void, gesture?: string): void =>
  editSlice<SpawnState>('spawn', name, recipe, gesture ?? null);

/** A disc to keep away from, beside what is seen. */
export function addDisc(): void {
  const now = currentTaskMoment<SpawnState>('spawn');
  const terms = termsNow(now);
  const { slice } = now;
  if (slice.discs.length >= mostDiscs) return;
  const wide = Math.abs(slice.max[0] - slice.min[0]);
  const [x, y] = typeof terms === 'string' ? [0, 0] : terms.middle;
  const id = newId();
  const round = (v: number) => Number(v.toPrecision(3));
  change('add a disc', (draft) => {
    const names = new Set(draft.discs.map(({ name }) => name));
    let number = draft.discs.length + 1;
    while (names.has(`Disc ${number}`)) number++;
    draft.discs.push({
      id,
      name: `Disc ${number}`,
      centre: [round(x + wide / 4), round(y)],
      distance: round(wide / 12),
    });
  });
}

export const rollSeed = (): void => change('take another seed', (draft) => void draft.seed++);

/** Moves an event of the first frame to another place among them. */
export const moveEvent = (event: FrameEvent, to: number): void =>
  change('change the order of the first frame', (draft) => moveTo(draft.first.order, event, to));
