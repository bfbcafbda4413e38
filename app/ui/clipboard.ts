import { create } from 'zustand';

interface Notice {
  readonly text: string;
  readonly bad: boolean;
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

/** The one notice on the page. It names what happened and goes when it is read. */
export const useNotice = create<{ notice: Notice | null }>(() => ({ notice: null }));
let timer: ReturnType<typeof setTimeout> | undefined;

export function say(text: string, action?: Action): void {
  clearTimeout(timer);
  useNotice.setState({ notice: { text, bad: false, places: [], action } });
  // What can be taken back stays long enough to be read and reached.
  timer = setTimeout(() => useNotice.setState({ notice: null }), action ? 12_000 : 2600);
}

/** Something wrong stays until it is dismissed. */
export function complain(text: string, places: Notice['places'] = []): void {
  clearTimeout(timer);
  useNotice.setState({ notice: { text, bad: true, places } });
}

/** Something that takes its time, with what stops it: nothing is shown of what is done within a moment. */
export function underWay(text: string, stop: () => void): { at(share: number): void; done(): void } {
  let shown = false;
  let ended = false;
  let share = 0;
  const show = () => {
    shown = true;
    clearTimeout(timer);
    useNotice.setState({
      notice: { text, bad: false, places: [], progress: share, action: { label: 'Stop', run: stop } },
    });
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
      if (shown) dismiss();
    },
  };
}

export const dismiss = (): void => useNotice.setState({ notice: null });

/** Puts text on the clipboard and says what it was. */
export async function copy(text: string, what: string): Promise<void> {
  try {
    await navigator.clipboard.writeText(text);
    say(`Copied ${what}.`);
  } catch {
    complain(`The browser did not let ${what} be copied. Select it here instead: ${text}`);
  }
}

/** Hands text to the user as a file. */
export function saveFile(name: string, text: string, type = 'application/json'): void {
  const url = URL.createObjectURL(new Blob([text], { type }));
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}
