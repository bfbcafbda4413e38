import * as z from 'zod';
import { deliverLanguages } from '../../../core/deliver/languages';
import { codeParts } from '../../../core/deliver/library';
import type { Naming } from '../../../core/deliver/print';
import { listOf } from '../../../core/quantities/numbers';
import { widestPicture } from '../../pictures/compose/contract';

export const languageNames = deliverLanguages.map(({ name }) => name) as [string, ...string[]];
export const namings = ['own', 'snake', 'camel', 'pascal'] as const satisfies readonly Naming[];
/** The most points of test vectors. */
export const mostVectors = 1000;

/** Deliver's state in the project: the settings of the exported code. */
export const deliverState = z.object({
  language: z.enum(languageNames),
  parts: listOf(z.enum(codeParts)),
  number: z.enum(['double', 'float']),
  naming: z.enum(namings),
  /** Whether the camera's own numbers are in the code. */
  constants: z.boolean(),
  /** Points of the test vectors, and their seed. */
  count: z.int().min(1).max(mostVectors).default(24),
  seed: z.int().min(1).max(100_000).default(1),
  /** Width of a saved picture in pixels. */
  wide: z.int().min(1).max(widestPicture).default(1920),
});
export type DeliverState = z.infer<typeof deliverState>;
