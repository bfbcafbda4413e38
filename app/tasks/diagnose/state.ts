import { listOf } from '../../../core/quantities/numbers';
import type { Query } from '../../../core/compute/operations';
import * as z from 'zod';
import { pastedRoles, type PastedRole } from '../../../formats/pasted';
import type { Slice } from '../../state/slices';
import { harbourLog } from './log';
import { askedNow } from './reading';

/** What the user says of something that was read: its role, or how a matrix was printed. */
export interface Correction {
  /** Where it begins in the text. */
  from: number;
  role: PastedRole | null;
  /** Whether the numbers are to be taken the other way than they are listed. */
  turned: boolean | null;
}
/** The longest text that is kept. */
export const mostText = 100_000;

export interface DiagnoseState {
  /** What was pasted. */
  text: string;
  corrections: Correction[];
  /** How many digits are trusted; null for as many as were printed. */
  digits: number | null;
  /** Whether the project's other cameras are among those that the engine may have used. */
  others: boolean;
  /** Which of the sets that explain the numbers is looked at: the first, or one equal to it. */
  chosen: number;
  /** Whether the engine's picture is drawn over the right one. */
  over: boolean;
  /** Which conventions under which the numbers are a proper camera are looked at. */
  candidate: number;
}

/** What Diagnose keeps: the text as it was pasted, and what was said of its reading. */
export const slice: Slice<DiagnoseState> = {
  version: 1,
  schema: z.object({
    text: z.string().max(mostText),
    corrections: listOf(
      z.object({ from: z.int().nonnegative(), role: z.enum(pastedRoles).nullable(), turned: z.boolean().nullable() }),
    ),
    digits: z.int().min(2).max(15).nullable(),
    others: z.boolean(),
    chosen: z.int().nonnegative(),
    over: z.boolean(),
    candidate: z.int().nonnegative(),
  }) as z.ZodType<DiagnoseState>,
  initial: (project) => ({
    ...{ text: project.guide === 'harbour' ? harbourLog : '', corrections: [], digits: null },
    ...{ others: true, chosen: 0, over: true, candidate: 0 },
  }),
  queries: (_, now): Query[] => [...(askedNow(now)?.request.queries ?? [])] as Query[],
};
