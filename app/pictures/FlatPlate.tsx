import { pixelsPerUnit, worldToPixel } from '../../core/convert/project';
import { flatCamera } from '../../formats/project';
import { addScaled, type Vec3 } from '../../core/math/vec3';
import { pickFlat } from '../../core/pick/pick';
import { useSituation, type Situation } from '../state/derive';
import { rowsOf } from '../state/tiles';
import { figure } from '../ui/figures';
import { moveAnchor } from './camera2d';
import { pictureCorners } from './drawings';
import { Handle } from './Handle';
import { n2 } from './marks';

/* What lies over the picture of a 2D camera alone. */

/** Where the focus lands: the cross that the world turns about. Dragging it makes another world point the focus. */
export function Anchor({ scale }: { scale: number }) {
  const { project } = useSituation();
  const [x, y] = flatCamera(project).anchor.map((v) => v * scale) as [number, number];
  return (
    <>
      <path
        className="anchor"
        d={`M${n2(x - 13)} ${n2(y)}h9M${n2(x + 4)} ${n2(y)}h9M${n2(x)} ${n2(y - 13)}v9M${n2(x)} ${n2(y + 4)}v9`}
        pointerEvents="none"
      />
      <Handle
        x={x}
        y={y}
        name="the anchor, the picture kept"
        onMove={(px, py, gesture) => moveAnchor([px / scale, py / scale], gesture)}
      />
    </>
  );
}

/** The numbers of a map as many as have room in a picture, in its own pixels; none on a body. */
export function tileFigures(
  { frame, project, placed }: Situation,
  width: number,
  height: number,
  scale: number,
): { key: number; x: number; y: number; text: string }[] {
  const { tiles } = project;
  if (!tiles) return [];
  const { corner, size, columns, values } = tiles;
  const pixels = size * pixelsPerUnit(frame, 0)[0] * scale;
  const stride = [1, 2, 4, 8, 16, 32].find((k) => k * pixels >= 44);
  if (!stride) return [];
  const bodies = [...placed.values()];
  const out: { key: number; x: number; y: number; text: string }[] = [];
  // Only the tiles under the picture: its corners in the map say which.
  const at = pictureCorners(frame, 0);
  const range = (i: 0 | 1, count: number) => {
    const cells = at.map((p) => (p[i] - corner[i]) / size);
    const first = Math.max(0, Math.floor(Math.min(...cells) / stride) * stride);
    return [first, Math.min(count - 1, Math.max(...cells))] as const;
  };
  const [[c0, c1], [r0, r1]] = [range(0, columns), range(1, rowsOf(tiles))];
  for (let row = r0; row <= r1; row += stride)
    for (let column = c0; column <= c1; column += stride) {
      const value = values[row * columns + column];
      if (value === null || value === undefined) continue;
      const middle: Vec3 = [corner[0] + (column + 0.5) * size, corner[1] + (row + 0.5) * size, 0];
      const pixel = worldToPixel(frame, middle);
      if (!pixel.ok) continue;
      const [x, y] = [pixel.value[0] * scale, pixel.value[1] * scale];
      if (x < 14 || y < 10 || x > width - 14 || y > height - 10) continue;
      // The figure is wider than it is high: its ends must be clear of bodies too.
      const ends = [-0.5, 0, 0.5].map((k) => addScaled(middle, frame.right, (28 * k) / (pixels / size)));
      if (ends.every((p) => !pickFlat(p, bodies).length))
        out.push({ key: row * columns + column, x, y, text: figure(value, 1) });
    }
  return out;
}
