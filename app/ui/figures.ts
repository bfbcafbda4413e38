/** Less than this is what doubles leave over of nothing. */
const nothing = 1e-9;

/**
 * A number for the eye: fixed decimals and a true minus, so that columns stand. What is too large
 * for them turns to powers of ten, and what is too small is given two figures of its own rather
 * than shown as nothing.
 */
export function figure(value: number, decimals = 4): string {
  const size = Math.abs(value);
  if (size === Infinity) return `${value < 0 ? '\u2212' : ''}∞`;
  let text = size >= 1e7 ? size.toExponential(Math.min(decimals, 4)) : size.toFixed(decimals);
  if (size >= nothing && Number(text) === 0) {
    const needed = 1 - Math.floor(Math.log10(size));
    text = needed <= decimals + 3 ? String(Number(size.toFixed(needed))) : size.toExponential(1);
  }
  return (value < 0 && Number(text) !== 0 ? '\u2212' : '') + text.replace('e-', 'e\u2212');
}

/** A number for the clipboard: all its digits, an ASCII minus, no −0. */
export const plain = (value: number): string => String(value === 0 ? 0 : value);

/** A number as it is edited: short where it is short, at most nine significant digits otherwise. */
export const editable = (value: number): string =>
  Number.isFinite(value) ? plain(Number(value.toPrecision(9))) : value > 0 ? '∞' : '−∞';

/** A share of 1 for the eye: to two figures, so that a little is never shown as nothing. */
export function percent(share: number): string {
  const hundredths = 100 * share;
  if (share > 0.99 && share < 1) return 'over 99 %';
  if (share > 0 && hundredths < 1e-6) return 'next to nothing';
  return `${plain(Number(hundredths.toPrecision(2)))} %`;
}

/** A number of things in words: one of a thing, else so many of them. */
export const counted = (count: number, one: string, many: string): string =>
  `${count.toLocaleString('en')} ${count === 1 ? one : many}`;
