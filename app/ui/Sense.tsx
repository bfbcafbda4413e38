/** The sense of a turn, drawn: an arc about its axis, which comes out of the page. */
export const Sense = ({ counter }: { counter: boolean }) => (
  <svg className="icon" width="15" height="15" viewBox="0 0 16 16" aria-hidden="true">
    <g transform={counter ? 'matrix(-1 0 0 1 16 0)' : undefined}>
      <path d="M12.5 11.5A5.6 5.6 0 1 1 13 5.4M13.6 1.8L13.2 5.6L9.5 5.2" fill="none" stroke="currentColor" />
    </g>
    <circle cx="8" cy="8" r="1.4" fill="currentColor" />
  </svg>
);
