import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { beforeAll, describe, expect, it, vi } from 'vitest';
import * as z from 'zod';
import { quantitiesIn } from '../../core/quantities/convert';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { cameraInSpace } from '../../formats/camera';
import { readProject, writeProject, type Project } from '../../formats/project';
import type { AnyMarks, MarksTable, PictureView } from '../pictures/compose/contract';
import { fitted, fittedOutside } from '../pictures/compose/drawings';
import { houseHandles, pointUnderHand, type AnyHandle } from '../pictures/page/handles';
import { inkRoles } from '../pictures/compose/inks';
import { viewIn } from '../pictures/compose/views';
import { installMarks, marksOf, openTask, standingOf, underPointerOf } from '../pictures/compose/taskMarks';
import { standingIn } from '../pictures/compose/standing';
import { currentProject, endGesture, openProject, undo } from '../state/document';
import { lightIn } from '../state/light';
import { momentOf, type Moment } from '../state/moment';
import {
  editSlice,
  installSlices,
  sliceOf,
  slices,
  taskMoment,
  withSliceIn,
  type Slice,
  type SliceTable,
} from '../state/slices';
import { allDigits, houseWorkings, linesOf } from '../working/lines';
import { allSources, installWorkings } from '../working/registry';
import { loadJobs } from './jobs';
import type { AnyTask } from './task';

/*
 * What every task is held to, over the table of tasks: those of the application, and the sample
 * that is kept in the tests.
 */

vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
vi.stubGlobal('window', { matchMedia: () => ({ matches: false, addEventListener: () => undefined }) });

const own = await (await import('./page')).loadAllTasks();
const sliceTable = slices();
const sample = {
  page: (await import('../../e2e/sample/index')).default,
  marks: (await import('../../e2e/sample/marks')).marks as AnyMarks,
  slice: (await import('../../e2e/sample/state')).slice as Slice<unknown>,
};
const tasks: readonly AnyTask[] = [...own, { ...sample.page, route: 'sample', name: 'Sample', key: 'm' }];
const marks: MarksTable = {
  ...Object.fromEntries(own.map(({ route }) => [route, marksOf(route)!])),
  sample: sample.marks,
};
const allSlices: SliceTable = { ...sliceTable, sample: sample.slice };

const demos = { harbour: saltmarrow(), chart: saltmarrowChart() };
/** The project as the painter has it: the same values in other objects. */
const told = (project: Project): Project => structuredClone(project);
const size = { x: 0, y: 0, width: 420, height: 300 };

beforeAll(() => {
  installSlices(allSlices);
  installMarks(marks);
  installWorkings(Object.fromEntries(tasks.flatMap(({ route, workings }) => (workings ? [[route, workings]] : []))));
});

const look = { selected: ['lighthouse', 'launch'], folds: { pointer: true } };
const ofTask = (route: string, now: Moment) => taskMoment<unknown>(route, now);

/** The pictures of a project, the task's own among them. */
function viewsOf(route: string, now: Moment): PictureView[] {
  const task = openTask(route, now, {});
  const drawings = {
    plan: fitted('plan', size, now),
    section: now.flat ? { middle: [0, 0] as const, unitsPerPixel: 1 } : fitted('section', size, now),
    outside: fittedOutside(now),
  };
  const names = now.flat ? ['camera', 'plan'] : ['camera', 'plan', 'section', 'outside'];
  const ownPictures = (task?.marks.pictures ?? []).map(({ name }) => `${route}/${name}`);
  return [...names, ...ownPictures].flatMap((name) => viewIn(name, size, now, drawings, task) ?? []);
}

