/*
 * Whether the project that is opened was ever shown. What fails while it is shown, or holds the page
 * up for good, would do so at every later start; after two openings of which nothing was seen the
 * page begins with another project.
 */

const key = 'astrolabe-opening';
const enough = 2;

interface Opening {
  readonly id: string;
  /** How often in a row it was opened and not shown. */
  readonly times: number;
}

/** Whether what was opened here last could not be shown. */
let failed = false;

function read(): Opening | null {
  try {
    const kept = JSON.parse(localStorage.getItem(key) ?? 'null') as Partial<Opening> | null;
    return typeof kept?.id === 'string' && typeof kept.times === 'number' ? (kept as Opening) : null;
  } catch {
    // Without a store, or with something else in it, nothing is known.
    return null;
  }
}

function write(opening: Opening | null): void {
  try {
    if (opening) localStorage.setItem(key, JSON.stringify(opening));
    else localStorage.removeItem(key);
  } catch {
    // As above.
  }
}

/** A project is about to be shown. */
export function opening(id: string): void {
  const last = read();
  write({ id, times: last?.id === id ? last.times + 1 : 1 });
}

/** The page has stood with the open project for a moment. */
export function wasShown(): void {
  failed = false;
  write(null);
}

/** The page could not show it: once is enough to know. */
export function couldNotShow(id: string): void {
  failed = true;
  write({ id, times: enough });
}

/** The page is left in order, however early: one that is held up for good does not get to say so. */
export function leaving(): void {
  if (!failed) write(null);
}

/** Whether a project is better not opened by itself. */
export function isKnownToFail(id: string): boolean {
  const last = read();
  return last !== null && last.id === id && last.times >= enough;
}
