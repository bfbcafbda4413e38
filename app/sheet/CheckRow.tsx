/** Something that is so or not, in a row of the sheet. */
export const CheckRow = ({
  label,
  checked,
  onChange,
}: {
  label: string;
  checked: boolean;
  onChange: (checked: boolean) => void;
}) => (
  <div className="row check">
    <label className="check">
      <input type="checkbox" checked={checked} onChange={({ target }) => onChange(target.checked)} />
      {label}
    </label>
  </div>
);
