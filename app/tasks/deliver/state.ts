import { listOf } from '../../../core/quantities/numbers';
import * as z from 'zod';
import { deliverLanguages } from '../../../core/deliver/languages';
import { codeParts, type CodePart } from '../../../core/deliver/library';
import type { Naming, NumberType } from '../../../core/deliver/print';
import { widestPicture } from '../../pictures/contract';
import type { Slice } from '../../state/slices';

export const languageNames = deliverLanguages.map(({ name }) => name) as [string, ...string[]];
export const namings = ['own', 'snake', 'camel', 'pascal'] as const satisfies readonly Naming[];

export interface DeliverState {
  language: string;
  parts: CodePart[];
  number: NumberType;
  naming: Naming;
  /** Whether the camera's own numbers stand in the code. */
  constants: boolean;
  /** Points of the test vectors, and their seed. */
  count: number;
  seed: number;
  /** How wide a saved picture is, in pixels. */
  wide: number;
}
/** The most points of test vectors. */
export const mostVectors = 1000;

/** What Deliver keeps: how the code is wanted. */
export const slice: Slice<DeliverState> = {
  version: 1,
  schema: z.object({
    language: z.enum(languageNames),
    parts: listOf(z.enum(codeParts)),
    number: z.enum(['double', 'float']),
    naming: z.enum(namings),
    constants: z.boolean(),
    count: z.int().min(1).max(mostVectors).default(24),
    seed: z.int().min(1).max(100_000).default(1),
    wide: z.int().min(1).max(widestPicture).default(1920),
  }) as z.ZodType<DeliverState>,
  initial: () => ({
    ...{ language: 'C++', parts: ['camera', 'worldToScreen', 'screenToWorld', 'ray'], number: 'double', naming: 'own' },
    ...{ constants: true, count: 24, seed: 1, wide: 1920 },
  }),
};
