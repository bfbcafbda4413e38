import Dexie, { type EntityTable } from 'dexie';
import { keyOfPoints, type PointData } from '../../formats/pointSets';
import type { Project } from '../../formats/project';
import { tab } from './crashLog';
import type { Step, StepAhead } from './document';
import { packProject, unpackProject } from './packing';

/*
 * Where projects are kept: the browser's database, or where it has none to give, its smaller store
 * of texts. Every writing says which revision it goes on from: what another tab has written in
 * between is never written over.
 */

export interface Kept {
  readonly id: string;
  readonly name: string;
  readonly savedAt: number;
  /** Counts the writings. */
  readonly revision: number;
  /** The tab that wrote it. */
  readonly by?: string;
  readonly project: unknown;
}

/** A state of a project to go back to. */
export interface Version {
  readonly key: number;
  readonly of: string;
  readonly at: number;
  readonly name: string;
  readonly project: unknown;
}

export type Written =
  | { readonly ok: true; readonly revision: number }
  /** Another tab has written since: its state, and nothing was changed. */
  | { readonly ok: false; readonly theirs: Kept };

export interface Shelf {
  list(): Promise<Kept[]>;
  read(id: string): Promise<Kept | undefined>;
  /**
   * `from` is the revision that the writing goes on from; null for a project that was never kept or
   * whose last state is not to be looked at.
   */
  write(project: Project, from: number | null): Promise<Written>;
  /** Puts something back as it was, or sets it aside. */
  put(kept: Kept): Promise<void>;
  /** A time after that of everything kept: the clock may have been set back meanwhile. */
  laterTime(): Promise<number>;
  remove(id: string): Promise<void>;
  versions(of: string): Promise<Version[]>;
  keepVersion(version: Omit<Version, 'key'>): Promise<void>;
  /** The steps that could be taken back, and done again, when a project was last worked on. */
  history(of: string): Promise<History | undefined>;
  keepHistory(history: History): Promise<void>;
  /** The points that a set of a project names by a key; they never change. */
  points(key: string): Promise<PointData | undefined>;
  keepPoints(key: string, points: PointData): Promise<void>;
  /** Lets points go that nothing kept here names any more, if they are older than a day. */
  sweepPoints(): Promise<void>;
}

export interface History {
  readonly of: string;
  /** The revision of the project that the steps lead to, and the project as it was there. */
  readonly revision: number;
  readonly project: Project;
  readonly past: readonly Step[];
  readonly future: readonly StepAhead[];
  /** The revisions of the other projects that a step comes from: one that was opened in their place. */
  readonly others: readonly (readonly [id: string, revision: number])[];
}

/** The most versions of one project; the oldest make room. */
const mostVersions = 60;

type OldPoints = PointData & { of: string; source: string };

class Database extends Dexie {
  declare projects: EntityTable<Kept, 'id'>;
  /**
   * Which revision of a project lies there: asked at every writing, when the whole of it is not
   * wanted.
   */
  declare heads: EntityTable<{ id: string; revision: number }, 'id'>;
  declare versions: EntityTable<Version, 'key'>;
  /** Of earlier pages: one table of points for each project. */
  declare points: EntityTable<OldPoints, 'of'>;
  declare pointData: EntityTable<PointData & { key: string; at: number }, 'key'>;
  declare histories: EntityTable<History, 'of'>;
  constructor() {
    // Its own cache goes through every number of what is written, and nobody asks it.
    super('astrolabe', { cache: 'disabled' });
    this.version(1).stores({ projects: 'id, savedAt' });
    this.version(2).stores({ projects: 'id, savedAt', versions: '++key, of', points: 'of' });
    this.version(3).stores({ heads: 'id' });
    this.version(4)
      .stores({ histories: 'of', pointData: 'key' })
      .upgrade(async (changes) => {
        const at = Date.now();
        for (const { of, source, points, names } of (await changes.table('points').toArray()) as OldPoints[]) {
          const key = keyOfPoints({ points, names });
          await changes.table('pointData').put({ key, at, points, names });
          const set = { id: key, name: source, key, count: points.length / 3 };
          await changes
            .table<Kept>('projects')
            .where({ id: of })
            .modify((row) => void Object.assign(row.project as object, { pointSets: [set] }));
        }
        await changes.table('points').clear();
      });
  }
}

