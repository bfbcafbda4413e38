import { readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { describe, expect, it } from 'vitest';

/*
 * Contrast by WCAG 2.2, 1.4.3 and 1.4.11: every ink of text on every ground that text is set on, in both
 * themes. Browser walks ask the same of the page by day alone.
 */

const css = readFileSync(fileURLToPath(new URL('base.css', import.meta.url)), 'utf8');
const coloursOf = (selector: string): Readonly<Record<string, string>> => {
  const from = css.indexOf(`${selector} {`);
  const block = css.slice(from, css.indexOf('}', from));
  return Object.fromEntries([...block.matchAll(/--([\w-]+): (#[0-9a-f]{6});/g)].map(([, name, hex]) => [name!, hex!]));
};
const paper = coloursOf(':root');
const themes = { paper, night: { ...paper, ...coloursOf("[data-theme='night']") } };

const luminance = (hex: string): number => {
  const [r, g, b] = [1, 3, 5].map((i) => {
    const v = parseInt(hex.slice(i, i + 2), 16) / 255;
    return v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * r! + 0.7152 * g! + 0.0722 * b!;
};
const contrast = (a: string, b: string): number => {
  const [low, high] = [luminance(a), luminance(b)].sort((x, y) => x - y);
  return (high! + 0.05) / (low! + 0.05);
};

const grounds = ['bg', 'plate', 'sunk', 'field'];
const textInks = ['ink', 'ink2', 'brasst', 'verm', 'teal', 'plum'];
/** Borders of fields and lines that carry meaning. */
const lines = ['hair2', 'brass', 'grat'];

describe.each(Object.entries(themes))('the inks of the %s theme', (_, colours) => {
  it.each(textInks)('%s can be read on every ground', (ink) => {
    for (const ground of grounds)
      expect(contrast(colours[ink]!, colours[ground]!), `${ink} on ${ground}`).toBeGreaterThanOrEqual(4.5);
  });
  it.each(lines)('%s can be seen on every ground', (line) => {
    for (const ground of grounds)
      expect(contrast(colours[line]!, colours[ground]!), `${line} on ${ground}`).toBeGreaterThanOrEqual(3);
  });
  it('marks can be read on the highlight', () => {
    for (const ink of ['ink', 'brasst'])
      expect(contrast(colours[ink]!, colours['brassw']!), ink).toBeGreaterThanOrEqual(4.5);
  });
});
