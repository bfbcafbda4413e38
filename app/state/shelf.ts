import Dexie, { type EntityTable } from 'dexie';
import type { Project } from '../../formats/project';
import { tab } from './journal';

/*
 * Where projects are kept: the browser's database, or where it has none to give, its smaller store of texts. Every writing says which revision it goes on
 * from: what another tab has written in between is never written over.
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
  /** `from` is the revision that the writing goes on from; null for a project that was never kept or whose last state is not to be looked at. */
  write(project: Project, from: number | null): Promise<Written>;
  /** Puts something back as it was, or sets it aside. */
  put(kept: Kept): Promise<void>;
  remove(id: string): Promise<void>;
  versions(of: string): Promise<Version[]>;
  keepVersion(version: Omit<Version, 'key'>): Promise<void>;
  /** The table of points that goes with a project. */
  points(of: string): Promise<KeptPoints | undefined>;
  keepPoints(of: string, points: KeptPoints | null): Promise<void>;
}

export interface KeptPoints {
  readonly source: string;
  /** In the inside's world, x, y, z after one another. */
  readonly points: Float64Array;
  readonly names: readonly string[] | null;
}

/** The most versions of one project; the oldest make room. */
const mostVersions = 60;

class Database extends Dexie {
  declare projects: EntityTable<Kept, 'id'>;
  /** Which revision of a project lies there: asked at every writing, when the whole of it is not wanted. */
  declare heads: EntityTable<{ id: string; revision: number }, 'id'>;
  declare versions: EntityTable<Version, 'key'>;
  declare points: EntityTable<KeptPoints & { of: string }, 'of'>;
  constructor() {
    super('astrolabe');
    this.version(1).stores({ projects: 'id, savedAt' });
    this.version(2).stores({ projects: 'id, savedAt', versions: '++key, of', points: 'of' });
    this.version(3).stores({ heads: 'id' });
  }
}

/** What a project of an earlier page, kept without a name and a revision, is now. */
const whole = (row: Kept): Kept => ({
  ...row,
  revision: row.revision ?? 0,
  name: row.name ?? (row.project as { name?: string }).name ?? row.id,
});

function databaseShelf(database: Database): Shelf {
  return {
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
        await Promise.all([
          database.projects.put({ id, name, savedAt: Date.now(), revision, by: tab, project }),
          database.heads.put({ id, revision }),
        ]);
        return { ok: true, revision };
      }),
    put: (kept) =>
      database.transaction('rw', database.projects, database.heads, async () => {
        await database.projects.put(kept);
        await database.heads.put({ id: kept.id, revision: kept.revision });
      }),
    remove: (id) =>
      database.transaction('rw', database.projects, database.heads, async () => {
        await database.projects.delete(id);
        await database.heads.delete(id);
      }),
    versions: async (of) => (await database.versions.where({ of }).toArray()).reverse(),
    keepVersion: (version) =>
      database.transaction('rw', database.versions, async () => {
        await database.versions.add(version as Version);
        const keys = await database.versions.where({ of: version.of }).primaryKeys();
        await database.versions.bulkDelete(keys.slice(0, Math.max(0, keys.length - mostVersions)));
      }),
    points: (of) => database.points.get(of),
    keepPoints: async (of, points) => {
      if (points) await database.points.put({ ...points, of });
      else await database.points.delete(of);
    },
  };
}

const prefix = 'astrolabe-project ';

/** The same on the store of texts: room for a few projects, and no versions but those of this visit. */
function textShelf(store: Storage): Shelf {
  const versions: Version[] = [];
  const points = new Map<string, KeptPoints>();
  const get = (id: string): Kept | undefined => {
    const text = store.getItem(prefix + id);
    return text === null ? undefined : (JSON.parse(text) as Kept);
  };
  const set = (kept: Kept) => store.setItem(prefix + kept.id, JSON.stringify(kept));
  return {
    list: () =>
      Promise.resolve(
        Array.from({ length: store.length }, (_, i) => store.key(i)!)
          .filter((key) => key.startsWith(prefix))
          .map((key) => get(key.slice(prefix.length))!)
          .sort((a, b) => b.savedAt - a.savedAt),
      ),
    read: (id) => Promise.resolve(get(id)),
    write: (project, from) =>
      Promise.resolve().then((): Written => {
        const row = get(project.id);
        if (from !== null && row && row.revision !== from) return { ok: false, theirs: row };
        const revision = (row?.revision ?? 0) + 1;
        set({ id: project.id, name: project.name, savedAt: Date.now(), revision, by: tab, project });
        return { ok: true, revision };
      }),
    put: (kept) => Promise.resolve(set(kept)),
    remove: (id) => Promise.resolve(store.removeItem(prefix + id)),
    versions: (of) => Promise.resolve(versions.filter((one) => one.of === of).reverse()),
    keepVersion: (version) => {
      versions.push({ ...version, key: versions.length + 1 });
      return Promise.resolve();
    },
    points: (of) => Promise.resolve(points.get(of)),
    keepPoints: (of, given) => {
      if (given) points.set(of, given);
      else points.delete(of);
      return Promise.resolve();
    },
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

/** The best shelf that this browser has, and in a sentence what is missing, if something is; `forgets` where what is kept goes with the page. */
export async function findShelf(): Promise<{ shelf: Shelf; missing: string | null; forgets?: boolean }> {
  try {
    const database = new Database();
    await database.open();
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
