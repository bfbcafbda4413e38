import { create } from 'zustand';

interface Notice {
  readonly text: string;
  readonly bad: boolean;
  /** Places that are wrong, each with its sentence. */
  readonly places: readonly { readonly path: string; readonly message: string }[];
}

/** The one notice on the page. It names what happened and goes when it is read. */
export const useNotice = create<{ notice: Notice | null }>(() => ({ notice: null }));
let timer: ReturnType<typeof setTimeout> | undefined;

export function say(text: string): void {
  clearTimeout(timer);
  useNotice.setState({ notice: { text, bad: false, places: [] } });
  timer = setTimeout(() => useNotice.setState({ notice: null }), 2600);
}

/** Something wrong stays until it is dismissed. */
export function complain(text: string, places: Notice['places'] = []): void {
  clearTimeout(timer);
  useNotice.setState({ notice: { text, bad: true, places } });
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
