import { RadioGroup } from 'radix-ui';
import { createContext, useContext, useRef, type ReactNode } from 'react';

/** Told by each of the alternatives that the focus has come to it. */
const Focused = createContext<(value: string) => void>(() => undefined);

/**
 * Alternatives of which one is in force, each with more beside it. The arrow keys choose, however
 * shortly they are pressed: a key that is let go before the focus has come is one all the same.
 */
export function Radios<T extends string>({
  name,
  value,
  onChange,
  children,
}: {
  name: string;
  value: T;
  onChange: (value: T) => void;
  children: ReactNode;
}) {
  // Whether the last key that was pressed here was an arrow.
  const byArrow = useRef(false);
  // Told by the key and by the click that follows it: once is enough.
  const told = useRef<string | null>(null);
  const choose = (next: string) => {
    if (next === value || next === told.current) return;
    told.current = next;
    queueMicrotask(() => (told.current = null));
    onChange(next as T);
  };
  const focused = (next: string) => {
    if (byArrow.current) choose(next);
    byArrow.current = false;
  };
  return (
    <Focused value={focused}>
      <RadioGroup.Root
        aria-label={name}
        value={value}
        onValueChange={choose}
        onKeyDownCapture={({ key }) => void (byArrow.current = key.startsWith('Arrow'))}
      >
        {children}
      </RadioGroup.Root>
    </Focused>
  );
}

/** One of them. */
export function Radio({ value, className, children }: { value: string; className?: string; children: ReactNode }) {
  const focused = useContext(Focused);
  return (
    <RadioGroup.Item className={className} value={value} onFocus={() => focused(value)}>
      {children}
    </RadioGroup.Item>
  );
}
