/**
 * What is being dragged: in which picture it is, or what it moves from beside the pictures, if any of
 * these; and whether it is a thing in a picture rather than the picture itself.
 */
export interface ActiveDrag {
  readonly picture: string | null;
  readonly grip: boolean;
}

let active: ActiveDrag | null = null;
const ended = new Set<() => void>();

/** Keeps in step with whether something is dragged: whatever is has captured the pointer. */
export function followDrags(): void {
  document.addEventListener('gotpointercapture', ({ target }) => {
    const element = target as Element;
    // What moves the pictures from beside them (the time rule, a chart over time) says so.
    const { picture, moves } = element.closest<HTMLElement>('[data-picture], [data-moves]')?.dataset ?? {};
    active = {
      picture: picture ?? moves ?? null,
      grip: element.closest('.handle') !== null,
    };
    document.documentElement.dataset.held = '';
  });
  document.addEventListener('lostpointercapture', endDrag);
}

/** The drag is over: said to those who asked after it is, in the order in which they asked. */
export function endDrag(): void {
  active = null;
  if (typeof document !== 'undefined') delete document.documentElement.dataset.held;
  for (const listener of ended) listener();
}

/** Has a function called whenever a drag has ended; by then `activeDrag` says so. */
export function onDragEnd(listener: () => void): () => void {
  ended.add(listener);
  return () => void ended.delete(listener);
}

/** What is dragged now, or null. */
export const activeDrag = (): ActiveDrag | null => active;
