import { sizeAt } from '../../../core/convert/project';
import type { WorkingBuilder } from '../../working/builder';
import type { WorkingTable } from '../../working/builder';
import type { Line } from '../../working/tex';

/** Width and height seen at the probe's distance ahead. */
const seen: WorkingBuilder = ({ frame, chain }, t) => {
  if (!chain.ok) return [];
  const { extents: x, near, kind } = frame;
  const f = chain.value.viewRuf[2];
  if (kind === 'perspective' && !(f > 0)) return [];
  const size = sizeAt(frame, f);
  const line = (i: 0 | 1, name: string, low: number, high: number): Line => {
    const span = `${t.number(high, 'lens')}-${t.term(low, 'lens')}`;
    return {
      ...{ id: `line-${name}`, says: i === 0 ? 'Seen at the subject’s distance, across and upward' : '', name },
      formula:
        kind === 'perspective' ? `${t.fraction(span, t.number(near, 'near'))}\\cdot ${t.number(f, 'probe')}` : span,
      result: [size[i]],
    };
  };
  return [line(0, 'w', x.left, x.right), line(1, 'h', x.bottom, x.top)];
};

/** The workings of Frame, by the names that its sheet asks for. */
export const workings: WorkingTable = { seen };
