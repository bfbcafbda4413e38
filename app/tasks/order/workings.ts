import type { Vec2 } from '../../../core/math/vec3';
import { viewRufToClip, worldToViewRuf } from '../../../core/convert/project';
import { angularOfPicture, angularSpan } from '../../../core/order/angular';
import { horizonPitches } from '../../../core/order/horizon';
import { shadowOf } from '../../../core/order/shadow';
import { signedArea2 } from '../../../core/order/winding';
import { sliceOf } from '../../state/slices';
import type { Facts, WorkingBuilder } from '../../working/builder';
import type { WorkingTable } from '../../working/builder';
import type { Line } from '../../working/tex';
import { lightOf, receiverOf } from '../../state/light';
import { followedPolygon, threeWays } from './followed';
import type { OrderState } from './kept';

const sliceIn = ({ project }: Facts): OrderState => sliceOf<OrderState>('order', project);
const polygonIn = (facts: Facts) =>
  facts.flat ? null : followedPolygon({ slice: sliceIn(facts), placed: facts.placed });

/** Where the near plane cuts an edge of the face: the share of the way, and the corner there. */
const cut: WorkingBuilder = (facts, t) => {
  const { frame } = facts;
  const polygon = polygonIn(facts);
  if (!polygon) return [];
  const { near, names } = threeWays(frame, polygon);
  const made = near.filter(({ along }) => along > 0 && along < 1);
  return made.flatMap((one, i): Line[] => {
    const [a, b] = [one.edge, (one.edge + 1) % polygon.length].map((k) => worldToViewRuf(frame, polygon[k]!));
    if (!a || !b) return [];
    const name = names.get(one)!;
    const share: Line = {
      ...{
        id: `line-share-${i}`,
        says: `Corner ${name}: the share of the way at which it is as far ahead as near`,
        name: 't',
      },
      formula: t.fraction(
        `${t.number(frame.near, 'near')}-${t.term(a[2], 'corners')}`,
        `${t.number(b[2], 'corners')}-${t.term(a[2], 'corners')}`,
      ),
      result: [one.along],
    };
    return [
      share,
      ...([0, 1] as const).map((k): Line => ({
        ...{
          id: `line-cut-${i}-${k}`,
          says: k ? '' : 'and there, to the right of the gaze and above it',
          name: k ? 'u' : 'r',
        },
        formula: `${t.number(a[k], 'corners')}+${t.number(one.along, share.id)}\\cdot (${t.number(b[k], 'corners')}-${t.term(a[k], 'corners')})`,
        result: [one.viewRuf[k]],
      })),
    ];
  });
};

/** The sum of cross products over the corners that near leaves, in pixels to the right and upward. */
const signedArea: WorkingBuilder = (facts, t) => {
  const { frame } = facts;
  const polygon = polygonIn(facts);
  if (!polygon) return [];
  const { width, height } = frame.viewport;
  const corners = threeWays(frame, polygon).near.map(({ viewRuf }): Vec2 => {
    const { x, y, w } = viewRufToClip(frame, viewRuf);
    return [((x / w) * width) / 2, ((y / w) * height) / 2];
  });
  if (!corners.length) return [];
  const [ox, oy] = corners[0]!;
  const terms = corners.map(([x, y], i): Line => {
    const [p, q] = corners[(i + 1) % corners.length]!;
    return {
      ...{
        id: `line-term-${i}`,
        says: i ? '' : 'A cross product an edge, from the first corner',
        name: `c_{${i + 1}}`,
      },
      formula: `${t.term(x - ox, 'corners')}\\cdot ${t.term(q - oy, 'corners')}-${t.term(p - ox, 'corners')}\\cdot ${t.term(y - oy, 'corners')}`,
      result: [(x - ox) * (q - oy) - (p - ox) * (y - oy)],
    };
  });
  return [
    ...terms,
    {
      ...{ id: 'line-area', says: 'Half their sum: above 0 counter-clockwise as seen', name: 'A' },
      formula: t.fraction(terms.map(({ result, id }) => t.term(result[0]!, id)).join('+'), '2'),
      result: [signedArea2(corners) / 2],
    },
  ];
};

/** The steepest and the flattest pitch with the horizon in the picture, by the corners of the near plane. */
const horizonPitch: WorkingBuilder = ({ frame, flat, codec: e }, t) => {
  const pitches = flat ? null : horizonPitches(frame);
  if (!pitches) return [];
  const { extents: x, near, right, up } = frame;
  const level = Math.hypot(right[1], up[1]);
  const [sin, cos] = [-right[1] / level, up[1] / level];
  const corners = [x.left, x.right].flatMap((r) => [x.bottom, x.top].map((u) => [r, u] as const));
  const degrees = e.conventions.angles.unit === 'degrees' ? '\\cdot \\dfrac{180}{\\pi }' : '';
  const sign = e.toAngles({ yaw: 0, pitch: 1, roll: 0 }).pitch < 0 ? '-' : '';
  return pitches.map((pitch, i): Line => {
    const at = (c: readonly [number, number]) => Math.atan((c[0] * sin - c[1] * cos) / near);
    const [r, u] = corners.reduce((best, one) => (Math.abs(at(one) - pitch) < Math.abs(at(best) - pitch) ? one : best));
    return {
      ...{
        id: `line-pitch-${i}`,
        says: i ? 'Above this it has left below' : 'Under this the horizon has left above',
        name: `\\theta_${i + 1}`,
      },
      formula: `${sign}\\arctan ${t.fraction(
        `${t.term(r, 'lens')}\\cdot ${t.term(sin, 'gaze')}-${t.term(u, 'lens')}\\cdot ${t.term(cos, 'gaze')}`,
        t.number(near, 'near'),
      )}${degrees}`,
      result: [e.toAngles({ yaw: 0, pitch, roll: 0 }).pitch],
    };
  });
};

