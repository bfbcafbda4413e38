import type { Vec2 } from '../../core/math/vec3';

export const n2 = (v: number): string => String(Math.round(v * 100) / 100);
export const open = (points: readonly Vec2[]): string =>
  points.length ? `M${points.map((p) => `${n2(p[0])} ${n2(p[1])}`).join('L')}` : '';
export const closed = (points: readonly Vec2[]): string => (points.length ? `${open(points)}Z` : '');

/** The probe in every view: a lozenge with four ticks, a centre point and a keyline in the ground's colour. */
export const ProbeMark = ({ x, y, r }: { x: number; y: number; r: number }) => (
  <g className="probe" transform={`translate(${n2(x)} ${n2(y)})`} pointerEvents="none">
    <path className="ph" d={`M0 ${-r}L${r} 0 0 ${r} ${-r} 0Z`} />
    <path
      className="pl"
      d={`M0 ${-r}L${r} 0 0 ${r} ${-r} 0ZM0 ${-r}v${-r * 0.8}M0 ${r}v${r * 0.8}M${-r} 0h${-r * 0.8}M${r} 0h${r * 0.8}`}
    />
    <rect className="pd" x="-1.25" y="-1.25" width="2.5" height="2.5" />
  </g>
);

/** A dimension line with slender arrowheads and its figure along it. */
export function Dimension({
  a,
  b,
  label,
  at = 0.5,
  off = -4,
  className = '',
}: {
  a: Vec2;
  b: Vec2;
  label: string;
  at?: number;
  off?: number;
  className?: string;
}) {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const long = Math.hypot(dx, dy);
  if (long < 16) return null;
  const [ux, uy] = [dx / long, dy / long];
  const head = (p: Vec2, s: number) =>
    `M${n2(p[0])} ${n2(p[1])}L${n2(p[0] + s * ux * 7 - uy * 1.7)} ${n2(p[1] + s * uy * 7 + ux * 1.7)}L${n2(p[0] + s * ux * 7 + uy * 1.7)} ${n2(p[1] + s * uy * 7 - ux * 1.7)}Z`;
  let angle = (Math.atan2(dy, dx) * 180) / Math.PI;
  if (angle > 90 || angle <= -90) angle += 180;
  const turn = (angle * Math.PI) / 180;
  const x = a[0] + dx * at - Math.sin(turn) * off;
  const y = a[1] + dy * at + Math.cos(turn) * off;
  return (
    <>
      <path className="dl" d={open([a, b])} />
      <path className="dh" d={head(a, 1) + head(b, -1)} />
      {long > label.length * 7 + 18 && (
        <text
          className={`nm halo ${className}`}
          textAnchor="middle"
          transform={`translate(${n2(x)} ${n2(y)}) rotate(${n2(angle)})`}
        >
          {label}
        </text>
      )}
    </>
  );
}
