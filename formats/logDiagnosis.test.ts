import { describe, expect, it } from 'vitest';
import {
  camera,
  dot,
  negated,
  projection,
  times,
  turnedOver,
  view,
  viewport,
  type V,
} from '../core/testing/handCamera';
import { diagnoseLog, logDiagnosisText } from './logDiagnosis';

/*
 * Logs as strangers print them, each in another form, of a camera worked out by hand. The printed numbers are right or
 * have one known fault, which must be named first.
 */

type M = readonly (readonly number[])[];
const request = {
  astrolabe: 1,
  conventions: { ndc: { near: -1, far: 1 }, screen: { origin: 'bottom-left' } },
  viewport,
  camera,
};
const whole = times(projection, view);
const f = (v: number) => Math.fround(v).toFixed(6);
const decimals = (n: number) => (v: number) => Math.fround(v).toFixed(n);
const g = (v: number) => String(Number(Math.fround(v).toPrecision(7)));
const rows = (m: M, one: (v: number) => string, between: string) => m.map((row) => row.map(one).join(between));
const flat = (m: M, one: (v: number) => string, between: string) => m.flat().map(one).join(between);
const pixel = (p: V): [number, number, number] => {
  const [x, y, z, w] = whole.map((row) => dot(row.slice(0, 3) as unknown as V, p) + row[3]!) as [
    number,
    number,
    number,
    number,
  ];
  return [
    viewport.x + ((x / w + 1) / 2) * viewport.width,
    viewport.y + ((y / w + 1) / 2) * viewport.height,
    (z / w + 1) / 2,
  ];
};
const lamp: V = [0.5, 1.25, -3];
const mole: V = [-2, 0.5, 1];

/** A log, the roles and the number of points that are read, and the first fault; null where it is right. */
const logs: readonly (readonly [name: string, text: string, roles: readonly string[], points: number, fault: string | null])[] = [
  ['a table with rulers', `+-----------+-----------+-----------+-----------+\n${rows(view, (v) => decimals(5)(v).padStart(9), ' | ').map((r) => `| ${r} |`).join('\n+-----------+-----------+-----------+-----------+\n')}\n+-----------+ world to view`, ['view'], 0, null],
  ['a sentence for every row', `Uploading view projection to binding 0.\n${rows(whole, g, ', ').map((r, i) => `  Row ${i} is ${r}.`).join('\n')}\nDone in 0.2 ms.`, ['viewProjection'], 0, null],
  ['uniforms of a capture, by columns', `uniform block Camera (binding = 0, 128 bytes)\n  mat4 u_view @ offset 0\n${rows(turnedOver(view), f, '  ').map((r, i) => `    [${i}]  ${r}`).join('\n')}\n  mat4 u_projection @ offset 64\n${rows(turnedOver(projection), f, '  ').map((r, i) => `    [${i}]  ${r}`).join('\n')}`, ['view', 'projection'], 0, null],
  ['an object in a script console', `camera.matrices → { view: [ ${flat(turnedOver(view), g, ', ')} ],\n  projection: [ ${flat(turnedOver(projection), g, ', ')} ] }`, ['view', 'projection'], 0, null],
  ['nested lists with trailing commas', `View = (\n${rows(view, f, ', ').map((r) => `    (${r},),`).join('\n')}\n)`, ['view'], 0, null],
  ['key and value on every line', `projection.m11=${g(projection[0]![0]!)}\nprojection.m12=0\nprojection.m13=0\nprojection.m14=0\nprojection.m21=0\nprojection.m22=${g(projection[1]![1]!)}\nprojection.m23=0\nprojection.m24=0\nprojection.m31=0\nprojection.m32=0\nprojection.m33=${g(projection[2]![2]!)}\nprojection.m34=-1\nprojection.m41=0\nprojection.m42=0\nprojection.m43=${g(projection[2]![3]!)}\nprojection.m44=0`, ['projection'], 0, null],
  ['a line of an event trace', `ev=cam_update ts=81237.25 proj="${flat(turnedOver(projection), g, ' ')}" view="${flat(turnedOver(view), g, ' ')}"`, ['projection', 'view'], 0, null],
  ['markup with attributes', `<camera id="7"><view rows="4">\n${rows(view, f, ' ').map((r) => `  <row>${r}</row>`).join('\n')}\n</view></camera>`, ['view'], 0, null],
  ['a document of indents', `frame:\n  camera_to_clip: &vp\n${rows(whole, g, ', ').map((r) => `    - [ ${r} ]`).join('\n')}\n`.replace('camera_to_clip', 'view_projection'), ['viewProjection'], 0, null],
  ['comma separated with a heading', `name,m0,m1,m2,m3,m4,m5,m6,m7,m8,m9,m10,m11,m12,m13,m14,m15\nview,${flat(turnedOver(view), g, ',')}\nprojection,${flat(turnedOver(projection), g, ',')}`, ['view', 'projection'], 0, null],
  ['points beside their pixels', `lamp  world ${lamp.join(' ')}  window ${pixel(lamp).map(decimals(4)).join(' ')}\nmole  world ${mole.join(' ')}  window ${pixel(mole).map(decimals(4)).join(' ')}`, [], 2, null],
  ['calls and what they return', `project(${lamp.join(', ')}) returned (${pixel(lamp).slice(0, 2).map(decimals(3)).join(', ')})\nproject(${mole.join(', ')}) returned (${pixel(mole).slice(0, 2).map(decimals(3)).join(', ')})`.replaceAll('returned', '->'), [], 2, null],
  ['a flipped projection in a test report', `AssertionError: expected projection matrix to equal\n  actual:\n${rows(negated(projection, 1), f, ', ').map((r) => `    [${r}]`).join('\n')}`, ['projection'], 0, 'projection yFlipped'],
  ['decimal commas by a locale', `Kamera view:\n${rows(view, (v) => f(v).replace('.', ','), '\t').join('\n')}`, ['view'], 0, null],
  ['thousands of a serial port', `>> V 16 ${flat(turnedOver(view), f, ' ')} <<\n>> P 16 ${flat(turnedOver(projection), f, ' ')} <<`.replace('>> V 16', '>> view:').replace('>> P 16', '>> projection:'), ['view', 'projection'], 0, null],
  ['a translation that was not negated, between rows of a shell', `$ engine --dump-camera | tail -5\nworld-to-camera\n${rows(view.map((row, r) => (r < 3 ? [...row.slice(0, 3), -row[3]!] : row)), f, ' ').join('\n')}\n$ `, ['view'], 0, 'view translationNotNegated'],
]; // prettier-ignore