/** On along the light from the probe to the level. */
const shadow: WorkingBuilder = (facts, t) => {
  const { chain, flat, codec: e } = facts;
  const slice = sliceIn(facts);
  const light = lightOf(slice.light);
  const found = chain.ok && !flat ? shadowOf(light, receiverOf(slice), chain.value.world) : null;
  if (!chain.ok || !found?.ok) return [];
  const p = chain.value.world;
  const way = light.kind === 'directional' ? light.travels : p.map((v, i) => v - light.at[i]!);
  const along = (slice.receiver - p[1]) / way[1]!;
  const [point, direction] = [e.toWorld(p), e.toWorld(way as unknown as typeof p)];
  const to = e.toWorld(found.value);
  const from = 'light';
  const height = e.toHeight(slice.receiver);
  const heights = [e.toHeight(p[1]), e.toHeight(way[1]!)];
  return [
    {
      ...{
        id: 'line-along',
        says:
          light.kind === 'point'
            ? 'Ways from the lamp to the probe, from the probe to the level'
            : 'How far along the light the level is',
        name: 't',
      },
      formula: t.fraction(
        `${t.number(height, 'receiver')}-${t.term(heights[0]!, 'probe')}`,
        t.number(heights[1]!, from),
      ),
      result: [along],
    },
    ...point.map((v, i): Line => ({
      ...{ id: `line-shadow-${i}`, says: i ? '' : 'The shadow', name: `s_${'xyz'[i]}` },
      formula: `${t.number(v, 'probe')}+${t.number(along, 'line-along')}\\cdot ${t.term(direction[i]!, from)}`,
      result: [to[i]!],
    })),
  ];
};

/** Where the probe would be by equal angles, and where it is on the plane: the two formulas side by side. */
const equalAngles: WorkingBuilder = (facts, t) => {
  const { chain, frame, flat } = facts;
  const span = flat ? null : angularSpan(frame);
  const picture = chain.ok && chain.value.picture.ok ? chain.value.picture.value : null;
  const found = picture && angularOfPicture(frame, [picture.across, picture.upward]);
  if (!span || !found || !picture) return [];
  const { viewport: v, extents: x, near } = frame;
  const unit = 180 / Math.PI;
  const rows = [
    ['x', v.width, found.direction[0], span.left, span.right, found.picture[0], '\\beta '],
    ['y', v.height, found.direction[1], span.bottom, span.top, found.picture[1], '\\varepsilon '],
  ] as const;
  const angle: Line[] = rows.map(([name, size, at, low, high, place]) => ({
    ...{
      id: `line-angle-${name}`,
      says: name === 'x' ? 'By equal angles, in pixels from the left and from the bottom' : '',
      name: `${name}_a`,
    },
    formula: `${t.number(size, 'viewport')}\\cdot ${t.fraction(
      `${t.number(at * unit, 'probe')}^\\circ -${t.term(low * unit, 'lens')}^\\circ `,
      `${t.number(high * unit, 'lens')}^\\circ -${t.term(low * unit, 'lens')}^\\circ `,
    )}`,
    result: [((place + 1) / 2) * size],
  }));
  const tangent = [Math.tan(found.direction[0]), Math.tan(found.direction[1]) / Math.cos(found.direction[0])];
  const plane: Line[] = (
    [
      ['x', v.width, x.left, x.right, picture.across],
      ['y', v.height, x.bottom, x.top, picture.upward],
    ] as const
  ).map(([name, size, low, high, place], i) => ({
    ...{
      id: `line-plane-${name}`,
      says: i ? '' : 'On the plane: the tangent in the place of the angle',
      name: `${name}_p`,
    },
    formula: `${t.number(size, 'viewport')}\\cdot ${t.fraction(
      `${t.number(near, 'near')}\\cdot ${t.term(tangent[i]!, 'probe')}-${t.term(low, 'lens')}`,
      `${t.number(high, 'lens')}-${t.term(low, 'lens')}`,
    )}`,
    result: [((place + 1) / 2) * size],
  }));
  return [...angle, ...plane];
};

/** The workings of Order, by the names that its sheet asks for. */
export const workings: WorkingTable = { cut, signedArea, horizonPitch, shadow, equalAngles };
