import { boundingSphere } from '../../../core/bodies/body';
import { worldShape } from '../../../core/bodies/geometry';
import { planesOf } from '../../../core/camera/frame';
import { distance } from '../../../core/math/vec3';
import { apparentSize } from '../../../core/visibility/size';
import { clearanceOf } from '../../../core/visibility/clearance';
import { grown, visibility } from '../../../core/visibility/visibility';
import { sliceOf } from '../../state/slices';
import type { Facts, WorkingBuilder } from '../../working/builder';
import type { WorkingTable } from '../../working/builder';
import type { Line } from '../../working/tex';
import type { VisibilityState } from './kept';

const sliceIn = ({ project }: Facts): VisibilityState => sliceOf<VisibilityState>('visibility', project);
const probed = ({ project, placed }: Facts) =>
  project.probe.body === null ? undefined : placed.get(project.probe.body);

/** The point of the probed body that decides, against the plane that says most. */
const clearance: WorkingBuilder = (facts, t) => {
  const { frame, codec: e, flat } = facts;
  const placed = probed(facts);
  const { margin } = sliceIn(facts);
  if (!placed || !(Math.min(frame.viewport.width, frame.viewport.height) + 2 * margin > 0)) return [];
  const { verdict } = visibility(frame, [placed], { method: 'exact', margin, flat })[0]!;
  const found = clearanceOf(frame, placed, verdict, { margin, flat });
  const named = found && planesOf(grown(frame, margin)).find(({ name }) => name === found.plane);
  if (!found || !named) return [];
  const [nx, ny, nz, d] = named.plane;
  const n = e.toWorld([nx, ny, nz]);
  const shape = worldShape(placed, flat);
  const at = (p: readonly [number, number, number]) => nx * p[0] + ny * p[1] + nz * p[2] + d;
  if (shape.kind === 'sphere') {
    const c = e.toWorld(shape.centre);
    return [
      {
        ...{ id: 'line-middle', says: `Its middle against the plane “${found.plane}”`, name: 's' },
        formula: `${[0, 1, 2].map((i) => `${t.term(n[i]!, 'gaze')}\\cdot ${t.term(c[i]!, 'probe')}`).join('+')}+${t.term(d, 'lens')}`,
        result: [at(shape.centre)],
      },
      {
        ...{ id: 'line-clear', says: 'less or more its radius', name: 'c' },
        formula: `${t.number(at(shape.centre), 'line-middle')}${verdict === 'outside' ? '+' : '-'}${t.number(shape.radius, 'probe')}`,
        result: [found.by],
      },
    ];
  }
  const decides = shape.points.reduce((best, p) =>
    Math.abs(at(p) - found.by) < Math.abs(at(best) - found.by) ? p : best,
  );
  const p = e.toWorld(decides);
  return [
    {
      ...{ id: 'line-clear', says: `The corner that decides against the plane “${found.plane}”`, name: 'c' },
      formula: `${[0, 1, 2].map((i) => `${t.term(n[i]!, 'gaze')}\\cdot ${t.term(p[i]!, 'probe')}`).join('+')}+${t.term(d, 'lens')}`,
      result: [found.by],
    },
  ];
};

/** The diameter of the sphere about the probed body. */
const diameter: WorkingBuilder = (facts, t) => {
  const { frame, flat } = facts;
  const placed = probed(facts);
  const size = placed && apparentSize(frame, placed, flat).diameter;
  if (!placed || !size?.ok) return [];
  const { centre, radius } = boundingSphere(placed, flat);
  const { extents: x, near, viewport: v, kind } = frame;
  const k = v.height / Math.abs(x.top - x.bottom);
  const span = `${t.number(x.top, 'lens')}-${t.term(x.bottom, 'lens')}`;
  if (kind === 'orthographic')
    return [
      {
        ...{ id: 'line-diameter', says: 'Twice the radius, times pixels per unit', name: 'D' },
        formula: `2\\cdot ${t.number(radius, 'probe')}\\cdot ${t.fraction(t.number(v.height, 'viewport'), span)}`,
        result: [size.value],
      },
    ];
  const d = distance(centre, frame.eye);
  const one: Line = {
    ...{ id: 'line-k', says: 'Pixels of one unit at ahead 1', name: 'K' },
    formula: `${t.fraction(t.number(v.height, 'viewport'), span)}\\cdot ${t.number(near, 'near')}`,
    result: [k * near],
  };
  return [
    one,
    {
      ...{ id: 'line-diameter', says: 'By the tangents to the sphere', name: 'D' },
      formula: t.fraction(
        `2\\cdot ${t.number(k * near, 'line-k')}\\cdot ${t.number(radius, 'probe')}`,
        `\\sqrt{${t.number(d, 'probe')}^2-${t.number(radius, 'probe')}^2}`,
      ),
      result: [size.value],
    },
  ];
};

/** The workings of Visibility, by the names that its sheet asks for. */
export const workings: WorkingTable = { clearance, diameter };