describe('logs of strangers', () => {
  it.each(logs)('%s', (_, text, roles, points, fault) => {
    const found = diagnoseLog(request, text);
    if (!found.ok) throw new Error(`${JSON.stringify(found.problems)}\n${text}`);
    const { reading, answer } = found.value;
    expect(reading.matrices.map(({ role }) => role)).toEqual(roles);
    expect(reading.points).toHaveLength(points);
    const [first] = answer.explanations;
    expect(first ? first.faults.map((one) => `${one.where} ${one.fault}`).join(' + ') : null, text).toBe(fault);
    expect(answer.verdict).toBe(fault ? 'explained' : 'agrees');
    for (const { at } of [...reading.matrices, ...reading.points]) expect(text.slice(...at)).toMatch(/\d/);
  });
  it('are sixteen, each of another form', () => expect(logs).toHaveLength(16));

  it('a lone view projection is read the way that its numbers tell, printed by rows or by columns', () => {
    for (const m of [whole, turnedOver(whole)])
      for (const print of [rows(m, g, ' ').join('\n'), `[[${rows(m, g, ', ').join('], [')}]]`]) {
        const found = diagnoseLog(request, `viewProj\n${print}`);
        expect(found.ok && found.value.answer.verdict, print).toBe('agrees');
        expect(found.ok && found.value.reading.matrices[0]!.listing).toBe(m === whole ? 'rows' : 'columns');
      }
    const flipped = diagnoseLog(request, `viewProj\n${rows(turnedOver(negated(whole, 0)), g, ' ').join('\n')}`);
    const [first] = flipped.ok ? flipped.value.answer.explanations : [];
    expect([first!.faults, ...first!.equivalent].map((set) => set.map(({ fault }) => fault).join())).toContain(
      'xFlipped',
    );
  });

  it('an orthographic one, which does not tell, is tried both ways', () => {
    const flatLens = [[0.1, 0, 0, 0], [0, 0.18, 0, 0], [0, 0, -0.025, -1.01], [0, 0, 0, 1]]; // prettier-ignore
    const own = { ...camera, projection: { kind: 'orthographic', height: 2 / 0.18, near: 0.4, far: 80.4 } };
    const viewport16 = { x: 0, y: 0, width: 1800, height: 1000 };
    const ask = (m: M) =>
      diagnoseLog({ ...request, viewport: viewport16, camera: own }, `view projection\n${rows(m, g, ' ').join('\n')}`);
    for (const m of [times(flatLens, view), turnedOver(times(flatLens, view))]) {
      const found = ask(m);
      expect(found.ok && found.value.answer.verdict).toBe('agrees');
    }
  });

  it('text says what was read and what is wrong; what cannot be read is a problem', () => {
    const log = `proj = ${flat(turnedOver(negated(projection, 1)), g, ' ')}`;
    const found = diagnoseLog(request, log);
    expect(found.ok && logDiagnosisText(found.value)).toMatch(
      /Read projection, printed by columns.*\nOne thing is wrong\. They put points up to [\d.]+ px off, and 0\.00 px with it undone\.\nExplained by: projection: y flipped\.\n {2}Projection: y is flipped/,
    );
    expect(diagnoseLog(request, 'nothing at all')).toMatchObject({ ok: false });
    expect(diagnoseLog({ astrolabe: 1 }, log)).toMatchObject({ ok: false });
    expect(diagnoseLog([], log)).toMatchObject({ ok: false });
    const flat2d = { ...request, camera: { kind: '2d', focus: [0, 0], anchor: [10, 5], zoom: 1 } };
    expect(diagnoseLog(flat2d, 'nothing at all')).toMatchObject({ ok: false });
    // World and rows grow the same way in these conventions: this engine has y flipped about the anchor.
    const found2d = diagnoseLog(flat2d, 'view\n1 0 10\n0 -1 5\n(3, 2) -> (13, 3)');
    expect(found2d.ok && logDiagnosisText(found2d.value)).toMatch(
      /Read worldToPixel, printed by \w+, at .*\nRead 1 point\.\nOne thing is wrong\. They put points up to 4\.00 px off\.\nExplained by: world to pixel: y flipped\./,
    );
  });
});
