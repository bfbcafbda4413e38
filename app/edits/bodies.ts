import { sizeAt } from '../../core/convert/project';
import { niceNear } from '../../core/math/nice';
import type { Project, ProjectBody } from '../../formats/project';
import { currentMoment } from '../state/tempo';
import { newId } from '../state/crashLog';
import { edit } from '../state/document';
import { forgetBodies, withKeptSlices } from '../state/slices';
import { counted } from '../ui/figures';
import { complain, say } from '../ui/notices';
import { imageProblems } from '../../formats/images';
import type { PointData } from '../../formats/pointSets';
import { tooMuch } from '../../formats/size';
import { bodiesOfPoints, mostPointBodies } from '../../formats/projectFromGeometry';

/* Bodies added and deleted by hand. */

const names = { box: 'Box', sphere: 'Sphere', point: 'Point' } as const;
export type SimpleBody = keyof typeof names;

/** Puts a body where the probe is, of a size to be seen there, and probes it. */
export function addBody(kind: SimpleBody): void {
  const { project, chain, frame, flat } = currentMoment();
  const at = chain.ok ? chain.value.world : frame.eye;
  const ahead = chain.ok ? chain.value.viewRuf[2] : 0;
  const size = niceNear(sizeAt(frame, ahead > frame.near ? ahead : frame.near * 10)[1] / 5);
  const shape: ProjectBody['shape'] =
    kind === 'box' ? { kind, size: [size, size, size] } : kind === 'sphere' ? { kind, radius: size / 2 } : { kind };
  const taken = new Set(project.bodies.flatMap(({ id, name }) => [id, name]));
  let [id, name] = [kind as string, names[kind] as string];
  for (let i = 2; taken.has(id) || taken.has(name); i++) [id, name] = [`${kind}-${i}`, `${names[kind]} ${i}`];
  const position: [number, number, number] = [at[0], at[1], flat ? 0 : at[2]];
  edit(`add ${name}`, (draft) => {
    draft.bodies.push({
      ...{ id, name, shape, position, rotation: [0, 0, 0, 1], scale: [1, 1, 1], parent: null },
      ...{ castsShadow: true, tone: 'stone', fixed: false, handle: [0, 0, 0], motion: null },
    });
    draft.probe = { body: id, drive: { rung: 'local', value: [0, 0, 0] } };
  });
  say(`Added ${name}. Convert has its position and dimensions under Nodes.`);
}

/** Takes a body out with everything that hangs on it; a probe on one of them stays where it was. */
export const removeBody = (id: string): void => withKeptSlices(() => removeFromProject(id));

function removeFromProject(id: string): void {
  const { project, chain } = currentMoment();
  const gone = new Set([id]);
  // Parts may be listed before what they are parts of.
  for (let size = 0; size !== gone.size;) {
    size = gone.size;
    for (const body of project.bodies) if (body.parent !== null && gone.has(body.parent)) gone.add(body.id);
  }
  const { name } = project.bodies.find((body) => body.id === id)!;
  edit(`delete ${name}`, (draft) => {
    draft.bodies = draft.bodies.filter((body) => !gone.has(body.id)) as Project['bodies'];
    draft.tasks = forgetBodies(project, gone).tasks;
    if (project.probe.body !== null && gone.has(project.probe.body))
      draft.probe = { body: null, drive: { rung: 'world', value: chain.ok ? [...chain.value.world] : [0, 0, 0] } };
  });
  say(`Deleted ${name}${gone.size > 1 ? ` and its ${gone.size - 1} parts` : ''}. Undo brings it back.`);
}

/** The images that bodies need which a project does not have, under free ids, and the id that each image gets. */
function imagesFor(bodies: Project['bodies'], images: Project['images'], own: Project['images']) {
  const idOf = new Map<string, string>();
  const added: Project['images'] = [];
  for (const image of images) {
    if (!bodies.some((body) => body.image === image.id)) continue;
    const same = own.find(({ png }) => png === image.png);
    const id = same?.id ?? (own.some((one) => one.id === image.id) ? newId() : image.id);
    idOf.set(image.id, id);
    if (!same) added.push({ ...image, id });
  }
  return { added, idOf };
}

/**
 * Puts bodies of another project beside those of the open one, where they stand in the world, as one
 * step of undo: an id or a name that is taken is numbered, and parts stay with what they are parts
 * of. Gives their ids here; none where they are too many beside the others, which is said.
 */
export function bringIn(bodies: Project['bodies'], from: string, images: Project['images'] = []): readonly string[] {
  const { project } = currentMoment();
  const brought = imagesFor(bodies, images, project.images);
  const problems = [
    ...tooMuch([...project.bodies, ...bodies]),
    ...imageProblems([...project.images, ...brought.added]),
  ];
  if (problems.length) {
    complain(`${from} does not fit into ${project.name}, and nothing has changed.`, problems);
    return [];
  }
  const ids = new Set(project.bodies.map(({ id }) => id));
  const names = new Set(project.bodies.map(({ name }) => name));
  // Thousands may have one name: each goes on counting where the one before has stopped.
  const next = new Map<string, number>();
  const free = (taken: Set<string>, wanted: string, joint: string) => {
    let own = wanted;
    let number = next.get(joint + wanted) ?? 2;
    while (taken.has(own)) own = `${wanted}${joint}${number++}`;
    next.set(joint + wanted, number);
    taken.add(own);
    return own;
  };
  const renamed = new Map(bodies.map(({ id }) => [id, free(ids, id, '-')]));
  edit(`bring in ${from}`, (draft) => {
    draft.images.push(...brought.added);
    for (const body of structuredClone(bodies) as Project['bodies'])
      draft.bodies.push({
        ...body,
        id: renamed.get(body.id)!,
        name: free(names, body.name, ', '),
        parent: body.parent === null ? null : renamed.get(body.parent)!,
        ...(body.image !== undefined && { image: brought.idOf.get(body.image) }),
      } as never);
  });
  say(`Put ${counted(bodies.length, 'body', 'bodies')} of ${from} into ${project.name}, where they stood.`);
  return bodies.map(({ id }) => renamed.get(id)!);
}

/** Makes every point of a set a body of the open project. */
export function bringInPoints(data: PointData, name: string): void {
  const bodies = bodiesOfPoints(data);
  if (bodies.length) bringIn(bodies, name);
  else
    complain(`The points of ${name} are no bodies yet, and nothing has changed.`, [
      {
        path: '',
        message: `There are ${data.points.length / 3}, and up to ${mostPointBodies} can each be a body. They stay in the table; load fewer to have bodies.`,
      },
    ]);
}
