import { pictureToPixel } from '../../../core/convert/project';
import { distance } from '../../../core/math/vec3';
import { taskMoment } from '../../state/slices';
import type { Moment } from '../../state/moment';
import type { WorkingBuilder } from '../../working/builder';
import type { WorkingTable } from '../../working/builder';
import type { Line } from '../../working/tex';
import { aimAt, benchOf, lookThrough, pixelNow } from './rays';
import type { PickState } from './kept';

/** The facts as the task sees them: a working is made from a whole moment. */
const momentIn = (facts: unknown): Moment<PickState> => taskMoment<PickState>('pick', facts as Moment);

/** From the pixel to right and up at ahead 1, and to the direction. */
const ray: WorkingBuilder = (facts, t) => {
  if (facts.flat) return [];
  const now = momentIn(facts);
  const { frame, codec: e } = now;
  const [a, u] = pixelNow(now);
  const { extents: x, near, kind } = frame;
  const perspective = kind === 'perspective';
  const looked = lookThrough(now, [a, u]);
  const lateral = [
    (x.left + ((a + 1) / 2) * (x.right - x.left)) / (perspective ? near : 1),
    (x.bottom + ((u + 1) / 2) * (x.top - x.bottom)) / (perspective ? near : 1),
  ];
  const lines = (
    [
      ['r', a, x.left, x.right, 0],
      ['u', u, x.bottom, x.top, 1],
    ] as const
  ).map(([name, at, low, high, i]): Line => {
    const inner = `${t.number(low, 'lens')}+${t.fraction(`${t.number(at, 'rayPixel')}+1`, '2')}\\cdot (${t.number(high, 'lens')}-${t.term(low, 'lens')})`;
    return {
      ...{
        id: `line-${name}`,
        says: i
          ? ''
          : perspective
            ? 'To the right and up at ahead 1, from the picture position'
            : 'To the right and up of the eye',
        name,
      },
      formula: perspective ? t.fraction(inner, t.number(near, 'near')) : inner,
      result: [lateral[i]!],
    };
  });
  if (!perspective) return lines;
  const world = [frame.right, frame.up, frame.forward].map((v) => e.toWorld(v));
  const long = looked.ray.rangePerAhead;
  const direction = e.toWorld(looked.ray.direction);
  return [
    ...lines,
    {
      ...{ id: 'line-long', says: 'How much farther along the ray than along the gaze', name: 'k' },
      formula: `\\sqrt{${t.number(lateral[0]!, 'line-r')}^2+${t.term(lateral[1]!, 'line-u')}^2+1}`,
      result: [long],
    },
    ...[0, 1, 2].map((i): Line => ({
      ...{
        id: `line-d-${i}`,
        says: i ? '' : 'The direction, by the camera’s right, up and forward',
        name: `d_${'xyz'[i]}`,
      },
      formula: t.fraction(
        `${t.number(lateral[0]!, 'line-r')}\\cdot ${t.term(world[0]![i]!, 'gaze')}+${t.term(lateral[1]!, 'line-u')}\\cdot ${t.term(world[1]![i]!, 'gaze')}+${t.term(world[2]![i]!, 'gaze')}`,
        t.number(long, 'line-long'),
      ),
      result: [direction[i]!],
    })),
  ];
};

/** From sine and cosine together, exact for small angles too. */
const aimAngle: WorkingBuilder = (facts, t) => {
  if (facts.flat) return [];
  const now = momentIn(facts);
  const { codec: e } = now;
  const at = pixelNow(now);
  const aim = aimAt(now, at);
  const { ray: own } = lookThrough(now, at);
  const way = distance(aim.target, now.slice.muzzle);
  if (!way) return [];
  const to = aim.target.map((v, i) => (v - now.slice.muzzle[i]!) / way) as unknown as typeof own.direction;
  const cosine = own.direction.reduce((sum, v, i) => sum + v * to[i]!, 0);
  const sine = Math.sin(aim.angle);
  const [d, m] = [e.toWorld(own.direction), e.toWorld(to)];
  const degrees = e.conventions.angles.unit === 'degrees' ? '\\cdot \\dfrac{180}{\\pi }' : '';
  return [
    {
      ...{ id: 'line-cos', says: 'The cosine: both directions multiplied', name: 'c' },
      formula: [0, 1, 2].map((i) => `${t.term(d[i]!, 'gaze')}\\cdot ${t.term(m[i]!, 'muzzle')}`).join('+'),
      result: [cosine],
    },
    {
      ...{ id: 'line-sin', says: 'The sine: the length of their cross product', name: 's' },
      formula: `\\left|${t.vector(d.map((v) => t.number(v, 'gaze')))}\\times ${t.vector(m.map((v) => t.number(v, 'muzzle')))}\\right|`,
      result: [sine],
    },
    {
      ...{ id: 'line-angle', says: 'The angle', name: '\\alpha ' },
      formula: `\\operatorname{atan2}(${t.number(sine, 'line-sin')},${t.number(cosine, 'line-cos')})${degrees}`,
      result: [e.toAngle(aim.angle)],
    },
  ];
};

/** The chord between the two rays' points; of the first row where none is chosen. */
const miss: WorkingBuilder = (facts, t) => {
  const now = momentIn(facts);
  const { frame, slice, codec: e, points: form } = now;
  const at = pixelNow(now);
  const looked = lookThrough(now, at);
  const rows = benchOf(now, looked, pictureToPixel(frame, ...at));
  const row = rows.find(({ fault }) => fault === slice.fault) ?? rows[0];
  if (!row) return [];
  const right = now.flat ? looked.end : ([0, 1, 2].map((i) => looked.ray.origin[i]! + looked.ray.direction[i]! * looked.range) as unknown as typeof looked.end); // prettier-ignore
  const [p, q] = [form.show(row.point), form.show(right)];
  const degrees = e.conventions.angles.unit === 'degrees' ? '\\cdot \\dfrac{180}{\\pi }' : '';
  const sameEye = !now.flat && distance(row.ray.origin, looked.ray.origin) === 0 && row.angle > 0;
  return [
    {
      ...{ id: 'line-miss', says: 'Between the two rays’ points at the target', name: 'm' },
      formula: `\\sqrt{${p.map((v, i) => `(${t.number(v, 'shake')}-${t.term(q[i]!, 'rayPixel')})^2`).join('+')}}`,
      result: [Math.hypot(...p.map((v, i) => v - q[i]!))],
    },
    ...(sameEye
      ? [
          {
            ...{ id: 'line-chord', says: 'From one eye that is the chord of the angle between them', name: '\\alpha ' },
            formula: `2\\arcsin ${t.fraction(t.number(row.miss, 'line-miss'), `2\\cdot ${t.number(looked.range, 'rayPixel')}`)}${degrees}`,
            result: [e.toAngle(row.angle)],
          } satisfies Line,
        ]
      : []),
  ];
};

/** The workings of Pick, by the names that its sheet asks for. */
export const workings: WorkingTable = { ray, aimAngle, miss };
