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
const { findEntries } = await import('./search');
const { loadAllTasks } = await import('../tasks/page');
const { pause } = await import('../state/clock');

let tasks: Awaited<ReturnType<typeof loadAllTasks>>;
beforeAll(async () => void (tasks = await loadAllTasks()));

/** Terms of the trade, each with an entry expected among the first three in 3D and in 2D; null for a term without meaning there. */
const wantedTerms: readonly (readonly [string, RegExp | null, RegExp])[] = [
  ['new project', /New 3D project/, /New 2D project/],
  ['dark', /paper and night/, /paper and night/],
  ['copy view matrix', /Copy the view matrix/, /Copy the world-to-pixel matrix/],
  ['parallax', null, /Whole pixels/],
  ['screen to world', /Back to world/, /Back to world/],
  ['world to screen', /World point to screen/, /World point to screen/],
  ['tile', null, /Scroll and seams/],
  ['tilemap', null, /Scroll and seams/],
  ['auto-scroll', /track of the camera/, /track of the camera|Scroll/],
  ['screen shake', /Shake/, /track of the camera/],
  ['safe area', /Held to the screen|Screens|On other screens/, /Held to the screen|Screens|On other screens/],
  ['affine', /Nodes/, /Nodes|world-to-pixel/],
  ['clamp', /Pitch limit|Held|track/, /Held|track/],
  ['anchor', /Held to the screen/, /^Anchor|\nAnchor/],
  ['focus', /Point looked at/, /Focus/],
  ['jitter', /From the frame before|Whole pixels/, /Whole pixels/],
  ['look at', /Point looked at|Hold the gaze by a point/, /Focus/],
  ['mvp', /view projection|Nodes/, /world-to-pixel|Nodes/],
  ['unproject', /Back to world|Pixel that goes back/, /Back to world|Pixel that goes back/],
  ['culling', /Bodies against the frustum|Front face and culling/, /Bodies against the frustum|Front face and culling/],
  ['lod', /Size on the screen|Thresholds/, /Size on the screen|Thresholds/],
];

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

  const expectedTerms = wantedTerms.flatMap(([typed, inSpace, inPlane]) => {
    const expected = demo().camera.kind === '2d' ? inPlane : inSpace;
    return expected ? [{ typed, expected }] : [];
  });
  it.each(expectedTerms)('are found by “$typed”', ({ typed, expected }) => {
    openProject(demo());
    const titles = findEntries(listOf(), typed, true).map(({ title }) => title);
    expect(titles.slice(0, 3).join('\n')).toMatch(expected);
  });

  it('are not found by letters scattered over a name', () => {
    openProject(demo());
    for (const typed of ['aabb board', 'abd', 'qwx', 'prjct'])
      expect(
        findEntries(listOf(), typed, true).map(({ title }) => title),
        typed,
      ).toEqual([]);
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