/** What a project of an earlier page, kept without a name and a revision, is now. */
const whole = (row: Kept): Kept => ({
  ...row,
  project: unpackProject(row.project),
  revision: row.revision ?? 0,
  name: row.name ?? (row.project as { name?: string }).name ?? row.id,
});

/** A history with its projects otherwise. */
const historyBy = (history: History, by: (project: Project) => Project): History => ({
  ...history,
  project: by(history.project),
  past: history.past.map((step) => ({ ...step, before: by(step.before) })),
  future: history.future.map((step) => ({ ...step, after: by(step.after) })),
});

function databaseShelf(database: Database): Shelf {
  // By the keys of the index alone: projects may be large.
  const laterTime = async () => {
    const [last = 0] = await database.projects.orderBy('savedAt').reverse().limit(1).keys();
    return Math.max(Date.now(), (last as number) + 1);
  };
  return {
    laterTime,
    list: async () => (await database.projects.orderBy('savedAt').reverse().toArray()).map(whole),
    read: async (id) => {
      const row = await database.projects.get(id);
      return row && whole(row);
    },
    write: (project, from) =>
      database.transaction('rw', database.projects, database.heads, async (): Promise<Written> => {
        const { id, name } = project;
        const head = await database.heads.get(id);
        // A project of an earlier page has no head yet.
        const row = head && head.revision === from ? undefined : await database.projects.get(id);
        const present = head?.revision ?? (row ? whole(row).revision : null);
        if (from !== null && row && present !== from) return { ok: false, theirs: whole(row) };
        const revision = (present ?? 0) + 1;
        const savedAt = await laterTime();
        await Promise.all([
          database.projects.put({ id, name, savedAt, revision, by: tab, project: packProject(project) }),
          database.heads.put({ id, revision }),
        ]);
        return { ok: true, revision };
      }),
    put: (kept) =>
      database.transaction('rw', database.projects, database.heads, async () => {
        await database.projects.put({ ...kept, project: packProject(kept.project) });
        await database.heads.put({ id: kept.id, revision: kept.revision });
      }),
    remove: (id) =>
      database.transaction('rw', database.projects, database.heads, database.histories, async () => {
        await database.projects.delete(id);
        await database.heads.delete(id);
        await database.histories.delete(id);
      }),
    versions: async (of) =>
      (await database.versions.where({ of }).toArray())
        .reverse()
        .map((one) => ({ ...one, project: unpackProject(one.project) })),
    keepVersion: (version) =>
      database.transaction('rw', database.versions, async () => {
        await database.versions.add({ ...version, project: packProject(version.project) } as Version);
        const keys = await database.versions.where({ of: version.of }).primaryKeys();
        await database.versions.bulkDelete(keys.slice(0, Math.max(0, keys.length - mostVersions)));
      }),
    history: async (of) => {
      const kept = await database.histories.get(of);
      return kept && historyBy(kept, unpackProject);
    },
    // One record: what its states have in common is written and read once.
    keepHistory: async (history) => void (await database.histories.put(historyBy(history, packProject))),
    points: (key) => database.pointData.get(key),
    keepPoints: async (key, { points, names }) =>
      void (await database.pointData.put({ key, at: Date.now(), points, names })),
    sweepPoints: async () => {
      const old = (await database.pointData.toArray()).filter(({ at }) => at < Date.now() - day);
      if (!old.length) return;
      const named = new Set<string>();
      const note = (project: unknown) => {
        for (const { key } of (project as Partial<Project> | undefined)?.pointSets ?? []) named.add(key);
      };
      await database.projects.each(({ project }) => note(project));
      await database.versions.each(({ project }) => note(project));
      await database.histories.each(({ past, future }) => {
        for (const { before } of past) note(before);
        for (const { after } of future) note(after);
      });
      await database.pointData.bulkDelete(old.flatMap(({ key }) => (named.has(key) ? [] : [key])));
    },
  };
}