describe.each(tasks.map((task) => [task.route, task] as const))('the task %s', (route, task) => {
  it.each(Object.entries(demos))('keeps in the %s what its own schema takes', (_, project) => {
    const slice = allSlices[route];
    if (!slice) return;
    const first = slice.initial(project);
    expect(slice.schema.safeParse(first).success).toBe(true);
    expect(slice.schema.parse(first)).toEqual(first);
    // Each older version has its way to the next.
    expect(slice.migrate?.length ?? 0).toBe(slice.version - 1);
    const kept = { ...project, tasks: { [route]: { version: slice.version, ...(first as object) } } };
    const back = readProject(JSON.parse(writeProject(kept)));
    if (!back.ok) throw new Error(back.problems[0]!.message);
    expect(sliceOf(route, back.project)).toEqual(JSON.parse(JSON.stringify(first)));
  });

  it.each(Object.entries(demos))('draws the same on the page and in the painter, in known inks (%s)', (_, project) => {
    const moved: Project =
      project.camera.kind === '3d'
        ? { ...project, camera: { ...cameraInSpace(project), position: [3, 9, 40] } }
        : project;
    for (const [given, time] of [
      [project, 0],
      [project, 3.7],
      [moved, 0],
    ] as const) {
      const drawnBy = (own: Project) => {
        const now = momentOf(own, time);
        const open = openTask(route, now, {});
        return viewsOf(route, now).map((view) => {
          const drawn = standingOf(open, view, look);
          const layers = standingIn(view, now, drawn, look, { snapshot: null, how: 'beside' });
          const under = underPointerOf(open, view, [300, 200], look);
          for (const mark of [...layers.flatMap((one) => one.marks), ...under]) {
            expect(inkRoles).toContain(mark.ink);
            if ('d' in mark) expect(mark.d).not.toMatch(/NaN|Infinity/);
          }
          for (const layer of drawn.layers ?? []) {
            if (layer.kind === 'instances') {
              expect(layer.tints).toHaveLength(layer.transforms.length / 12);
            }
          }
          return [view.name, layers, under, (drawn.layers ?? []).map(({ key, kind }) => [key, kind])];
        });
      };
      expect(JSON.stringify(drawnBy(told(given)))).toBe(JSON.stringify(drawnBy(given)));
      const now = momentOf(given, time);
      const open = openTask(route, now, {});
      const tints = open?.marks.tints?.(open.now, open.derived);
      if (tints) expect(tints).toHaveLength(given.bodies.length);
    }
  });

  it.each(Object.entries(demos))('works while no other task is loaded (%s)', async (_, project) => {
    const alone: SliceTable = { motion: allSlices['motion']!, ...(allSlices[route] && { [route]: allSlices[route] }) };
    installSlices(alone);
    installMarks({ [route]: marks[route]! });
    try {
      // Another object, of which nothing is remembered from before.
      const own = { ...told(project), id: `${project.id} with ${route} alone` };
      const now = ofTask(route, momentOf(own, 1.5));
      const plainNow = now as unknown as Moment;
      const open = openTask(route, plainNow, {});
      for (const view of viewsOf(route, plainNow)) {
        standingOf(open, view, look);
        underPointerOf(open, view, [300, 200], look);
        task.handles?.(now, view.name);
      }
      task.ticks?.(now);
      alone[route]?.queries?.(now.slice as never, now);
      const jobs = await loadJobs(route);
      for (const job of Object.values(jobs?.jobs ?? {})) job.input(now as never);
      expect(lightIn(own)).toEqual(lightIn(project));
    } finally {
      installSlices(allSlices);
      installMarks(marks);
    }
  });

  it.each(Object.entries(demos))('has nothing that is to be tried done when the %s opens', (guide, project) => {
    const list = task.tries?.[guide as 'harbour' | 'chart'] ?? [];
    expect(list.filter((one) => one.done(momentOf(project)))).toEqual([]);
    expect(new Set(list.map(({ id }) => id)).size).toBe(list.length);
  });

  it.each(Object.entries(demos))('has handles that move and undo in one step (%s)', (_, project) => {
    openProject(project);
    const now = momentOf(project);
    for (const view of viewsOf(route, now)) {
      const all: AnyHandle[] = [...houseHandles(view, now), ...(task.handles?.(ofTask(route, now), view.name) ?? [])];
      for (const spec of all) {
        const at = view.point(spec.at);
        if (!at) continue;
        for (const [dx, dy] of [
          [13, 8],
          [-21, 17],
        ] as const) {
          const to = pointUnderHand(view, spec, [at[0] + dx, at[1] + dy]);
          if (!to) continue;
          spec.move(to, (name, recipe) => editSlice(route, name, recipe, 'drag'), 'drag', [at[0] + dx, at[1] + dy]);
        }
        endGesture();
        expect(currentProject(), `${view.name}: ${spec.name}`).not.toBe(project);
        expect(readProject(currentProject()).ok).toBe(true);
        undo();
        expect(currentProject()).toBe(project);
      }
    }
  });

  it('has workings whose every number leads to a field that is there', async () => {
    if (!task.workings) return;
    const { workings } = await task.workings.load();
    expect(Object.keys(workings).sort()).toEqual(Object.keys(task.workings.titles).sort());
    const folder = route === 'sample' ? 'e2e/sample' : `app/tasks/${route}`;
    const sheets = readdirSync(folder)
      .filter((name) => name.endsWith('.tsx'))
      .map((name) => readFileSync(join(folder, name), 'utf8'))
      .join('\n');
    const described = quantitiesIn(slices()[route]?.schema ?? z.object({})).map(({ source }) => source);
    for (const source of Object.keys(task.workings.sources))
      if (!described.includes(source)) expect(sheets, `a field with source ${source}`).toMatch(new RegExp(`['" ]${source}['" ]`)); // prettier-ignore
    for (const project of Object.values(demos))
      for (const [name, build] of Object.entries({ ...houseWorkings, ...workings }))
        for (const line of linesOf(build, momentOf(project), allDigits, {
          body: 'lighthouse',
          node: null,
          axis: 0,
          client: [100, 100],
        }))
          // prettier-ignore
          for (const [, from] of line.formula.matchAll(/htmlData\{from=([^}]+)\}/g))
            expect(from!.startsWith('line-') || from! in allSources(), `${name}: ${from}`).toBe(true);
  });

  it('has a key of its own, and commands by names of their own', () => {
    expect(tasks.filter(({ key }) => key === task.key)).toHaveLength(1);
    const names = (task.commands ?? []).map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
  });
});

it.each(Object.entries(demos))('the light of the %s is the one that Order sets', (_, project) => {
  const { light, receiver } = sliceOf<{ light: object; receiver: number }>('order', project);
  expect(lightIn(project)).toEqual({ light, receiver });
  const set = withSliceIn('order', project, { ...sliceOf<object>('order', project), receiver: 3, light: { kind: 'lamp', at: [1, 2, 3] } }); // prettier-ignore
  expect(lightIn(set)).toEqual({ receiver: 3, light: { kind: 'lamp', at: [1, 2, 3] } });
});
