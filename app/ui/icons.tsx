import './icons.css';
import type { ReactNode } from 'react';

const icon = (w: number, h: number, body: ReactNode, className = '') => (
  <svg className={`icon ${className}`} width={w} height={h} viewBox={`0 0 ${w} ${h}`} aria-hidden="true">
    {body}
  </svg>
);

export const Arrow = () => icon(14, 9, <path d="M.5 4.5H12M9 1.5 12.5 4.5 9 7.5" />, 'arrow');
export const Caret = () => icon(9, 6, <path d="M1 1 4.5 4.5 8 1" />, 'caret');
export const Check = () => icon(11, 9, <path d="M1 4.8 4 7.6 10 1" />);
export const Undo = () => icon(16, 16, <path d="M3 6.5H10a3.5 3.5 0 0 1 0 7H6.5M6 3.5 3 6.5l3 3" />);
export const Redo = () => icon(16, 16, <path d="M13 6.5H6a3.5 3.5 0 0 0 0 7h3.5M10 3.5l3 3-3 3" />);
export const Find = () =>
  icon(
    16,
    16,
    <>
      <circle cx="7" cy="7" r="4.2" />
      <path d="m10.2 10.2 3.6 3.6" />
    </>,
  );
export const Moon = () => icon(16, 16, <path d="M12.9 9.9A5.6 5.6 0 0 1 6.1 3.1a5.6 5.6 0 1 0 6.8 6.8Z" />);
export const Sun = () =>
  icon(
    16,
    16,
    <>
      <circle cx="8" cy="8" r="2.8" />
      <path d="M8 1.2v2M8 12.8v2M1.2 8h2M12.8 8h2M3.2 3.2l1.4 1.4M11.4 11.4l1.4 1.4M3.2 12.8l1.4-1.4M11.4 4.6l1.4-1.4" />
    </>,
  );
export const Question = () => icon(16, 16, <path d="M5.5 5.8a2.5 2.5 0 1 1 3.6 2.3c-.8.4-1.1.9-1.1 1.7M8 12.6v.1" />);
export const Play = () => icon(14, 14, <path className="icon-solid" d="M4 2.5 11.5 7 4 11.5Z" />);
export const Pause = () => icon(14, 14, <path d="M5 3v8M9 3v8" />);
export const ToEnd = () => icon(14, 14, <path d="M4 3.5 8.5 7 4 10.5M10.5 3.5v7" />);
export const ToStart = () => icon(14, 14, <path d="M10 3.5 5.5 7 10 10.5M3.5 3.5v7" />);
export const NextFrame = () => icon(14, 14, <path d="M5 3.5 9.5 7 5 10.5" />);
export const PreviousFrame = () => icon(14, 14, <path d="M9 3.5 4.5 7 9 10.5" />);
export const Loop = () => icon(16, 14, <path d="M4 10.5H11a3.5 3.5 0 0 0 0-7H4.5M6.5 1.5l-2.5 2 2.5 2" />);
export const MatrixIcon = () =>
  icon(
    16,
    14,
    <>
      <path d="M4 1.5H1.5v11H4M12 1.5h2.5v11H12" />
      <path className="icon-solid" d="M5 4h1.6v1.6H5zM9.4 4H11v1.6H9.4zM5 8.4h1.6V10H5zM9.4 8.4H11V10H9.4z" />
    </>,
  );
export const DivideIcon = () =>
  icon(
    16,
    14,
    <>
      <path d="M3 7h10" />
      <path className="icon-solid" d="M7 2.6h2v2H7zM7 9.4h2v2H7z" />
    </>,
  );
export const Pin = () => icon(10, 12, <path className="icon-solid" d="M5 0 9 5 5 12 1 5Z" />);

/** The astrolabe of the word mark: a graduated limb and an alidade. */
export function Mark({ size }: { size: number }) {
  const c = size / 2;
  const r = c - 1;
  const ticks = Array.from({ length: 36 }, (_, i) => {
    const a = (i * Math.PI) / 18;
    const inner = r - (i % 9 === 0 ? 4 : i % 3 === 0 ? 3 : 1.8);
    return `M${c + Math.cos(a) * r} ${c + Math.sin(a) * r}L${c + Math.cos(a) * inner} ${c + Math.sin(a) * inner}`;
  }).join('');
  return (
    <svg className="mark" width={size} height={size} viewBox={`0 0 ${size} ${size}`} aria-hidden="true">
      <circle className="limb" cx={c} cy={c} r={r} />
      <circle className="limb-inner" cx={c} cy={c} r={r - 5} />
      <path className="limb-ticks" d={ticks} />
      <g transform={`rotate(-34 ${c} ${c})`}>
        <path
          className="alidade"
          d={`M1.5 ${c - 0.2}L${c - 3} ${c - 1.6}H${c + 3}L${size - 1.5} ${c - 0.2}V${c + 0.2}L${c + 3} ${c + 1.6}H${c - 3}L1.5 ${c + 0.2}Z`}
        />
        <path className="alidade-vanes" d={`M${c - 7.5} ${c - 3.4}v6.8M${c + 7.5} ${c - 3.4}v6.8`} />
      </g>
      <circle className="alidade-pin" cx={c} cy={c} r="1.3" />
    </svg>
  );
}

export const Lozenge = () => (
  <svg className="lozenge" width="12" height="12" viewBox="0 0 12 12" aria-hidden="true">
    <path d="M6 1.2 10.8 6 6 10.8 1.2 6Z" />
  </svg>
);
