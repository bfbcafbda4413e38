import { sizeAt } from '../../core/convert/project';
import type { Project, ProjectBody } from '../../formats/project';
import { currentSituation } from '../state/derive';
import { edit } from '../state/document';
import { say } from '../ui/clipboard';

/* Bodies put in and taken out by hand. */

const names = { box: 'Box', sphere: 'Sphere', point: 'Point' } as const;
export type SimpleBody = keyof typeof names;

/** A length that reads well: 1, 2 or 5 times a power of ten. */
function round(length: number): number {
  const power = 10 ** Math.floor(Math.log10(length));
  const digit = length / power;
  return Number(((digit < 1.5 ? 1 : digit < 3.5 ? 2 : digit < 7.5 ? 5 : 10) * power).toPrecision(1));
}

/** Puts a body where the probe is, of a size to be seen there, and probes it. */
export function addBody(kind: SimpleBody): void {
  const { project, chain, frame, flat } = currentSituation();
  const at = chain.ok ? chain.value.world : frame.eye;
  const ahead = chain.ok ? chain.value.parts[2] : 0;
  const size = round(sizeAt(frame, ahead > frame.near ? ahead : frame.near * 10)[1] / 5);
  const shape: ProjectBody['shape'] =
    kind === 'box' ? { kind, size: [size, size, size] } : kind === 'sphere' ? { kind, radius: size / 2 } : { kind };
  const taken = new Set(project.bodies.flatMap(({ id, name }) => [id, name]));
  let [id, name] = [kind as string, names[kind] as string];
  for (let i = 2; taken.has(id) || taken.has(name); i++) [id, name] = [`${kind}-${i}`, `${names[kind]} ${i}`];
  const position: [number, number, number] = [at[0], at[1], flat ? 0 : at[2]];
  edit(`put in ${name}`, (draft) => {
    draft.bodies.push({
      ...{ id, name, shape, position, rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null },
      ...{ castsShadow: true, tone: 'stone', fixed: false, handle: [0, 0, 0] },
    });
    draft.probe = { body: id, drive: { rung: 'local', value: [0, 0, 0] } };
  });
  say(`Put in ${name}. Convert has its place and size under Nodes.`);
}

/** Takes a body out with everything that hangs on it; a probe on one of them stays where it was. */
export function removeBody(id: string): void {
  const { project, chain } = currentSituation();
  const gone = new Set([id]);
  // Parts may be listed before what they are parts of.
  for (let size = 0; size !== gone.size;) {
    size = gone.size;
    for (const body of project.bodies) if (body.parent !== null && gone.has(body.parent)) gone.add(body.id);
  }
  const { name } = project.bodies.find((body) => body.id === id)!;
  edit(`take out ${name}`, (draft) => {
    draft.bodies = draft.bodies.filter((body) => !gone.has(body.id)) as Project['bodies'];
    if (project.probe.body !== null && gone.has(project.probe.body))
      draft.probe = { body: null, drive: { rung: 'world', value: chain.ok ? [...chain.value.world] : [0, 0, 0] } };
  });
  say(`Took out ${name}${gone.size > 1 ? ` and its ${gone.size - 1} parts` : ''}. Undo brings it back.`);
}
