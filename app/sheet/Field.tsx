import type * as z from 'zod';
import { editSlice } from '../state/slices';
import { useTaskMoment } from '../state/tempo';
import { fieldFacts, labelAt, putAt, type FieldPath } from './fieldFacts';
import { NumberField } from './NumberField';

interface FieldProps<S> {
  /** Where the quantity is in the state. */
  readonly at: (keyof S & string) | readonly [keyof S & string, ...(string | number)[]];
  /** The name of the quantity, where its description leaves it open, as in a list. */
  readonly name?: string;
  /** The label, where the row says the rest. */
  readonly label?: string;
  readonly width?: number | string;
  /** The unit, where that of the quantity's kind does not say it all. */
  readonly unit?: string;
  /** Returns why a written number is rejected for a reason beyond the description, or null. */
  readonly reject?: (written: number) => string | null;
}

/**
 * Creates the fields of a described state: number, unit, limits, undo text and search name follow from the
 * description. A quantity of several components has a field for each; one without a meaning in the world has none.
 */
export function fieldsOf<Shape extends z.ZodRawShape>(task: string, schema: z.ZodObject<Shape>) {
  type State = z.infer<typeof schema>;
  return function Field({ at, name, label, width = '50%', unit, reject: rejectToo }: FieldProps<State>) {
    const moment = useTaskMoment<State>(task);
    const path: FieldPath = typeof at === 'string' ? [at] : at;
    const step = `set the ${labelAt(schema, path, name).toLowerCase()}`;
    return fieldFacts(task, schema, path, moment, name).map(({ format, reject, withNumber, ...facts }) => (
      <NumberField
        key={facts.name}
        {...facts}
        label={label ?? facts.label}
        unit={unit ?? facts.unit}
        width={width}
        {...(format && { shown: format })}
        refuse={(written) => reject(written) ?? rejectToo?.(written) ?? null}
        onChange={(written, gesture) =>
          editSlice<State>(task, step, (draft) => putAt(draft, path, withNumber(written)), gesture)
        }
      />
    ));
  };
}
