import { deflateSync, Inflate, strFromU8, strToU8 } from 'fflate';

/*
 * A project in the fragment of an address. Browsers send no fragment to a server, so the project stays between those
 * who have the link.
 */

/** The most characters of a project in a link: longer addresses are cut by programs that pass them on. */
export const mostLinkLength = 30_000;
/** The most characters of a project that a link unfolds to. */
const mostTextLength = 16e6;

const toUrlSafe = (bytes: Uint8Array): string => {
  let text = '';
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return btoa(text).replaceAll('+', '-').replaceAll('/', '_').replace(/=+$/, '');
};

/** Compresses the text of a project (DEFLATE) and writes it in the characters of addresses (base64url). */
export const encodeLink = (text: string): string => toUrlSafe(deflateSync(strToU8(text), { level: 9 }));

/**
 * Reads what `encodeLink` wrote.
 *
 * @returns the text; null for data that is cut off, is no link or unfolds to more than 16 million characters
 */
export function decodeLink(data: string): string | null {
  try {
    const bytes = Uint8Array.from(atob(data.replaceAll('-', '+').replaceAll('_', '/')), (c) => c.charCodeAt(0));
    const parts: Uint8Array[] = [];
    let [length, isWhole] = [0, false];
    const inflate = new Inflate((part, isLast) => {
      parts.push(part);
      length += part.length;
      isWhole ||= isLast;
      if (length > mostTextLength) throw new Error('too long');
    });
    for (let i = 0; i < bytes.length; i += 4096) inflate.push(bytes.subarray(i, i + 4096), i + 4096 >= bytes.length);
    if (!isWhole) return null;
    const whole = new Uint8Array(length);
    let at = 0;
    for (const part of parts) {
      whole.set(part, at);
      at += part.length;
    }
    return strFromU8(whole);
  } catch {
    return null;
  }
}
