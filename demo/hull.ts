/** The outline of a vessel's deck, her bow towards +x, counter-clockwise seen with y upward. */
export function deckOutline(long: number, wide: number): [number, number][] {
  const [h, b] = [long / 2, wide / 2];
  return [
    [-h, -b * 0.82],
    [h * 0.45, -b],
    [h * 0.82, -b * 0.55],
    [h, 0],
    [h * 0.82, b * 0.55],
    [h * 0.45, b],
    [-h, b * 0.82],
  ];
}
