import type { ReactNode } from 'react';

/** The heading of a part of a section, with a word beside it. */
export const Head = ({ children, aside }: { children: ReactNode; aside?: string }) => (
  <div className="rule">
    {children} {aside && <em>{aside}</em>}
  </div>
);
