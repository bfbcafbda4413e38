import { create } from 'zustand';

export interface Notice {
  readonly id: number;
  readonly kind: 'said' | 'wrong' | 'lasting' | 'underWay';
  readonly text: string;
  /** Places that are wrong, each with its sentence. */
  readonly places: readonly { readonly path: string; readonly message: string }[];
  /** What can be done about it. */
  readonly action?: Action | undefined;
  /** How far something is that takes its time, 0 to 1. */
  readonly progress?: number;
}
interface Action {
  readonly label: string;
  readonly run: () => void;
}

/**
 * The notices on the page. Of what was said, and of what went wrong, the newest stands; everything
 * that takes its time has a notice of its own.
 */
export const useNotices = create<{ readonly notices: readonly Notice[] }>(() => ({ notices: [] }));

let count = 0;
let timer: ReturnType<typeof setTimeout> | undefined;

/**
 * Puts a notice in the place of the one with its id, or behind the others; those of `gone` kinds
 * go.
 */
function put(notice: Notice, gone: readonly Notice['kind'][] = []): void {
  useNotices.setState(({ notices }) => {
    const left = notices.filter(({ id, kind }) => id === notice.id || !gone.includes(kind));
    return {
      notices: left.some(({ id }) => id === notice.id)
        ? left.map((one) => (one.id === notice.id ? notice : one))
        : [...left, notice],
    };
  });
}

export const dismiss = (id: number): void =>
  useNotices.setState(({ notices }) => ({ notices: notices.filter((one) => one.id !== id) }));

export function say(text: string, action?: Action): void {
  clearTimeout(timer);
  const id = ++count;
  put({ id, kind: 'said', text, places: [], action }, ['said', 'wrong']);
  // What can be taken back stays long enough to be read and reached.
  timer = setTimeout(() => dismiss(id), action ? 12_000 : 2600);
}

/** Something wrong stays until it is dismissed. */
export function complain(text: string, places: Notice['places'] = []): void {
  clearTimeout(timer);
  put({ id: ++count, kind: 'wrong', text, places }, ['said', 'wrong']);
}

/** Something that has to be known, whatever is said beside it: it stays until it is dismissed. */
export function warn(text: string, places: Notice['places'] = [], action?: Action): void {
  put({ id: ++count, kind: 'lasting', text, places, action }, ['lasting']);
}

/**
 * Something that takes its time, with what stops it: nothing is shown of what is done within a
 * moment.
 */
export function underWay(text: string, stop: () => void): { at(share: number): void; done(): void } {
  const id = ++count;
  let shown = false;
  let ended = false;
  let share = 0;
  const show = () => {
    shown = true;
    put({ id, kind: 'underWay', text, places: [], progress: share, action: { label: 'Stop', run: stop } });
  };
  const wait = setTimeout(show, 300);
  return {
    at: (now) => {
      share = now;
      // What was still on its way when it was stopped says nothing any more.
      if (shown && !ended) show();
    },
    done: () => {
      ended = true;
      clearTimeout(wait);
      dismiss(id);
    },
  };
}

/** Puts text on the clipboard and says what it was. */
export async function copy(text: string, what: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    say(`Copied ${what}.`);
  } catch {
    complain(`The browser did not let ${what} be copied. Select it here instead: ${text}`);
  }
}
