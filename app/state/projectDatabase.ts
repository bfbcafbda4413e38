import Dexie, { type EntityTable } from 'dexie';
import { keyOfPoints, type PointData } from '../../formats/pointSets';
import type { Project } from '../../formats/project';
import { tab } from './crashLog';
import { packProject, unpackProject } from './packing';
import type { History, Kept, Shelf, Version, Written } from './projectRecords';

/* Projects in the browser's database. Loaded on demand: a first visit shows the demo without it. */

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
  constructor(name: string) {
    // The library's cache would visit every number of a written project, and nothing reads it.
    super(name, { cache: 'disabled' });
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

/**
 * A stored row, completed where an earlier page stored it without a name and a revision. Its project is unpacked when
 * it is asked for: a list of projects is read for their names.
 */
const whole = (row: Kept): Kept => ({
  ...row,
  get project() {
    return unpackProject(row.project);
  },
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

/** Opens the database of a name. Rejects with the browser's reason when it gives none. */
export async function openDatabase(name: string): Promise<Shelf> {
  const database = new Database(name);
  await database.open();
  return databaseShelf(database);
}
