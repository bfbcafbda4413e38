/** A number for the eye: fixed decimals and a true minus. Anything too large for columns turns to powers of ten. */
export function figure(value: number, decimals = 4): string {
  const text =
    Math.abs(value) >= 1e7 ? Math.abs(value).toExponential(Math.min(decimals, 4)) : Math.abs(value).toFixed(decimals);
  return (value < 0 && Number(text) !== 0 ? '\u2212' : '') + text;
}

/** A number for the clipboard: all its digits, an ASCII minus, no −0. */
export const plain = (value: number): string => String(value === 0 ? 0 : value);

/** A number as it is edited: short where it is short, at most nine significant digits otherwise. */
export const editable = (value: number): string => plain(Number(value.toPrecision(9)));
