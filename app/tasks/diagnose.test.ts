import { describe, expect, it, vi } from 'vitest';
import { saltmarrow } from '../../demo/saltmarrow';
import type { Project } from '../../formats/project';
import { compute } from '../../core/compute/compute';
import { presets } from '../../core/conventions/conventions';
import { momentOf, type Moment } from '../state/moment';
import { slices, taskMoment } from '../state/slices';
import type { DiagnoseState } from './diagnose/kept';

vi.stubGlobal('localStorage', { getItem: () => null, setItem: () => undefined, removeItem: () => undefined });
vi.stubGlobal('window', { matchMedia: () => ({ matches: false, addEventListener: () => undefined }) });

await (await import('./page')).loadAllTasks();
(await import('./parts')).installMovingTasks();
const { engineOf } = await import('./diagnose/engine');
const { askedNow, readingNow } = await import('./diagnose/reading');
const { carried } = await import('./diagnose/carried');
const { harbourLog } = await import('./diagnose/log');

const nowOf = (part: Partial<DiagnoseState>, more: Partial<Project> = {}): Moment<DiagnoseState> => {
  const project = { ...saltmarrow(), ...more };
  const kept = { ...slices()['diagnose']!.initial(project), ...part };
  const tasks = { diagnose: { version: 1, ...kept } } as unknown as Project['tasks'];
  return taskMoment<DiagnoseState>('diagnose', momentOf({ ...project, tasks }));
};
const explained = (now: Moment<DiagnoseState>) => {
  const made = compute(askedNow(now)!.request);
  if (!made.ok) throw new Error(JSON.stringify(made.problem));
  return made.response.results[0] as unknown as { verdict: string; explanations: { faults: object[] }[] };
};
/** The view as it stands in the log, as one line of rows. */
const viewRows = [...harbourLog.matchAll(/\[bridge\] ((?: +-?\d+\.\d{6}){4})/g)].map(([, row]) => row!.trim().split(/ +/).map(Number)); // prettier-ignore

describe('Diagnose', () => {
  it('opens on a log of the harbour’s own camera with two faults in it', () => {
    const answer = explained(nowOf({}));
    expect(answer.verdict).toBe('explained');
    expect(answer.explanations[0]!.faults).toEqual([{ where: 'view', fault: 'rightNegated' }, { where: 'projection', fault: 'halfAngleMissing' }]); // prettier-ignore
  });

  it('looks through the engine’s camera, mirrored as it is, and through none where the numbers are none', () => {
    const now = nowOf({});
    const { frame } = engineOf(now)!;
    expect(frame!.extents.right).toBeLessThan(frame!.extents.left);
    frame!.eye.forEach((v, i) => expect(v).toBeCloseTo(now.frame.eye[i]!, 3));
    // A view that is listed the other way is no camera's, whatever the right one is.
    const [first] = readingNow(now).used;
    const wrong = nowOf({ corrections: [{ from: first!.item.from, role: null, turned: false }] });
    expect(engineOf(wrong)).toMatchObject({ frame: null });
    expect(engineOf(wrong)!.whole).not.toBeNull();
  });

  it('asks for this camera up to three frames ago, at time 0 and without its shake, and for the others', () => {
    const project = saltmarrow();
    const moving = { ...project, camera: project.cameras.find(({ id }) => id === 'orbit' || id === 'breakwater')! };
    const at = (time: number) => {
      const kept = slices()['diagnose']!.initial(moving as Project);
      const tasks = { diagnose: { version: 1, ...kept } } as unknown as Project['tasks'];
      const now = taskMoment<DiagnoseState>('diagnose', momentOf({ ...moving, tasks } as Project, time));
      const [query] = askedNow(now)!.request.queries as unknown as { others: { name: string }[] }[];
      return query!.others.map(({ name }) => name);
    };
    expect(at(5)).toEqual(expect.arrayContaining(['one frame ago', 'two frames ago', 'three frames ago', 'this camera at 0 s'])); // prettier-ignore
    expect(at(1.5 / 60).filter((name) => name.endsWith('ago'))).toEqual(['one frame ago', 'two frames ago']);
    expect(at(0).some((name) => name.endsWith('ago'))).toBe(false);
    for (const { name } of moving.cameras) expect(at(5)).toContain(name);
  });

  it('takes a square the way its numbers tell, however the conventions list a matrix', () => {
    const text = `view\n${viewRows.map((row) => row.join(' ')).join('\n')}`;
    for (const conventions of Object.values(presets))
      for (const matrix of [{ vectors: 'column', storage: 'row-major' }, { vectors: 'row', storage: 'row-major' }, { vectors: 'column', storage: 'column-major' }] as const) {
        const now = nowOf({ text }, { conventions: { ...conventions, matrix } as Project['conventions'] });
        const { given } = readingNow(now);
        const m = now.codec.fromList(given!.view as never);
        expect([m[3], m[7], m[11]]).toEqual(viewRows.slice(0, 3).map((row) => row[3]));
      }
  }); // prettier-ignore

  it('asks nothing of a flat world or a camera that cannot be but the numbers by themselves', () => {
    const camera = saltmarrow().camera;
    const broken = { ...camera, projection: { ...(camera as { projection: object }).projection, near: 900 } } as Project['camera']; // prettier-ignore
    const asked = askedNow(nowOf({}, { camera: broken }))!.request;
    expect(asked.camera).toBeUndefined();
    expect(asked.queries.map(({ op }) => op)).toEqual(['identify']);
    expect(compute(asked)).toMatchObject({ ok: true });
    expect(askedNow(nowOf({ text: 'nothing' }))).toBeNull();
  });

  it('carries what was said of the text over an edit of it', () => {
    const said = (from: number) => ({ from, role: 'unused' as const, turned: null });
    const text = 'view 1 2 3\nproj 4 5 6\n';
    expect(carried([said(5), said(16)], text, `view 1 2 3\n\nproj 4 5 6\n`)).toEqual([said(5), said(17)]);
    expect(carried([said(5), said(16)], text, 'view 9 2 3\nproj 4 5 6\n')).toEqual([said(16)]);
    expect(carried([said(5)], text, '')).toEqual([]);
  });
});
