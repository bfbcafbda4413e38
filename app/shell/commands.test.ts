import { beforeAll, describe, expect, it, vi } from 'vitest';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { currentProject, endGesture, openProject, undo, useDocument } from '../state/document';
import { currentMoment } from '../state/tempo';

/* Every command that the search lists, run: it leaves a project that can be shown, and is one step of undo. */

const listeners = { addEventListener: () => undefined, removeEventListener: () => undefined };
const element = () => ({ ...listeners, style: {}, dataset: {}, click: () => undefined, remove: () => undefined, append: () => undefined, focus: () => undefined, requestPointerLock: () => Promise.resolve() }); // prettier-ignore
const page = { ...listeners, body: element(), documentElement: element(), createElement: element, querySelector: () => null, querySelectorAll: () => [], exitPointerLock: () => undefined, getElementById: () => null }; // prettier-ignore
vi.stubGlobal('document', page);
vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
vi.stubGlobal('navigator', { maxTouchPoints: 0, hardwareConcurrency: 2 });
vi.stubGlobal('window', { ...globalThis, ...listeners, navigator, document: page, location: { pathname: '/frame' }, matchMedia: () => ({ matches: false, ...listeners }), dispatchEvent: () => true }); // prettier-ignore
vi.stubGlobal('requestAnimationFrame', () => 0);
vi.stubGlobal('cancelAnimationFrame', () => undefined);
vi.stubGlobal('CSS', { escape: (text: string) => text });

const { commandsFor } = await import('./commands');
const { loadAllTasks } = await import('../tasks/page');
const { pause } = await import('../state/clock');

let tasks: Awaited<ReturnType<typeof loadAllTasks>>;
beforeAll(async () => void (tasks = await loadAllTasks()));

const listOf = () =>
  commandsFor(
    currentProject(),
    tasks,
    () => undefined,
    () => undefined,
  );

describe.each([
  ['harbour', saltmarrow],
  ['chart', saltmarrowChart],
] as const)('the commands on the %s', (_, demo) => {
  it('run, and leave a project that can be shown', () => {
    openProject(demo());
    const names = listOf().map(({ name }) => name);
    expect(new Set(names.slice(0, 60)).size).toBeGreaterThan(35);
    for (const [i, name] of names.entries()) {
      openProject(demo());
      // Saving, copying and opening files are the browser's, and have walks.
      if (/^(Save|Copy|Open)/.test(name)) continue;
      const before = currentProject();
      listOf()[i]!.run();
      endGesture();
      pause();
      expect(currentMoment().frame, name).toBeDefined();
      const { past } = useDocument.getState();
      expect(past.length, name).toBeLessThanOrEqual(1);
      if (past.length) undo();
      expect(currentProject(), name).toEqual(before);
    }
  });

  it('include every field and section of every task, which the search finds by name', () => {
    openProject(demo());
    const flat = demo().camera.kind === '2d';
    const named = new Set(listOf().map(({ name, where }) => `${name} ${where ?? ''}`));
    for (const { name: task, finds = [] } of tasks)
      for (const { name, world } of finds)
        if (!world || (world === 'flat') === flat) expect(named).toContain(`${name} in ${task}`);
  });
});
