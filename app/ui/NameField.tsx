/** A name that is typed: taken on Enter or when the field is left, put back by Escape. */
export function NameField({
  name,
  value,
  onChange,
  className = '',
  autoFocus = false,
  onDone,
}: {
  name: string;
  value: string;
  onChange: (value: string) => void;
  className?: string;
  autoFocus?: boolean;
  /** Told when the field is left, whatever was typed. */
  onDone?: () => void;
}) {
  return (
    <input
      // Another name from elsewhere, as by undo, is shown.
      key={value}
      className={`name-field ${className}`}
      aria-label={name}
      defaultValue={value}
      autoFocus={autoFocus}
      onFocus={({ currentTarget }) => currentTarget.select()}
      onBlur={({ currentTarget }) => {
        const next = currentTarget.value.trim();
        if (next && next !== value) onChange(next);
        else currentTarget.value = value;
        onDone?.();
      }}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key === 'Escape') event.currentTarget.value = value;
        if (event.key === 'Enter' || event.key === 'Escape') event.currentTarget.blur();
      }}
    />
  );
}
