/** Hands text to the user as a file. */
export const saveFile = (name: string, text: string, type = 'application/json'): void =>
  saveBlob(name, new Blob([text], { type }));
/** Hands bytes to the user as a file. */
export const saveBytes = (name: string, bytes: Uint8Array, type: string): void =>
  saveBlob(name, new Blob([bytes as Uint8Array<ArrayBuffer>], { type }));

/** Hands what is already a file to the user. */
export function saveBlob(name: string, blob: Blob): void {
  const url = URL.createObjectURL(blob);
  const link = Object.assign(document.createElement('a'), { href: url, download: name });
  link.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

/**
 * Asks for a file, of the kinds that `accept` lists. The field that asks is part of the page until
 * it is answered: a loose one may be cleared away while the choice is open, and the file with it.
 */
export function askFile(accept: string, take: (file: File) => void): void {
  const input = Object.assign(document.createElement('input'), { type: 'file', accept, hidden: true });
  input.addEventListener('change', () => {
    const file = input.files?.[0];
    input.remove();
    if (file) take(file);
  });
  input.addEventListener('cancel', () => input.remove());
  document.body.append(input);
  input.click();
}
