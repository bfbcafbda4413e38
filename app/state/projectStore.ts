import type { Kept, Version, Written, Shelf, History } from './projectRecords';
import type { PointData } from '../../formats/pointSets';
import { tab } from './crashLog';

const databaseName = 'astrolabe';
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

/**
 * Whether this browser has never stored a project, so that the demo can be shown before the database is
 * loaded. False where the browser does not say.
 */
export async function isFirstVisit(): Promise<boolean> {
  try {
    const store = window.localStorage;
    const keys = Array.from({ length: store.length }, (_, i) => store.key(i)!);
    if (keys.some((key) => key.startsWith(prefix))) return false;
    return !(await soon(indexedDB.databases())).some(({ name }) => name === databaseName);
  } catch {
    return false;
  }
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
    const { openDatabase } = await import('./projectDatabase');
    return { shelf: await soon(openDatabase(databaseName)), missing: null };
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
