import type { MarksTable } from '../pictures/contract';
import type { SliceTable } from '../state/slices';
import { taskNames } from './names';
import type { AnyTask } from './task';

/* The tasks as the page knows them, from `names.ts` and the folders of those names. */

const pages = import.meta.glob<{ default: Omit<AnyTask, 'route'> }>('./*/index.ts', { eager: true });

const order = '1234567890';
const place = (key: string): number => (order.includes(key) ? order.indexOf(key) : order.length);

/** In the order of their digits, those with other keys behind them. */
export const tasks: readonly AnyTask[] = taskNames
  .map((route): AnyTask => ({ ...pages[`./${route}/index.ts`]!.default, route }))
  .sort((a, b) => place(a.key) - place(b.key));

export { marksTable, sliceTable } from './painter';
export type { MarksTable, SliceTable };
