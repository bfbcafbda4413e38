import { pixelDerivative } from '../../../../core/convert/derivative';
import { edgeMarker } from '../../../../core/convert/edgeMarker';
import { transform } from '../../../../core/math/mat4';
import type { Contact } from '../../../../core/visibility/visibility';
import { familyContacts, markerInset } from '../../../state/bounds';
import { pointFormOf } from '../../../state/points';
import { letters, four, scaleLines, type Facts, type WorkingBuilder } from '../../../working/builder';
import type { Line } from '../../../working/tex';

/* Workings of where things lie on the screen, and how fast they move there. */

/** What is taken off for pixels whose centres are whole numbers. */
const half = ({ codec: e }: Facts) => (e.conventions.screen.pixelCentre === 0 ? 0.5 : 0);
/** Whether screen y runs downward. */
const down = ({ codec: e }: Facts) => e.conventions.screen.origin === 'top-left';

/**
 * Where an edge marker stands: the way from the middle of the picture, taken from clip x and y
 * before the division (behind the eye it would turn over), as far as the border.
 */
export const edge: WorkingBuilder = (facts, t) => {
  const { chain, frame, codec: e, flat } = facts;
  const marker = chain.ok ? edgeMarker(frame, chain.value.world, markerInset) : null;
  if (!chain.ok || !marker) return [];
  const { viewport: v } = frame;
  const matrix = e.matrix(frame, 'viewProjection');
  const world = e.toWorld(chain.value.world);
  const clip = transform(matrix, [...world, 1]);
  const sizes = [v.width, v.height];
  const signs = [1, e.screenFollowsNdc ? 1 : -1];
  const way = [0, 1].map((i) => (signs[i]! * clip[i]! * sizes[i]!) / 2);
  const sideways = marker.side === 'left' || marker.side === 'right';
  const nearer = sideways ? 0 : 1;
  // In a picture smaller than twice the inset the border shrinks to the middle.
  const border = Math.max(0, sizes[nearer]! / 2 - markerInset);
  const k = border / Math.abs(way[nearer]!);
  const corner = [v.x, v.y];
  const upward = down(facts) ? -way[1]! : way[1]!;
  const degrees = e.conventions.angles.unit === 'degrees';
  return [
    {
      ...{ id: 'line-clip', says: 'World to clip, not divided: behind the eye w is below 0', name: 'c' },
      formula: t.product(
        t.matrix(matrix, (_, column) => (column === 3 ? (flat ? 'focus' : 'eye') : flat ? 'zoom' : 'lens')),
        four(world, t, 'probe'),
      ),
      result: clip,
    },
    ...[0, 1].map((i): Line => ({
      ...{ id: `line-way-${letters[i]}`, says: i ? '' : 'The way from the middle of the picture, on the screen' },
      name: `d_${letters[i]}`,
      formula: `${t.term(signs[i]! * clip[i]!, 'line-clip')}\\cdot ${t.fraction(t.number(sizes[i]!, 'viewport'), '2')}`,
      result: [way[i]!],
    })),
    {
      ...{ id: 'line-k', says: `It meets the ${sideways ? 'upright' : 'level'} border first`, name: 'k' },
      formula: t.fraction(
        border ? `${t.fraction(t.number(sizes[nearer]!, 'viewport'), '2')}-${t.number(markerInset)}` : '0',
        t.number(Math.abs(way[nearer]!), `line-way-${letters[nearer]}`),
      ),
      result: [k],
    },
    ...[0, 1].map((i): Line => ({
      ...{ id: `line-marker-${letters[i]}`, says: i ? '' : 'The marker', name: `m_${letters[i]}` },
      formula: `${corner[i] ? `${t.number(corner[i]!, 'viewport')}+` : ''}${t.fraction(t.number(sizes[i]!, 'viewport'), '2')}+${t.number(k, 'line-k')}\\cdot ${t.term(way[i]!, `line-way-${letters[i]}`)}${half(facts) ? '-0.5' : ''}`,
      result: [corner[i]! + sizes[i]! / 2 + k * way[i]! - half(facts)],
    })),
    {
      ...{ id: 'line-bearing', says: 'The way as an angle from right, upward', name: '\\beta' },
      formula: `\\operatorname{atan2}(${t.number(upward, 'line-way-y')},${t.number(way[0]!, 'line-way-x')})${degrees ? '\\cdot \\dfrac{180}{\\pi }' : ''}`,
      result: [e.toAngle(Math.atan2(upward, way[0]!))],
    },
  ];
};

