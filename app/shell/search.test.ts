import { describe, expect, it } from 'vitest';
import { loadAllTasks } from '../tasks/page';
import { findEntries, scoreOf, type SearchEntry } from './search';

const tasks = await loadAllTasks();

const list: readonly SearchEntry[] = [
  { name: 'Add a camera: From above' },
  { name: 'Open a project file' },
  { name: 'Probe East stake', ofBody: true },
  { name: 'Delete Field marker', ofBody: true },
  ...tasks.flatMap(({ finds = [] }) => finds).map((one) => ({ ...one, where: 'in a task' })),
  {
    name: 'Nodes',
    where: 'help',
    words: 'Another parent keeps the place; where that would need a shear it is refused. '.repeat(4),
  },
];
const names = (typed: string, withBodies = true) => findEntries(list, typed, withBodies).map(({ title }) => title);

describe('the search', () => {
  it.each([
    ['fov', /field of view/],
    ['unproject', /Back to world|Pixel that goes back/],
    ['devicePixelRatio', /Device pixels per CSS pixel/],
    ['aspect', /aspect|Screens/],
    ['translate', /Eye|Focus|Position of a node|Moving/],
    ['letterbox', /Screens|Bars/],
    ['znear', /Near limit/],
    ['shear refused', /Nodes, help/],
    ['probe east stake', /Probe East stake/],
  ])('finds by %s what it is', (typed, first) => expect(names(typed)[0]).toMatch(first));

  it('has bodies after all else, and only what fits', () => {
    const fields = names('field');
    expect(fields.indexOf('Delete Field marker')).toBe(fields.length - 1);
    expect(fields.length).toBeGreaterThan(3);
    expect(names('qqq')).toEqual([]);
    expect(scoreOf({ name: 'Near limit' }, 'near limit')).toBe(1);
    // Nothing typed is everything in its order; bodies when they are wanted.
    expect(names('')).toHaveLength(list.length);
    expect(names('', false)).toHaveLength(list.length - 2);
  });
});
