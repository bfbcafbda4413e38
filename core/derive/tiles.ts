import type { CameraFrame } from '../camera/frame';
import type { Read } from '../reasons';
import { allOf, derivedCamera, lensOf, type DerivedCamera } from './derivedCamera';

/**
 * Returns the cameras of the parts of a picture cut into equal rectangles, row by row from the top left. Each shows its
 * part on a full viewport.
 */
export function tileCameras(frame: CameraFrame, columns: number, rows: number): Read<readonly DerivedCamera[]> {
  const { left, right, bottom, top } = frame.extents;
  // Neighbours share an edge to the bit: they join without a gap.
  const x = (i: number) => (i === columns ? right : left + ((right - left) * i) / columns);
  const y = (i: number) => (i === rows ? bottom : top + ((bottom - top) * i) / rows);
  return allOf(
    Array.from({ length: columns * rows }, (_, i) => {
      const [column, row] = [i % columns, Math.floor(i / columns)];
      const extents = { left: x(column), right: x(column + 1), bottom: y(row + 1), top: y(row) };
      return derivedCamera(`row ${row + 1}, column ${column + 1}`, {
        basis: frame,
        lens: lensOf({ ...frame, extents }),
        eye: frame.eye,
        viewport: frame.viewport,
      });
    }),
  );
}
