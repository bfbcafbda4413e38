import { useMemo } from 'react';
import { distanceForSize } from '../../../core/visibility/size';
import { Curves } from '../../sheet/Curves';
import { useTaskMoment } from '../../state/tempo';
import { figure } from '../../ui/figures';
import type { VisibilityState } from './kept';

const short = (v: number) => figure(v, v < 1 ? 2 : 0);

/** The diameter of one body over its distance, with the thresholds as lines and the present distance. */
export function SizeChart({ radius, from }: { radius: number; from: number }) {
  const { frame, slice } = useTaskMoment<VisibilityState>('visibility');
  const data = useMemo(() => {
    // The distance at which it is so large, by sizes even in their logarithm.
    const [most, least] = [2 * frame.viewport.height, 2];
    return Array.from({ length: 49 }, (_, i) => {
      const px = most * (least / most) ** (i / 48);
      return { px, at: distanceForSize(frame, radius, px) ?? 0 };
    });
  }, [frame, radius]);
  return (
    <Curves
      data={data}
      over="at"
      x={{ log: true, show: short }}
      y={{ log: true, show: short }}
      curves={[{ of: 'px', color: 'teal' }]}
      lines={[...slice.thresholds.map((y) => ({ y, color: 'plum', dash: '5 3' })), { x: from, color: 'brass' }]}
    />
  );
}
