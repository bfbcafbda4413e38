import { createContext, startTransition, useEffect, useState } from 'react';

let stood = false;

/** Whether the page has been on the screen once. What is not looked at first waits for that. */
export const Stood = createContext(true);

/** The value for a page. */
export function useStood(): boolean {
  const [now, setNow] = useState(stood);
  useEffect(() => {
    if (stood) return;
    // Two frames on what was first rendered is shown; then the rest is made in pieces of time, so that the hand is answered in between.
    let frame = requestAnimationFrame(() => {
      frame = requestAnimationFrame(() => {
        stood = true;
        startTransition(() => setNow(true));
      });
    });
    return () => cancelAnimationFrame(frame);
  }, []);
  return now;
}
