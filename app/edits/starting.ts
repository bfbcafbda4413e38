import { saltmarrowChart } from '../../demo/chart';
import { emptyFlat, emptySpace } from '../../demo/empty';
import { saltmarrowQuay } from '../../demo/quay';
import { saltmarrow } from '../../demo/saltmarrow';
import type { Project } from '../../formats/project';
import { keptProjects, openKept, openNew } from '../state/autosave';
import { newId } from '../state/crashLog';
import { currentProject, replaceProject } from '../state/document';
import { useSettings } from '../state/settings';
import { say } from '../ui/notices';

/* How work begins: with a demo or a new project. */

export type DemoName = NonNullable<Project['guide']>;
const demos: Readonly<Record<DemoName, (id: string) => Project>> = {
  harbour: saltmarrow,
  quay: saltmarrowQuay,
  chart: saltmarrowChart,
};

const empty = {
  space: (id: string) => emptySpace(id),
  flatUp: (id: string) => emptyFlat(id, 'up'),
  flatDown: (id: string) => emptyFlat(id, 'down'),
} as const;
export type EmptyKind = keyof typeof empty;

/** Hides the choice of a beginning. */
export function hideWelcome(): void {
  useSettings.setState({ isWelcome: false });
}

function openAfresh(which: DemoName): void {
  const demo = demos[which](newId());
  replaceProject('open the demo', demo);
  say(`${demo.name} is open. Undo brings back the last project.`);
}

/** Opens a demo. One that is stored is opened as it was left, with the offer to open it afresh. */
export async function openDemo(which: DemoName): Promise<void> {
  hideWelcome();
  const isThis = (project: unknown): boolean => (project as Partial<Project> | null)?.guide === which;
  const current = currentProject();
  const stored = isThis(current)
    ? current
    : (await keptProjects().catch(() => [])).find(({ project, savedAt }) => savedAt > 0 && isThis(project));
  if (!stored || (stored.id !== current.id && (await openKept(stored.id)) !== null)) return openAfresh(which);
  say(`${stored.name} is open as you left it.`, { label: 'Open it afresh', run: () => openAfresh(which) });
}

/** Opens a new project. */
export async function openEmpty(kind: EmptyKind): Promise<void> {
  hideWelcome();
  await openNew(empty[kind](newId()));
}
