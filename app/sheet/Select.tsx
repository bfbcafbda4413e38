/** One of several by its name, in a list that opens. */
export function Select<T extends string>({
  name,
  value,
  options,
  onChange,
  title,
  id,
}: {
  /** What it is called, where no label stands before it. */
  name?: string;
  value: T;
  options: readonly { readonly value: T; readonly label: string }[];
  onChange: (value: T) => void;
  title?: string;
  /** For a label that stands before it. */
  id?: string;
}) {
  return (
    <select
      id={id}
      className="select"
      aria-label={name}
      title={title}
      value={value}
      onChange={({ target }) => onChange(target.value as T)}
    >
      {options.map((one) => (
        <option key={one.value} value={one.value}>
          {one.label}
        </option>
      ))}
    </select>
  );
}

/** The same in a row of the sheet, behind its label. */
export const SelectRow = <T extends string>({ label, ...select }: Parameters<typeof Select<T>>[0] & { label: string; id: string }) => (
  <div className="row wide">
    <label className="label" htmlFor={select.id}>
      {label}
    </label>
    <Select {...select} />
  </div>
); // prettier-ignore
