import { create } from 'zustand';
import type { AxisFrame } from '../../core/conventions/axes';
import type { Conventions } from '../../core/conventions/conventions';
import { settledBodies, type Origin } from '../../formats/settle';
import type { ProjectBody } from '../../formats/project';
import { currentProject, edit } from '../state/document';
import { readImported } from '../state/imports';
import { complain } from '../ui/notices';

/*
 * The model that was brought in last: as long as the page is open, its axes, origin and size can be
 * taken otherwise, and its bodies follow.
 */

/** How the numbers of a model are taken. */
export interface Taken {
  /** The frame its numbers stand in; null is that of the conventions in force when it came. */
  readonly world: AxisFrame | null;
  readonly origin: Origin;
  /** World units to one of the model's. */
  readonly factor: number;
}
interface Brought {
  readonly text: string;
  readonly name: string;
  /** Those in force when it came. */
  readonly conventions: Conventions;
  /** The project that its bodies are in, and their ids there, in their order. */
  readonly of: string;
  readonly ids: readonly string[];
  readonly taken: Taken;
}

export const useBrought = create<{ brought: Brought | null }>(() => ({ brought: null }));

/** Tells of a model that has been brought in. */
export const tellBrought = (brought: Omit<Brought, 'taken'> | null): void =>
  useBrought.setState({ brought: brought && { ...brought, taken: { world: null, origin: 'kept', factor: 1 } } });

let wish = 0;
/** Takes the model's numbers otherwise: its bodies that are still there are placed anew, as one step. */
export async function takeAs(part: Partial<Taken>, gesture: string | null = null): Promise<void> {
  const { brought } = useBrought.getState();
  if (!brought || currentProject().id !== brought.of) return;
  const taken = { ...brought.taken, ...part };
  const own = ++wish;
  useBrought.setState({ brought: { ...brought, taken } });
  const { conventions } = brought;
  const read = await readImported(brought.text, brought.name, {
    id: brought.of,
    conventions: taken.world ? { ...conventions, world: taken.world } : conventions,
  });
  // Another wish may have come in the meantime, or another project.
  if (own !== wish || !read || currentProject().id !== brought.of) return;
  if (!read.ok || read.kind !== 'project')
    return complain(`${brought.name} could not be read that way, and nothing has changed.`, read.ok ? [] : read.problems); // prettier-ignore
  const made = new Map<string, ProjectBody>();
  settledBodies(read.project.bodies, taken.origin, taken.factor).forEach((body, i) => {
    if (brought.ids[i] !== undefined) made.set(brought.ids[i], body);
  });
  edit(
    `take ${brought.name} otherwise`,
    (draft) => {
      for (const body of draft.bodies) {
        const again = made.get(body.id);
        if (again) Object.assign(body, { shape: again.shape, position: again.position, rotation: again.rotation });
      }
    },
    gesture,
  );
}