/** How the probe's pixel moves with the point: k·(right − (r/f)·ahead), and likewise upward. */
export const derivative: WorkingBuilder = (facts, t) => {
  const { chain, frame, codec: e, flat } = facts;
  if (!chain.ok || !pixelDerivative(frame, chain.value.world).ok) return [];
  const { viewRuf } = chain.value;
  const perspective = frame.kind === 'perspective';
  const turned = flat ? 'turned' : 'gaze';
  const form = pointFormOf(e, flat);
  const [right, up, ahead] = [form.show(frame.right), form.show(frame.up), form.show(frame.forward)];
  const k = scaleLines(frame, viewRuf[2], t);
  const rows = [right, up].map((axis, row) => {
    const sign = row && down(facts) ? -1 : 1;
    return form.letters.map((letter, i): Line => {
      const scale = k[row]!;
      const inner = perspective
        ? `(${t.term(axis[i]!, turned)}-${t.fraction(t.number(viewRuf[row]!, 'probe'), t.number(viewRuf[2], 'probe'))}\\cdot ${t.term(ahead[i]!, turned)})`
        : t.term(axis[i]!, turned);
      const along = axis[i]! - (perspective ? (viewRuf[row]! / viewRuf[2]) * ahead[i]! : 0);
      return {
        id: `line-${'xy'[row]}-${letter}`,
        says: i ? '' : row ? 'Its screen y with the point' : 'Its screen x with the point',
        name: `\\partial ${'xy'[row]}/\\partial ${letter}`,
        formula: `${sign < 0 ? '-' : ''}${t.number(scale.result[0]!, scale.id)}\\cdot ${inner}`,
        result: [sign * scale.result[0]! * along],
      };
    });
  });
  return [...k, ...rows.flat()];
};

/**
 * The rectangle that a body with its parts takes on the screen: where its silhouette reaches
 * farthest to each side, put on the screen.
 */
export const rectangle: WorkingBuilder = (facts, t, { body }) => {
  const { frame } = facts;
  const found = body === undefined ? null : familyContacts(facts, body);
  if (!found?.ok) return [];
  const { extents: x, viewport: v, near, kind } = frame;
  const perspective = kind === 'perspective';
  const side = (name: 'left' | 'right' | 'bottom' | 'top', says: string): Line => {
    const upright = name === 'bottom' || name === 'top';
    const [c, f]: Contact = found.value[name];
    const at = perspective ? t.fraction(`${t.number(near, 'near')}\\cdot ${t.term(c, 'body')}`, t.number(f, 'body')) : t.term(c, 'body'); // prettier-ignore
    const [low, high] = upright ? [x.bottom, x.top] : [x.left, x.right];
    const turned = upright && down(facts);
    const over = turned ? `${t.number(high, 'lens')}-${at}` : `${at}-${t.term(low, 'lens')}`;
    const [origin, size] = upright ? [v.y, v.height] : [v.x, v.width];
    const span = `${t.number(high, 'lens')}-${t.term(low, 'lens')}`;
    const value = perspective ? (near * c) / f : c;
    return {
      ...{ id: `line-${name}`, says, name: `${upright ? 'y' : 'x'}_\\text{${name}}` },
      formula: `${origin ? `${t.number(origin, 'viewport')}+` : ''}${t.fraction(over, span)}\\cdot ${t.number(size, 'viewport')}${half(facts) ? '-0.5' : ''}`,
      result: [origin + ((turned ? high - value : value - low) / (high - low)) * size - half(facts)],
    };
  };
  const ahead = perspective ? ', its part to that side over how far ahead it is' : '';
  const sides = [
    side('left', `Where its silhouette reaches farthest to each side${ahead}`),
    side('right', ''),
    side(down(facts) ? 'top' : 'bottom', ''),
    side(down(facts) ? 'bottom' : 'top', ''),
  ];
  const length = (name: string, says: string, [a, b]: readonly Line[]): Line => ({
    ...{ id: `line-${name}`, says, name: `\\text{${name}}` },
    formula: `${t.number(b!.result[0]!, b!.id)}-${t.term(a!.result[0]!, a!.id)}`,
    result: [b!.result[0]! - a!.result[0]!],
  });
  return [...sides, length('width', 'Width and height', sides.slice(0, 2)), length('height', '', sides.slice(2))];
};
