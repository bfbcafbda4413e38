import * as z from 'zod';
import { listOf } from '../../../core/quantities/numbers';
import { pastedRoles } from '../../../formats/pasted';
import { roles2d } from '../../../formats/pasted2d';

/** The longest text that is saved. */
export const mostText = 100_000;

/** A reading of the text that the user corrects: its role, or how a matrix was printed. */
const correction = z.object({
  /** Where the reading begins in the text. */
  from: z.int().nonnegative(),
  role: z.enum([...new Set([...pastedRoles, ...roles2d])]).nullable(),
  /** Whether the numbers are listed the other way than they seem to be. */
  turned: z.boolean().nullable(),
});

/** Diagnose's state in the project: the pasted text, and the corrections of its reading. */
export const diagnoseState = z.object({
  text: z.string().max(mostText),
  corrections: listOf(correction),
  /** Trusted digits; null for as many as were printed. */
  digits: z.int().min(2).max(15).nullable(),
  /** Whether the project's other cameras are among those that the engine may have used. */
  others: z.boolean(),
  /** The chosen one of the equivalent sets of faults; 0 is the first. */
  chosen: z.int().nonnegative(),
  /** Whether the engine's picture is drawn over the right one. */
  over: z.boolean(),
  /** The chosen one of the conventions under which the numbers are a proper camera. */
  candidate: z.int().nonnegative(),
});
export type DiagnoseState = z.infer<typeof diagnoseState>;
export type Correction = z.infer<typeof correction>;
