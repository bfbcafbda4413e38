import './OrderList.css';
import { useRef, type ReactNode } from 'react';

/** Things in an order that is dragged, or changed with the two buttons of each. */
export function OrderList<Key extends string>({
  name,
  items,
  onMove,
}: {
  name: string;
  items: readonly { readonly key: Key; readonly label: string; readonly aside?: ReactNode }[];
  onMove: (key: Key, to: number) => void;
}) {
  const dragged = useRef<Key | null>(null);
  return (
    <ol className="events" aria-label={name}>
      {items.map(({ key, label, aside }, i) => (
        <li
          key={key}
          draggable
          onDragStart={() => void (dragged.current = key)}
          onDragOver={(event) => event.preventDefault()}
          onDrop={(event) => {
            event.preventDefault();
            if (dragged.current) onMove(dragged.current, i);
          }}
        >
          <span>{label}</span>
          {aside}
          <button
            className="text-button"
            aria-label={`${label}: earlier`}
            disabled={i === 0}
            onClick={() => onMove(key, i - 1)}
          >
            ↑
          </button>
          <button
            className="text-button"
            aria-label={`${label}: later`}
            disabled={i === items.length - 1}
            onClick={() => onMove(key, i + 1)}
          >
            ↓
          </button>
        </li>
      ))}
    </ol>
  );
}
