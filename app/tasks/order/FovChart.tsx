import { useMemo } from 'react';
import { degrees } from '../../../core/math/angle';
import { Curves } from '../../sheet/Curves';
import { usePart } from '../../state/tempo';
import { figure } from '../../ui/figures';
import { errorOverFov } from './contours';

/** How the error of an angular mapping grows with the field of view, for a picture of this size. */
export function FovChart() {
  const { width, height, frame, fov } = usePart(({ frame: f }) => ({
    ...{ width: f.viewport.width, height: f.viewport.height, frame: f },
    fov: degrees(Math.atan(f.extents.right / f.near) - Math.atan(f.extents.left / f.near)),
  }));
  const data = useMemo(
    () =>
      errorOverFov(width, height, frame).map(({ fov: at, most }) => ({ fov: degrees(at), most: Math.max(most, 0.01) })),
    [width, height, frame],
  );
  return (
    <Curves
      data={data}
      over="fov"
      x={{ domain: [10, 154], ticks: [30, 60, 90, 120, 150], show: (v) => `${v}°` }}
      y={{ log: true, show: (v) => figure(v, v < 1 ? 2 : 0) }}
      curves={[{ of: 'most', color: 'plum' }]}
      lines={[{ x: Math.abs(fov), color: 'brass' }]}
    />
  );
}
