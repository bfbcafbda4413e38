import { exampleOf, type MatrixText } from '../edits/matrixTexts';
import { copy } from '../ui/notices';

/** Buttons that copy a matrix, each with the beginning of what it copies. */
export function CopyMatrix({ texts }: { texts: readonly MatrixText[] }) {
  return (
    <ul className="mt-1">
      {texts.map(({ label, text, what }) => (
        <li key={label} className="flex items-baseline gap-2">
          <button className="plain-button shrink-0" onClick={() => void copy(text, what)}>
            {label}
          </button>
          <code className="truncate text-small text-ink2">{exampleOf(text)}</code>
        </li>
      ))}
    </ul>
  );
}
