import { createContext, startTransition, useEffect, useState } from 'react';

let done = false;

/** Whether the page has been on the screen once. What is not looked at first waits for that. */
export const FirstPaintDone = createContext(true);

/** The value for a page. */
export function useFirstPaintDone(): boolean {
  const [now, setNow] = useState(done);
  useEffect(() => {
    if (done) return;
    // Two frames on what was first rendered is shown; then the rest is made in pieces of time, so
    // that the hand is answered in between.
    let frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => {
        done = true;
        startTransition(() => setNow(true));
      });
    });
    return () => cancelAnimationFrame(frame);
  }, []);
  return now;
}
