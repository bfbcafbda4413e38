/** Placing the words in a picture so that none touch: the first in the list chooses first. */

export interface Rect {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Where a label may stand relative to its point, from its near end. */
export interface Spot {
  readonly dx: number;
  readonly dy: number;
  readonly anchor: 'start' | 'middle' | 'end';
}

export interface Label {
  readonly key: string;
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height?: number;
  readonly spots: readonly Spot[];
}

export interface Placed<L extends Label> {
  readonly label: L;
  readonly spot: Spot;
  /** The text's baseline point, for its anchor. */
  readonly at: { readonly x: number; readonly y: number };
  readonly box: Rect;
}

export const overlap = (a: Rect, b: Rect): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

const within = (a: Rect, b: Rect): boolean =>
  a.x >= b.x && a.y >= b.y && a.x + a.width <= b.x + b.width && a.y + a.height <= b.y + b.height;

/** Round about a point, the tidiest places first. */
export const around: readonly Spot[] = [
  { dx: 13, dy: -18, anchor: 'start' },
  { dx: -13, dy: -18, anchor: 'end' },
  { dx: 14, dy: 18, anchor: 'start' },
  { dx: -14, dy: 18, anchor: 'end' },
  { dx: 22, dy: 0, anchor: 'start' },
  { dx: -22, dy: 0, anchor: 'end' },
  { dx: 20, dy: -32, anchor: 'start' },
  { dx: -20, dy: -32, anchor: 'end' },
  { dx: 22, dy: 32, anchor: 'start' },
  { dx: -22, dy: 32, anchor: 'end' },
];

/**
 * Each label at the first of its spots that is free and inside the bounds; those without one are
 * returned apart.
 */
export function place<L extends Label>(
  labels: readonly L[],
  bounds: Rect,
  taken: readonly Rect[] = [],
): { placed: Placed<L>[]; left: L[] } {
  const placed: Placed<L>[] = [];
  const left: L[] = [];
  const occupied = [...taken];
  for (const label of labels) {
    const height = label.height ?? 15;
    const found = label.spots.find((spot) => {
      const box = boxOf(label, spot, height);
      return within(box, bounds) && !occupied.some((other) => overlap(box, other));
    });
    if (!found) {
      left.push(label);
      continue;
    }
    const box = boxOf(label, found, height);
    occupied.push(box);
    placed.push({ label, spot: found, box, at: { x: label.x + found.dx, y: label.y + found.dy + 4 } });
  }
  return { placed, left };
}

function boxOf({ x, y, width }: Label, { dx, dy, anchor }: Spot, height: number): Rect {
  const start = x + dx - (anchor === 'end' ? width : anchor === 'middle' ? width / 2 : 0);
  return { x: start - 2, y: y + dy - height / 2, width: width + 4, height };
}

/** About how wide 11.5 px sans text is; the digits of the mono face are wider. */
export const textWidth = (text: string, mono = false): number => text.length * (mono ? 6.95 : 6.1);
