import { largest } from '../../core/quantities/numbers';
import './NumberField.css';
import {
  lazy,
  Suspense,
  useId,
  useLayoutEffect,
  useRef,
  useState,
  type KeyboardEvent,
  type PointerEvent,
  type ReactNode,
} from 'react';
import { flushSync } from 'react-dom';
import { cancelGesture, endGesture } from '../state/document';
import { editable } from '../ui/figures';
import { parseNumber, type Units } from '../ui/parseNumber';
import { emptyEntry, entryAt, focusEntry, leaveEntry, showProblem, stepEntry, typeEntry } from './numberEntry';

/** Loaded with the first rejected entry. */
const FieldProblem = lazy(() => import('./FieldProblem'));

export interface NumberInputProps {
  /** What the number is, for those who cannot see its label. */
  readonly name: string;
  readonly value: number;
  /** Called with every value on the way; edits of one gesture are one step of undo. */
  readonly onChange: (value: number, gesture: string) => void;
  /** What of the working this field sets: names that links of workings lead here by. */
  readonly source?: string | undefined;
  /** The name that the search finds the field by. */
  readonly field?: string | undefined;
  /** What one press of an arrow key adds. */
  readonly step?: number;
  readonly units?: Units;
  /** A value that cannot be taken, in a sentence; null when it can. */
  readonly refuse?: (value: number) => string | null;
  readonly shown?: (value: number) => string;
}

/** Behaviour of every number: typing, sums, units, arrow keys, the wheel, Escape. */
function useNumber({ value, onChange, step = 1, units, refuse, shown = editable }: NumberInputProps) {
  const gesture = `field ${useId()}`;
  const [held, setEntry] = useState(emptyEntry);
  const entry = entryAt(held, value);
  // A dropped entry does not come back with its value, as by undo.
  if (entry !== held) setEntry(entry);
  const started = useRef(false);
  // The text is put in by hand: a controlled input writes its attribute too, which costs more than
  // all the rest where many numbers change at once.
  const element = useRef<HTMLInputElement>(null);
  const now = entry.text ?? shown(value);
  useLayoutEffect(() => {
    if (element.current && element.current.value !== now) element.current.value = now;
  }, [now]);

  /** Takes a value, or returns why it cannot be taken. */
  const offer = (next: number): string | null => {
    const reason =
      Math.abs(next) <= largest ? (refuse?.(next) ?? null) : 'Numbers go up to 10³⁰ here. Give a smaller one.';
    if (reason || next === value) return reason;
    started.current = true;
    onChange(next, gesture);
    return null;
  };
  const nudge = (by: number) => setEntry(stepEntry(offer(Number((value + by).toPrecision(12)))));
  const scale = (event: { shiftKey: boolean; altKey: boolean }) =>
    step * (event.shiftKey ? 10 : event.altKey ? 0.1 : 1);
  const finish = () => {
    setEntry(leaveEntry(entry, value));
    started.current = false;
    endGesture();
  };
  // The handlers never change, so that an input whose props stay the same is not rendered again.
  const latest = useRef({ value, units, entry, offer, nudge, scale, finish, gesture, started });
  useLayoutEffect(() => {
    latest.current = { value, units, entry, offer, nudge, scale, finish, gesture, started };
  });
  const [input] = useState(() => ({
    ref: element,
    onFocus: (event: { currentTarget: HTMLInputElement }) => {
      // At once, so that what is typed next replaces the whole number rather than being put behind
      // it.
      flushSync(() => setEntry(focusEntry(latest.current.entry, editable(latest.current.value))));
      event.currentTarget.select();
    },
    onChange: (event: { currentTarget: HTMLInputElement }) => {
      const typed = event.currentTarget.value;
      const parsed = parseNumber(typed, latest.current.units);
      const isBlank = typed.trim() === '';
      const notNumber = `“${typed.trim().slice(0, 20)}” is not a number. Type one, or a sum such as (1+2)*3.`;
      setEntry(typeEntry(typed, parsed !== null ? latest.current.offer(parsed) : isBlank ? null : notNumber));
    },
    onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => {
      const now = latest.current;
      if (event.key === 'ArrowUp' || event.key === 'ArrowDown') {
        event.preventDefault();
        now.nudge(now.scale(event) * (event.key === 'ArrowUp' ? 1 : -1));
      } else if (event.key === 'Enter') {
        if (now.entry.problem === null) return event.currentTarget.blur();
        setEntry(showProblem);
        event.currentTarget.select();
      } else if (event.key === 'Escape') {
        event.stopPropagation();
        if (now.started.current) cancelGesture(now.gesture);
        flushSync(() => setEntry(emptyEntry));
        event.currentTarget.blur();
      }
    },
    onWheel: (event: { currentTarget: HTMLInputElement; deltaY: number; shiftKey: boolean; altKey: boolean }) => {
      const now = latest.current;
      if (document.activeElement === event.currentTarget) now.nudge(now.scale(event) * (event.deltaY < 0 ? 1 : -1));
    },
    onBlur: () => latest.current.finish(),
  }));
  return { entry, nudge, scale, finish, input };
}

