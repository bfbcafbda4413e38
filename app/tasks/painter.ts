import type { AnyMarks, MarksTable } from '../pictures/contract';
import type { Slice, SliceTable } from '../state/slices';
import { taskNames } from './names';

/*
 * What of the tasks has to do with the document and the pictures: for the page and the painter
 * alike.
 */

const marks = import.meta.glob<{ marks: AnyMarks }>('./*/marks.ts', { eager: true });
// eslint-disable-next-line @typescript-eslint/no-explicit-any
const states = import.meta.glob<{ slice: Slice<any> }>('./*/state.ts', { eager: true });

const tableOf = <T>(modules: Readonly<Record<string, unknown>>, file: string, pick: (module: never) => T) =>
  Object.fromEntries(
    taskNames.flatMap((name) => {
      const module = modules[`./${name}/${file}`];
      return module ? [[name, pick(module as never)]] : [];
    }),
  ) as Readonly<Record<string, T>>;

export const marksTable: MarksTable = tableOf(marks, 'marks.ts', ({ marks: one }: { marks: AnyMarks }) => one);
// eslint-disable-next-line @typescript-eslint/no-explicit-any
export const sliceTable: SliceTable = tableOf(states, 'state.ts', ({ slice }: { slice: Slice<any> }) => slice);
