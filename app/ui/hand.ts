/** Keeps the page's `data-held` in step with whether the hand holds something: whatever is dragged has captured the pointer. */
export function followHand(): void {
  const mark = (held: boolean) => () => document.documentElement.toggleAttribute('data-held', held);
  document.addEventListener('gotpointercapture', mark(true));
  document.addEventListener('lostpointercapture', mark(false));
}

/** Whether the hand holds something now. */
export const handHolds = (): boolean => document.documentElement.hasAttribute('data-held');