/** In milliseconds. */
const day = 86_400_000;

const prefix = 'astrolabe-project ';

/**
 * The same on the store of texts: room for a few projects, and no versions and steps but those of
 * this visit.
 */
function textShelf(store: Storage): Shelf {
  const versions: Version[] = [];
  const points = new Map<string, PointData>();
  const histories = new Map<string, History>();
  const get = (id: string): Kept | undefined => {
    const text = store.getItem(prefix + id);
    return text === null ? undefined : (JSON.parse(text) as Kept);
  };
  const set = (kept: Kept) => store.setItem(prefix + kept.id, JSON.stringify(kept));
  const list = () =>
    Array.from({ length: store.length }, (_, i) => store.key(i)!)
      .filter((key) => key.startsWith(prefix))
      .map((key) => get(key.slice(prefix.length))!)
      .sort((a, b) => b.savedAt - a.savedAt);
  const laterTime = () => Math.max(Date.now(), (list()[0]?.savedAt ?? 0) + 1);
  return {
    laterTime: () => Promise.resolve(laterTime()),
    list: () => Promise.resolve(list()),
    read: (id) => Promise.resolve(get(id)),
    write: (project, from) =>
      Promise.resolve().then((): Written => {
        const row = get(project.id);
        if (from !== null && row && row.revision !== from) return { ok: false, theirs: row };
        const revision = (row?.revision ?? 0) + 1;
        set({ id: project.id, name: project.name, savedAt: laterTime(), revision, by: tab, project });
        return { ok: true, revision };
      }),
    put: (kept) => Promise.resolve(set(kept)),
    remove: (id) => Promise.resolve(store.removeItem(prefix + id)),
    versions: (of) => Promise.resolve(versions.filter((one) => one.of === of).reverse()),
    keepVersion: (version) => {
      versions.push({ ...version, key: versions.length + 1 });
      return Promise.resolve();
    },
    history: (of) => Promise.resolve(histories.get(of)),
    keepHistory: (history) => Promise.resolve(void histories.set(history.of, history)),
    points: (key) => Promise.resolve(points.get(key)),
    keepPoints: (key, given) => Promise.resolve(void points.set(key, given)),
    sweepPoints: () => Promise.resolve(),
  };
}

/** A shelf that forgets with the page: where the browser keeps nothing at all. */
export function forgetfulShelf(): Shelf {
  const entries = new Map<string, string>();
  return textShelf({
    get length() {
      return entries.size;
    },
    key: (i) => [...entries.keys()][i] ?? null,
    getItem: (key) => entries.get(key) ?? null,
    setItem: (key, value) => void entries.set(key, value),
    removeItem: (key) => void entries.delete(key),
    clear: () => entries.clear(),
  });
}

/** Milliseconds for which the database is waited for. */
const patience = 3000;
/** What is promised, or that it has not come in a while. */
function soon<T>(promised: PromiseLike<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout>;
  const late = new Promise<never>((_, fail) => {
    timer = setTimeout(() => fail(new Error('it does not answer; another page may hold it up')), patience);
  });
  return Promise.race([promised, late]).finally(() => clearTimeout(timer));
}

/**
 * The best shelf that this browser has, and in a sentence what is missing, if something is;
 * `forgets` where what is kept goes with the page.
 */
export async function findShelf(): Promise<{ shelf: Shelf; missing: string | null; forgets?: boolean }> {
  try {
    const database = new Database();
    await soon(database.open());
    return { shelf: databaseShelf(database), missing: null };
  } catch (error) {
    const why = error instanceof Error ? error.message.split('\n')[0] : String(error);
    try {
      window.localStorage.setItem(`${prefix}trial`, '');
      window.localStorage.removeItem(`${prefix}trial`);
      return {
        shelf: textShelf(window.localStorage),
        missing: `This browser gives no database here (${why}). Your project is kept in its small store instead; save what matters as a file.`,
      };
    } catch {
      return {
        shelf: forgetfulShelf(),
        forgets: true,
        missing: `This browser keeps nothing here (${why}). Save your project as a file before you close this page.`,
      };
    }
  }
}
