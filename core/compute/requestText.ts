import type { Problem } from '../reasons';
import { limits } from './limits';

/*
 * Checks of a request's text before it is parsed: millions of empty lists would cost a thread its memory, and of two
 * equal keys of an object a parser drops one silently.
 */

const quote = 0x22;
const backslash = 0x5c;
const [openList, closeList, openObject, closeObject] = [0x5b, 0x5d, 0x7b, 0x7d];

/** Finds the end of a string, whose opening quote is at `from`: the place of its closing quote, or the end. */
function endOfString(text: string, from: number): number {
  for (let at = text.indexOf('"', from + 1); at >= 0; at = text.indexOf('"', at + 1)) {
    let before = at;
    while (text.charCodeAt(before - 1) === backslash) before--;
    if ((at - before) % 2 === 0) return at;
  }
  return text.length;
}

/**
 * Checks the text of a request before it is parsed: for more lists and objects than one may have, and for a key that an
 * object has twice. Text that is no JSON may pass; the parser rejects it.
 *
 * @param text - the request as JSON
 * @returns the first problem, or `null`
 */
export function textProblem(text: string): Problem | null {
  let count = 0;
  /** The keys of every open object; `null` for a list. */
  const open: (Set<string> | null)[] = [];
  for (let at = 0; at < text.length; at++) {
    const code = text.charCodeAt(at);
    if (code === openList || code === openObject) {
      if (++count > limits.lists)
        return {
          path: '',
          message: `The request has more than ${limits.lists.toLocaleString('en')} lists and objects. Ask in several requests.`,
        };
      open.push(code === openObject ? new Set() : null);
    } else if (code === closeList || code === closeObject) open.pop();
    else if (code === quote) {
      const end = endOfString(text, at);
      const keys = open.at(-1);
      if (keys) {
        let next = end + 1;
        while (next < text.length && text.charCodeAt(next) <= 0x20) next++;
        if (text[next] === ':') {
          const key = text.slice(at + 1, end);
          if (keys.has(key)) {
            const shown = key.length > 60 ? `${key.slice(0, 59)}…` : key;
            return { path: '', message: `An object has the key “${shown}” twice. Leave one out.` };
          }
          keys.add(key);
        }
      }
      at = end;
    }
  }
  return null;
}
