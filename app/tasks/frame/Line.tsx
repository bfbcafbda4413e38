import type { ReactNode } from 'react';
import type { Vec3 } from '../../../core/math/vec3';
import { editable, figure } from '../../ui/figures';
import { NumberField, type NumberInputProps } from '../../sheet/NumberField';
import { lengths } from '../../ui/parseNumber';

/** A line of the worksheet: what it is, and the numbers set in it. */
export const Line = ({ label, children }: { label: string; children: ReactNode }) => (
  <div className="row wide">
    <span className="label">{label}</span>
    {children}
  </div>
);

/** A number of the camera, six digits shown, and what stands behind it. */
export const Number6 = ({ unit, width = 104, ...props }: NumberInputProps & { unit?: string; width?: number }) => (
  <NumberField width={width} unit={unit} shown={(v) => editable(Number(v.toPrecision(6)))} {...props} />
);

/** Three coordinates by their letters. */
export function VectorLine({
  label,
  name = label,
  value,
  decimals = 2,
  isLength = true,
  source,
  onChange,
}: {
  label: string;
  /** What a field is called: this, and its letter. */
  name?: string;
  value: Vec3;
  decimals?: number;
  isLength?: boolean;
  /** What of a working its first field sets. */
  source?: string;
  onChange: (value: Vec3, gesture: string) => void;
}) {
  return (
    <div className="row">
      <span className="label">{label}</span>
      {value.map((v, i) => (
        <NumberField
          key={i}
          label={'xyz'[i]!}
          name={`${name} ${'xyz'[i]}`}
          width="33%"
          source={i === 0 ? source : undefined}
          value={v}
          step={isLength ? 1 : 0.01}
          shown={(n) => figure(n, decimals)}
          units={isLength ? lengths : {}}
          onChange={(n, gesture) => onChange(value.map((old, k) => (k === i ? n : old)) as unknown as Vec3, gesture)}
        />
      ))}
    </div>
  );
}