/** What is dragged to change a number: a letter or word, or dots where there is none. */
function Grip({
  number,
  className,
  children,
}: {
  number: ReturnType<typeof useNumber>;
  className?: string | undefined;
  children?: ReactNode;
}) {
  const from = useRef<number | null>(null);
  return (
    <span
      className={className}
      onPointerDown={(event: PointerEvent<HTMLSpanElement>) => {
        from.current = event.clientX;
        event.currentTarget.setPointerCapture(event.pointerId);
      }}
      onPointerMove={(event) => {
        if (from.current === null) return;
        const steps = Math.trunc((event.clientX - from.current) / 3);
        if (!steps) return;
        from.current += steps * 3;
        number.nudge(steps * number.scale(event));
      }}
      onPointerUp={() => {
        from.current = null;
        number.finish();
      }}
    >
      {children}
    </span>
  );
}

/** A number beside its letter, as the driven rung has it; dragging the letter changes it. */
export function NumberInput({ letter, ...props }: NumberInputProps & { letter: string }) {
  const number = useNumber(props);
  return (
    <>
      <Grip number={number} className="axis drags">
        {letter}
      </Grip>
      <input
        aria-label={props.name}
        data-source={props.source}
        data-field={props.field}
        aria-invalid={number.entry.problem !== null}
        title={number.entry.problem ?? undefined}
        inputMode="decimal"
        spellCheck={false}
        {...number.input}
      />
      {number.entry.isShown && (
        <Suspense>
          <FieldProblem text={number.entry.problem} field={number.input.ref} />
        </Suspense>
      )}
    </>
  );
}

interface NumberFieldProps extends NumberInputProps {
  /** The letter or word inside the field; dragging it, or the grip in its place, changes the number. */
  readonly label?: string;
  readonly unit?: string;
  readonly width?: number | string;
}

/** A number set in a line of the worksheet. */
export function NumberField(props: NumberFieldProps) {
  const { label, unit, width = 78, name } = props;
  const number = useNumber(props);
  const field = useRef<HTMLSpanElement>(null);
  return (
    <span
      ref={field}
      className={`field${number.entry.problem ? ' bad' : ''}`}
      style={{ width }}
      title={number.entry.problem ?? undefined}
    >
      <Grip number={number} className={label ? undefined : 'grip'}>
        {label}
      </Grip>
      <input
        aria-label={name}
        data-source={props.source}
        data-field={props.field}
        aria-invalid={number.entry.problem !== null}
        inputMode="decimal"
        spellCheck={false}
        {...number.input}
      />
      {unit && <em>{unit}</em>}
      {number.entry.isShown && (
        <Suspense>
          <FieldProblem text={number.entry.problem} field={field} />
        </Suspense>
      )}
    </span>
  );
}
