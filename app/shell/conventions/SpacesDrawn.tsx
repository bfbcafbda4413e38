import type { Conventions } from '../../../core/conventions/conventions';
import { figure } from '../../ui/figures';

/**
 * The NDC box from the eye's side, and the screen: which way y grows, which depth lies where, where
 * the origin is. Drawn from the conventions.
 */
export function SpacesDrawn({ ndc, screen }: Conventions) {
  const depth = (v: number) => figure(v, Number.isInteger(v) ? 0 : 2);
  const up = ndc.up === '+y';
  const top = screen.origin === 'top-left';
  const arrow = (x: number, from: number, to: number) =>
    `M${x} ${from}V${to}M${x - 3} ${to + (to < from ? 6 : -6)}L${x} ${to}L${x + 3} ${to + (to < from ? 6 : -6)}`;
  return (
    <svg
      className="spaces-drawn"
      width="426"
      height="112"
      viewBox="0 0 426 112"
      role="img"
      aria-label={`NDC y grows ${up ? 'up' : 'down'}, depth is ${depth(ndc.near)} at near and ${depth(ndc.far)} at far; the screen’s origin is ${screen.origin}`}
    >
      <path className="box-far" d="M74 14h72v54h-72Z" />
      <path className="box-edge" d="M40 36 74 14M112 36 146 14M112 90 146 68M40 90 74 68" />
      <path className="box-near" d="M40 36h72v54H40Z" />
      <path className="ink-dimension" d={arrow(76, 63, up ? 42 : 84)} />
      <text className="ink-figure-bare" x="82" y={up ? 50 : 84}>
        +y
      </text>
      <path className="ink-dimension" d="M76 63H100M94 60L100 63L94 66" />
      <text className="ink-figure-bare" x="103" y="72">
        +x
      </text>
      <text className="ink-figure-bare" x="36" y="104">
        near {depth(ndc.near)}
      </text>
      <text className="ink-figure-bare" x="152" y="30">
        far {depth(ndc.far)}
      </text>
      <text className="ink-note-bare" x="0" y="14">
        NDC
      </text>
      <path className="box-near" d="M270 22h112v66H270Z" />
      <circle className="cross-middle" cx="270" cy={top ? 22 : 88} r="3.2" />
      <path className="ink-dimension" d={arrow(270, top ? 22 : 88, top ? 56 : 54)} />
      <path
        className="ink-dimension"
        d={`M270 ${top ? 22 : 88}H312M306 ${top ? 19 : 85}L312 ${top ? 22 : 88}L306 ${top ? 25 : 91}`}
      />
      <text className="ink-figure-bare" x="276" y={top ? 56 : 62}>
        +y
      </text>
      <text className="ink-figure-bare" x="316" y={top ? 35 : 83}>
        +x
      </text>
      <path className="box-edge" d="M330 46h16v16h-16Z" />
      <circle className="cross-middle" cx="338" cy="54" r="1.6" />
      <text className="ink-figure-bare" x="338" y="78" textAnchor="middle">
        {screen.pixelCentre === 0.5 ? 'centre .5' : 'centre 0'}
      </text>
      <text className="ink-note-bare" x="222" y="14">
        Screen
      </text>
    </svg>
  );
}
