import './Glyph.css';
export type VerdictKind = 'inside' | 'crosses' | 'outside';

/**
 * The verdict shapes, readable without colour: filled disc, half-filled disc, open ring. As parts
 * of a drawing.
 */
export function GlyphMark({ kind, x = 0, y = 0, r }: { kind: VerdictKind; x?: number; y?: number; r: number }) {
  const w = Math.max(1.25, r * 0.3);
  const rr = r - w / 2;
  return (
    <g className={`glyph glyph-${kind}`} transform={`translate(${x} ${y})`}>
      {kind === 'inside' ? (
        <circle className="glyph-fill" r={r} />
      ) : (
        <>
          <circle className="glyph-back" r={r - 0.4} />
          {kind === 'crosses' && <path className="glyph-fill" d={`M0 ${-rr}A${rr} ${rr} 0 0 0 0 ${rr}Z`} />}
          <circle className="glyph-ring" r={rr} strokeWidth={w} />
        </>
      )}
    </g>
  );
}

/** The same standing in a line of text. */
export const Glyph = ({ kind, size }: { kind: VerdictKind; size: number }) => (
  <svg
    className="glyph"
    width={size}
    height={size}
    viewBox={`${-size / 2} ${-size / 2} ${size} ${size}`}
    aria-hidden="true"
    style={{ flex: 'none' }}
  >
    <GlyphMark kind={kind} r={size / 2 - 0.5} />
  </svg>
);
