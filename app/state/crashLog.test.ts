import { beforeEach, describe, expect, it, vi } from 'vitest';
import { saltmarrowChart } from '../../demo/chart';
import { saltmarrow } from '../../demo/saltmarrow';
import { note, strike, tab, type Unkept } from './crashLog';

const kept = new Map<string, string>();
let room = Infinity;
const store = {
  setItem(key: string, text: string) {
    if (text.length > room) throw new DOMException('full', 'QuotaExceededError');
    kept.set(key, text);
  },
  removeItem: (key: string) => void kept.delete(key),
};
const key = `astrolabe-unkept ${tab}`;
const noted = () => JSON.parse(kept.get(key)!) as Unkept;
/** What a project is once it has been written and read. */
const written = (project: object): unknown => JSON.parse(JSON.stringify(project));

describe('a note of the last change', () => {
  beforeEach(() => {
    vi.stubGlobal('window', { localStorage: store });
    kept.clear();
    room = Infinity;
  });

  it.each([saltmarrow(), saltmarrowChart()])('is the whole project, whatever of it was noted before: %#', (project) => {
    expect(note(project, 3)).toBe(true);
    expect(noted()).toMatchObject({ by: tab, revision: 3 });
    expect(noted().project).toEqual(written(project));
    const renamed = { ...project, name: 'A “name” with\n two lines', guide: null };
    expect(note(renamed, null)).toBe(true);
    expect(noted().revision).toBe(null);
    expect(noted().project).toEqual(written(renamed));
    const moved = { ...renamed, bodies: renamed.bodies.map((body) => ({ ...body, name: `${body.name}, moved` })) };
    note(moved, 4);
    expect(noted().project).toEqual(written(moved));
    // What is not said in a file is not said here either.
    note({ ...moved, extra: undefined } as typeof moved, 4);
    expect(noted().project).toEqual(written(moved));
  });

  it('is not left standing, older than what is kept, where the newer one finds no room or is too long', () => {
    const project = saltmarrow();
    note(project, 1);
    room = 100;
    expect(note({ ...project } as typeof project, 1)).toBe(false);
    expect(kept.has(key)).toBe(false);
    room = Infinity;
    expect(note(project, 1)).toBe(true);
    const long = { ...project, bodies: Array.from({ length: 30 }, () => project.bodies).flat() };
    expect(note(long, 1)).toBe(false);
    expect(kept.has(key)).toBe(false);
  });

  it('is gone when it is struck', () => {
    note(saltmarrow(), 1);
    strike();
    expect(kept.has(key)).toBe(false);
  });
});
