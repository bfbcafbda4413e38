/*
 * The last change of a tab, noted where it stands as soon as the call returns. The shelf takes its
 * time, and a tab that is killed has none. What a tab that is no more has left here is put on the
 * shelf by the next that opens.
 */

/**
 * A name that nothing else has. Not `randomUUID`, which a page that comes over plain HTTP from
 * another machine is not given.
 */
export function newId(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, '0')).join('');
}

export interface Unkept {
  /** The tab that noted it. */
  readonly by: string;
  /** The revision that it goes on from; null for a project that was never kept. */
  readonly revision: number | null;
  readonly at: number;
  readonly project: unknown;
}

const prefix = 'astrolabe-unkept ';
/** This tab, for as long as it lives. */
export const tab: string = newId();
/**
 * The longest text that is noted: the store is small, and what is larger would hold up the hand.
 */
const longest = 400_000;
/** What has been found too long: its bodies, which an edit of anything else leaves as they are. */
const tooLong = new WeakSet<object>();
const lockOf = (id: string) => `astrolabe-tab ${id}`;

/** Lets other tabs see that this one lives; the browser takes it back when it is killed, too. */
export function live(): void {
  void navigator.locks?.request(lockOf(tab), () => new Promise<never>(() => undefined)).catch(() => undefined);
}

/** The text of a project, by its parts: most are as they were when the last one was written. */
const texts = new WeakMap<object, string>();
function textOf(part: unknown): string | undefined {
  if (typeof part !== 'object' || part === null) return JSON.stringify(part);
  const known = texts.get(part) ?? JSON.stringify(part);
  texts.set(part, known);
  return known;
}
const textOfProject = (project: object): string =>
  `{${Object.entries(project)
    .flatMap(([key, part]) => {
      const text = textOf(part);
      return text === undefined ? [] : [`${JSON.stringify(key)}:${text}`];
    })
    .join()}}`;

/**
 * Notes a project's last state, which goes on from a revision on the shelf. One that is too long,
 * or finds no room, is left to the shelf alone: then false.
 */
export function note(project: { readonly bodies: object }, revision: number | null): boolean {
  if (tooLong.has(project.bodies)) return false;
  // A mesh's numbers alone may be too long: then they are not written out to see it.
  const numbers = Array.isArray(project.bodies)
    ? project.bodies.reduce((sum: number, { shape }: { shape?: { positions?: { length: number } } }) => sum + (shape?.positions?.length ?? 0), 0) // prettier-ignore
    : 0;
  if (2 * numbers > longest) {
    tooLong.add(project.bodies);
    strike();
    return false;
  }
  try {
    const head = JSON.stringify({ by: tab, revision, at: Date.now() } satisfies Omit<Unkept, 'project'>);
    const text = `${head.slice(0, -1)},"project":${textOfProject(project)}}`;
    if (text.length <= longest) {
      window.localStorage.setItem(prefix + tab, text);
      return true;
    }
    tooLong.add(project.bodies);
  } catch {
    // No room.
  }
  strike();
  return false;
}

/**
 * Takes a note away, when what it says lies on the shelf: this tab's own, or that of one that is no
 * more.
 */
export function strike(of = tab): void {
  try {
    window.localStorage.removeItem(prefix + of);
  } catch {
    // Where nothing can be noted nothing stands.
  }
}

/**
 * What tabs that are no more have left, in the order in which it was noted; nothing where the
 * browser does not say which tabs live.
 */
export async function leftBehind(): Promise<Unkept[]> {
  const found: Unkept[] = [];
  try {
    const alive = new Set((await navigator.locks.query()).held!.map(({ name }) => name));
    const store = window.localStorage;
    for (const key of Array.from({ length: store.length }, (_, i) => store.key(i)!)) {
      const of = key.slice(prefix.length);
      if (!key.startsWith(prefix) || of === tab || alive.has(lockOf(of))) continue;
      try {
        found.push(JSON.parse(store.getItem(key)!) as Unkept);
      } catch {
        strike(of);
      }
    }
  } catch {
    // A browser that has no such store, or does not say who lives.
  }
  return found.sort((a, b) => a.at - b.at);
}
