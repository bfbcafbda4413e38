import { boundingSphere } from '../../../core/bodies/body';
import { transformPoint } from '../../../core/math/mat4';
import type { Vec3 } from '../../../core/math/vec3';
import { courseOf, type MovingBody } from '../../../core/motion/bodies';
import { coreMotion } from '../../../formats/camera';
import type { Project } from '../../../formats/project';
import { memo } from '../../state/memo';
import { momentOf, type Moment } from '../../state/moment';
import type { MotionState } from './kept';

/** What charts and differences are about, as data: a sphere that goes with a body or stands. */
export interface Subject {
  readonly name: string;
  readonly radius: number;
  /** The body and all that it hangs on, without their shapes; empty for a place that stands. */
  readonly chain: readonly MovingBody[];
  /** Its middle: in the body's own space, or in the world. */
  readonly middle: Vec3;
}

/** A body with its shape, and all that it hangs on, which is there for its place alone; the body first. */
export const chainOf = memo((bodies: Project['bodies'], id: string): readonly MovingBody[] => {
  const byId = new Map(bodies.map((body) => [body.id, body]));
  const chain: MovingBody[] = [];
  for (let at = byId.get(id); at; at = at.parent === null ? undefined : byId.get(at.parent))
    chain.push({ ...at, shape: at.id === id ? at.shape : { kind: 'point' }, motion: at.motion && coreMotion(at.motion) }); // prettier-ignore
  return chain;
});

const ofBody = memo((project: Project, id: string): Subject | null => {
  // At rest: what it is does not change as time passes.
  const one = momentOf(project).placed.get(id);
  if (!one) return null;
  const { centre, radius } = boundingSphere(one, project.camera.kind === '2d');
  const name = project.bodies.find((body) => body.id === id)!.name;
  // Its place is all that is asked: a mesh would be told to the worker for nothing.
  const chain = chainOf(project.bodies, id).map((body): MovingBody => ({ ...body, shape: { kind: 'point' } }));
  return { name, radius, chain, middle: transformPoint(one.toLocal, centre) };
});
const probe = memo((place: Vec3): Subject => ({ name: 'the probe', radius: 0, chain: [], middle: place }));

/** The subject: the chosen body, or the probe; null where the probe is nowhere. */
export function subjectOf({ slice, project }: Pick<Moment<MotionState>, 'slice' | 'project'>): Subject | null {
  const body = slice.subject === null ? null : ofBody(project, slice.subject);
  if (body) return body;
  const { chain } = momentOf(project);
  return chain.ok ? probe(chain.value.world) : null;
}

/** Where the subject's middle is at a time, in canonical world space. */
export const subjectAt = ({ chain, middle }: Subject, time: number): Vec3 =>
  chain.length ? courseOf(chain, chain[0]!.id, [time], middle)[0]! : middle;
