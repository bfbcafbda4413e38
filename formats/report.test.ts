import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { compute } from '../core/compute/compute';
import { readRequest } from '../core/compute/readRequest';
import { codecOf } from '../core/conventions/codec';
import { requests } from '../core/testing/requests';
import { saltmarrow } from '../demo/saltmarrow';
import { saltmarrowChart } from '../demo/chart';
import { projectRequest } from './camera';
import { escaped } from './escaped';
import { reportCode, reportOf } from './report';
import { askUntil } from '../core/testing/askUntil';
import { soaks } from '../core/testing/seed';

/* Reports: their numbers are those of `compute`, and they need nothing from elsewhere. */

const asked = (project: ReturnType<typeof saltmarrow>) => projectRequest(project, codecOf(project.conventions), null) as unknown as Record<string, unknown>; // prettier-ignore
const made = (given: unknown, title = 'A camera') => {
  const report = reportOf(given, { title, code: reportCode('C') });
  if (!report.ok) throw new Error(JSON.stringify(report.problem));
  return report.html;
};
/** A number as a report says it. */
const said = (v: number) => String(Number((Math.abs(v) < 1e-12 ? 0 : v).toPrecision(7))).replace('-', '−');
const section = (html: string, title: string) => html.split('<h2>').find((part) => part.startsWith(`${title}</h2>`));
const cells = (html: string) => [...html.matchAll(/<td>(.*?)<\/td>/g)].map(([, text]) => text!);

describe('a report', () => {
  const harbour = made(asked(saltmarrow()));
  const chart = made(asked(saltmarrowChart()));

  it('has the matrices, the verdicts and the camera that `compute` answers', () => {
    const given = asked(saltmarrow());
    const html = harbour;
    const answered = compute({ ...given, queries: [{ id: 'm', op: 'matrices' }, { id: 'v', op: 'visibility', method: 'exact' }] }); // prettier-ignore
    if (!answered.ok) throw new Error('a proper request');
    const [matrices, visibility] = answered.response.results as unknown as [Record<string, number[]>, { bodies: { body: string; verdict: string; rejectedBy: string[] }[] }]; // prettier-ignore
    const names = ['view', 'projection', 'viewProjection', 'cameraToWorld'];
    expect(cells(section(html, 'Matrices')!)).toEqual(names.flatMap((name) => matrices[name]!.map(said)));
    const bodies = visibility.bodies.flatMap(({ body, verdict, rejectedBy }) => [body, verdict, rejectedBy.join(', ')]);
    expect(cells(section(html, 'Bodies')!)).toEqual(bodies);
    const { position, near } = answered.response.camera as unknown as { position: number[]; near: number };
    expect(section(html, 'Camera')).toContain(`<dt>position</dt><dd>${position.map(said).join(', ')}</dd>`);
    expect(section(html, 'Camera')).toContain(`<dt>near</dt><dd>${said(near)}</dd>`);
    // Every row of the test vectors that takes something in, and the code of every part.
    expect(cells(section(html, 'Test vectors')!).length % 3).toBe(0);
    expect(section(html, 'Code in C')).toContain('world_to_screen');
    expect(section(html, 'Working')!.match(/<math/g)!.length).toBeGreaterThan(20);
  });

  it('needs nothing from elsewhere, and its markup is closed', () => {
    for (const html of [harbour, chart]) {
      expect(html).not.toMatch(/<script|<link|@import|url\((?!data:)|src="(?!data:)|href="(?!data:)/);
      for (const tag of ['section', 'table', 'tr', 'td', 'dl', 'dd', 'figure', 'svg', 'pre', 'math', 'div']) {
        const count = (text: RegExp) => html.match(text)?.length ?? 0;
        expect(count(new RegExp(`<${tag}[ >]`, 'g')), tag).toBe(count(new RegExp(`</${tag}>`, 'g')));
      }
    }
  });

  it('of a 2D world has the pixel of a point, and its own test vectors', () => {
    const html = chart;
    expect(section(html, 'Test vectors')).toContain('parallax layer');
    expect(section(html, 'Working')).toContain('From the world to the screen');
  });

  it('takes names as text, whatever they are made of', () => {
    const given = asked(saltmarrow());
    const [first] = given['bodies'] as { id: string }[];
    const name = '<b>&"boat"';
    const html = made({ ...given, bodies: [{ ...first, id: name }] }, name);
    expect(html).not.toContain('<b>');
    expect(html).toContain(`<h1>${escaped(name)}</h1>`);
    expect(cells(section(html, 'Bodies')!)[0]).toBe('&lt;b&gt;&amp;&quot;boat&quot;');
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom('<', '>', '&', '"', 'a', ' ') }), (text) => {
        const safe = escaped(text);
        expect(safe).not.toMatch(/[<>"]|&(?!lt;|gt;|amp;|quot;)/);
        expect(safe.replaceAll('&lt;', '<').replaceAll('&gt;', '>').replaceAll('&quot;', '"').replaceAll('&amp;', '&')).toBe(text); // prettier-ignore
      }),
    );
  });

  it('refuses what `compute` refuses, with its sentences, and nothing else', () => {
    const bad = { ...asked(saltmarrow()), camera: { position: [0, 0, 0] } };
    const refused = reportOf(bad, { title: 'Bad' });
    const own = compute({ ...bad, queries: [] });
    if (refused.ok || own.ok) throw new Error('it was taken');
    expect(refused.problem).toEqual(own.problem);
    for (const odd of [null, 7, 'camera', []]) expect(reportOf(odd, { title: 'Odd' }).ok).toBe(false);
    askUntil(requests, soaks ? 20 : 4, (given) => {
      const report = reportOf(given, { title: 'Any' });
      const read = readRequest(given);
      expect(report.ok ? null : report.problem).toEqual(read.ok ? null : read.problem);
      if (report.ok) expect(report.html).not.toMatch(/>(?:NaN|undefined|−?Infinity)|NaN</);
      return Number(report.ok);
    });
  });
});
