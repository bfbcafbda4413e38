import type { ReactNode } from 'react';

/** The words that are this page's own, a line each: said on hover, and all of them in the help. */
export const terms = {
  chain: ['Chain', 'one point in every space from local to screen, each following from the others'],
  rung: ['Rung', 'one space of the Chain, with the point’s numbers in it'],
  probe: ['Probe', 'the point that is looked at: of a body, or free'],
  plate: ['Plate', 'a framed picture with its rulers'],
  worksheet: ['Worksheet', 'the column on the right, where the open task is set and worked out'],
  working: ['Working', 'a result opened into its formula with the numbers put in'],
  tray: ['Tray', 'the screens of several sizes side by side, at one scale'],
  ahead: ['Ahead', 'distance from the eye along the gaze: what view depth is, by sign and axis of the view space'],
  range: ['Range', 'distance from the eye along the ray to the point'],
  crosses: ['Crosses', 'partly in view: neither wholly inside the frustum nor wholly outside'],
  mend: ['Mend', 'a change that puts right what is wrong, made by one click'],
  body: ['Body', 'a thing in the scene: box, sphere, quad, mesh or point'],
} as const satisfies Record<string, readonly [string, string]>;
export type TermName = keyof typeof terms;

/** What a word of the page's own means, as a hover says it. */
export const meaning = (of: TermName): string => `${terms[of][0]}: ${terms[of][1]}`;

/** A word of the page's own, which says on hover what it means. */
export const Term = ({ of, children }: { of: TermName; children?: ReactNode }) => (
  <span className="term" title={meaning(of)}>
    {children ?? terms[of][0]}
  </span>
);
