import katex from 'katex';
import { escaped } from './escaped';
import { compute } from '../core/compute/compute';
import { readRequest, type ProblemDocument } from '../core/compute/readRequest';
import { type ResolvedRequest } from '../core/compute/read';
import { codeParts } from '../core/deliver/library';
import { emitCode, languageOf, type CodeWish } from '../core/deliver/code';
import { setUpOfRequest } from '../core/deliver/setUp';
import { vectorsOf } from '../core/deliver/vectors';
import { backFormulas, forwardFormulas, viewFormulas, aheadOf } from '../core/formulas/camera';
import { valuesOf, type Formulas } from '../core/formulas/expression';
import { asTex } from '../core/formulas/languages';
import { worldToViewRuf } from '../core/convert/project';
import type { PlacedBody } from '../core/bodies/body';
import { addScaled, type Vec3 } from '../core/math/vec3';

/* A report of a set-up: one page of HTML that needs nothing from elsewhere and prints well. */

/** A picture of the report: markup that needs nothing from elsewhere. */
export interface ReportPicture {
  readonly title: string;
  readonly says: string;
  readonly markup: string;
}
export interface ReportWish {
  readonly title: string;
  readonly pictures?: readonly ReportPicture[];
  /** Rules of CSS with the typefaces of the report, their files as data. */
  readonly fonts?: string;
  /** The code to stand in it, and how it is coloured; none if it is not given. */
  readonly code?: CodeWish;
  readonly coloured?: (text: string, language: string) => string;
}

const figure = (v: number, digits = 7): string => {
  const text = String(Number((Math.abs(v) < 1e-12 ? 0 : v).toPrecision(digits)));
  return text.replace('-', '−');
};
const list = (of: readonly number[]): string => of.map((v) => figure(v)).join(', ');
const cell = (text: string): string => `<td>${text}</td>`;
const table = (heads: readonly string[], rows: readonly (readonly string[])[]): string =>
  `<table><thead><tr>${heads.map((one) => `<th>${escaped(one)}</th>`).join('')}</tr></thead><tbody>${rows.map((row) => `<tr>${row.map(cell).join('')}</tr>`).join('')}</tbody></table>`; // prettier-ignore
const facts = (rows: readonly (readonly [string, string])[]): string =>
  `<dl>${rows.map(([name, value]) => `<div><dt>${escaped(name)}</dt><dd>${value}</dd></div>`).join('')}</dl>`;
const section = (title: string, ...content: readonly string[]): string => `<section><h2>${escaped(title)}</h2>${content.join('\n')}</section>`; // prettier-ignore

/** Six digits, powers of ten written out: for formulas. */
const texDigits = (v: number): string => {
  const [mantissa, exponent] = String(Number((Math.abs(v) < 1e-12 ? 0 : v).toPrecision(6))).split('e');
  return exponent === undefined ? mantissa! : `${mantissa}\\cdot 10^{${Number(exponent)}}`;
};
const set = (tex: string): string => katex.renderToString(tex, { output: 'mathml', strict: false, throwOnError: false, displayMode: true }); // prettier-ignore

/** Formulas step by step, each in symbols and with the numbers put in. */
function working(title: string, formulas: Formulas | null): string {
  if (!formulas) return '';
  const values = valuesOf(formulas);
  const steps = asTex(formulas, values, texDigits).map(
    ({ says, left, symbols, numbers, value }) =>
      `${says ? `<h4>${escaped(says)}</h4>` : ''}<div class="step">${set(`${left}=${symbols}`)}${set(`=${numbers}=${texDigits(value)}`)}</div>`, // prettier-ignore
  );
  return `<h3>${escaped(title)}</h3>${steps.join('\n')}`;
}

const originOf = ({ toWorld: m }: PlacedBody): Vec3 => [m[3]!, m[7]!, m[11]!];

/** The point that is worked out: the first that the request asks for, else a body's, else one on the gaze. */
function pointOf({ queries, codec: e, frame, placed, world }: ResolvedRequest): Vec3 {
  const asked = queries.find((one) => one.op === 'worldToScreen');
  const first = asked?.op === 'worldToScreen' ? asked.points[0] : undefined;
  const points = [...(first ? [world.readPoint(first, e)] : []), ...placed.map(originOf)];
  const seen = points.find((p) => !world.hasDepth || worldToViewRuf(frame, p)[2] > frame.near);
  const depth = Math.min(frame.far ?? Infinity, Math.max(frame.near * 8, 1));
  return seen ?? addScaled(frame.eye, frame.forward, depth);
}

const style = `
:root{color-scheme:light}
body{margin:0 auto;max-width:60rem;padding:2rem 1.5rem;background:#fbf8f1;color:#18242f;font:15px/1.5 "IBM Plex Sans",system-ui,sans-serif}
h1,h2,h3{font-family:Spectral,Georgia,serif;font-weight:600;line-height:1.2}
h1{font-size:2rem;margin:0 0 .25rem}
h2{font-size:1.35rem;margin:2rem 0 .5rem;padding-top:.5rem;border-top:1.5px solid #18242f}
h3{font-size:1.05rem;margin:1.25rem 0 .25rem}
h4{font-weight:400;font-style:italic;margin:.75rem 0 0;color:#4e5964}
p{margin:.25rem 0 .75rem}
.says{color:#4e5964}
figure{margin:0 0 1rem;break-inside:avoid}
figure>:is(svg,img){display:block;box-sizing:border-box;max-width:100%;width:auto;height:auto;max-height:15cm;margin:0 auto;background:#fbf8f1}figure>svg{width:100%;border:1px solid #18242f}
figcaption{font-style:italic;color:#4e5964}
dl{display:grid;grid-template-columns:repeat(auto-fill,minmax(20rem,1fr));gap:0 2rem;margin:0}
dl>div{display:flex;justify-content:space-between;gap:1rem;border-bottom:1px solid #c9bfab}
dt{color:#4e5964}dd,td,pre{font-family:"IBM Plex Mono",ui-monospace,monospace;font-variant-numeric:tabular-nums}
dd{margin:0;text-align:right}
table{border-collapse:collapse;width:100%;margin:.25rem 0 1rem;break-inside:avoid}
th{font-weight:400;font-style:italic;text-align:right;color:#4e5964;border-bottom:1px solid #18242f;padding:0 .5rem}
td{text-align:right;padding:0 .5rem;border-bottom:1px solid #c9bfab;font-size:13px}
th:first-child,td:first-child{text-align:left}
.matrices{display:grid;grid-template-columns:repeat(auto-fill,minmax(26rem,1fr));gap:0 2rem}
.step{display:flex;flex-direction:column;align-items:flex-start;overflow-x:auto;break-inside:avoid}
math{font-size:1.05em}.step math{margin:.3rem 0}.step math+math{margin-left:1.5rem}
pre{font-size:12px;line-height:1.45;white-space:pre-wrap;overflow-wrap:anywhere;background:#f6f1e5;border:1px solid #c9bfab;padding:.75rem}
.hljs-comment{color:#4e5964;font-style:italic}.hljs-keyword,.hljs-meta,.hljs-built_in{font-weight:600}.hljs-number,.hljs-literal{color:#7c560d}.hljs-string,.hljs-title{color:#17636b}
@media print{body{background:#fff;padding:0;max-width:none;font-size:11px}pre{font-size:8.5px;background:#fff}h2{break-after:avoid}@page{margin:16mm}}
`;

/** Measures of the resolved camera as a reader says them. */
const measures = { yaw: 'yaw', pitch: 'pitch', roll: 'roll', verticalFov: 'vertical field of view', horizontalFov: 'horizontal field of view', aspect: 'aspect' }; // prettier-ignore
const kinds = { perspective: 'Perspective', orthographic: 'Orthographic' } as const;

/**
 * A report of the set-up of a compute request, any JSON value: pictures, conventions, the camera's
 * numbers and matrices, the working of a point forward and back, test vectors, and code. What is wrong
 * with the request is said as `compute` says it.
 */
export function reportOf(
  given: unknown,
  { title, pictures = [], fonts = '', code, coloured = escaped }: ReportWish,
): { ok: true; html: string } | { ok: false; problem: ProblemDocument } {
  const read = readRequest(given);
  if (!read.ok) return read;
  const { request, resolved } = read;
  const { frame, codec: e, world, placed } = resolved;
  const flat = !world.hasDepth;
  const answered = compute({ ...request, queries: [{ id: 'm', op: 'matrices' }, ...(placed.length ? [{ id: 'v', op: 'visibility', method: 'exact' }] : [])] }); // prettier-ignore
  if (!answered.ok) return answered;
  const [matrices, visibility] = answered.response.results as unknown as [
    Record<string, number[]>,
    { bodies: { body: string; verdict: string; rejectedBy: string[] }[] } | undefined,
  ];
  const { conventions: c } = e;
  const axes = ({ right, up, forward }: typeof c.world) => `${right} right, ${up} up, ${forward} ahead`.replaceAll('-', '−'); // prettier-ignore
  const { viewport: v } = frame;
  const camera = answered.response.camera as Record<string, unknown>;
  const number = (name: string) => (typeof camera[name] === 'number' ? figure(camera[name]) : null);
  const vector = (name: string) => (Array.isArray(camera[name]) ? list(camera[name] as number[]) : null);
  const cameraFacts = [
    ['kind of projection', kinds[frame.kind]],
    ...(['position', 'right', 'up', 'forward'] as const).map((name) => [name, vector(name)] as const),
    ...Object.entries(measures).map(([name, says]) => [says, number(name)] as const),
    ['near', figure(frame.near)],
    ['far', frame.far === null ? 'infinite' : figure(frame.far)],
    ['viewport', `${v.width} × ${v.height}${v.x || v.y ? ` at ${v.x}, ${v.y}` : ''}`],
  ].filter((row): row is [string, string] => row[1] !== null);
  const point = pointOf(resolved);
  const focus: Vec3 | null = 'focus' in resolved.camera ? e.fromWorld([...resolved.camera.focus, 0]) : null; // prettier-ignore
  const ahead = aheadOf(frame, point);
  const places = compute({ ...request, queries: [{ id: 'p', op: 'worldToScreen', points: [flat ? e.toWorld(point).slice(0, 2) : e.toWorld(point)] }] }); // prettier-ignore
  const place = places.ok ? (places.response.results[0] as unknown as { points: { screen: [number, number] | null }[] }).points[0] : undefined; // prettier-ignore
  const vectors = vectorsOf(given, 10, 1);
  const made = code ? setUpOfRequest(given) : null;
  const listed = e.listsColumns ? 'four after another are a column of the matrix for column vectors' : 'four after another are a row of the matrix for column vectors'; // prettier-ignore
  const html = [
    '<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">',
    `<title>${escaped(title)}</title><style>${fonts}${style}</style></head><body>`,
    `<h1>${escaped(title)}</h1>`,
    `<p class="says">A camera and what follows from it, in its engine’s conventions. ${kinds[frame.kind]}, ${v.width} × ${v.height}, near ${figure(frame.near)}, far ${frame.far === null ? 'infinite' : figure(frame.far)}; ${placed.length === 1 ? 'one body' : `${placed.length} bodies`}.</p>`, // prettier-ignore
    ...pictures.map((one) => `<figure><h3>${escaped(one.title)}</h3>${one.markup}${one.says && `<figcaption>${escaped(one.says)}</figcaption>`}</figure>`), // prettier-ignore
    section('Conventions', facts([
      ['world', axes(c.world)],
      ['view', axes(c.view)],
      ['NDC', `y ${c.ndc.up === '+y' ? 'up' : 'down'}, z ${figure(c.ndc.near)} at near, ${figure(c.ndc.far)} at far`],
      ['screen', `from the ${c.screen.origin.replace('-', ' ')}, first pixel’s middle at ${c.screen.pixelCentre}`],
      ['vectors', `${c.matrix.vectors}s, stored ${c.matrix.storage}`],
      ['angles', `${c.angles.unit}; yaw ${c.angles.yaw}, pitch ${c.angles.pitch}, roll ${c.angles.roll}`],
    ])), // prettier-ignore
    section('Camera', facts(cameraFacts)),
    section(
      'Matrices',
      `<p class="says">As these conventions list them: ${listed}.</p><div class="matrices">`,
      ...(['view', 'projection', 'viewProjection', 'cameraToWorld'] as const).flatMap((name) => {
        const own = matrices[name];
        return own ? [`<div><h3>${name}</h3><table><tbody>${[0, 4, 8, 12].map((i) => `<tr>${own.slice(i, i + 4).map((n) => cell(figure(n))).join('')}</tr>`).join('')}</tbody></table></div>`] : []; // prettier-ignore
      }),
      '</div>',
    ),
    section(
      'Working',
      `<p class="says">For the point ${list(flat ? e.toWorld(point).slice(0, 2) : e.toWorld(point))} of the world.</p>`,
      ...(flat ? [] : [working('The view of this camera', viewFormulas(e, frame.eye, addScaled(frame.eye, frame.forward, 10), frame.up))]), // prettier-ignore
      ...(place?.screen
        ? [
            working('From the world to the screen', forwardFormulas(frame, e, point, focus)),
            working('And back', backFormulas(frame, e, place.screen, ahead, focus)),
          ]
        : ['<p>This point has no picture: it lies behind the eye.</p>']),
    ),
    visibility
      ? section('Bodies', table(['body', 'verdict', 'lies wholly beyond'], visibility.bodies.slice(0, 200).map(({ body, verdict, rejectedBy }) => [escaped(body), verdict, escaped(rejectedBy.join(', '))])), visibility.bodies.length > 200 ? `<p class="says">The first 200 of ${visibility.bodies.length}.</p>` : '') // prettier-ignore
      : '',
    vectors?.ok
      ? section('Test vectors', table(['row', 'goes in', 'comes out'], vectors.vectors.rows.filter(({ input }) => input.length).map(({ id, input, expected }) => [escaped(id), list(input), expected ? list(expected) : 'no picture'])), `<p class="says">${flat ? 'Point: the pixel. Back: the world point. Screen: the integer zoom for a screen. Layer: the pixel of a point of a parallax layer.' : 'World to screen: pixel, depth and distance ahead. Back: the place. Ray: origin and direction.'}</p>`) // prettier-ignore
      : '',
    code && made?.ok
      ? section(`Code in ${languageOf(code.language)!.name}`, `<pre>${coloured(emitCode(made.setUp, code).text, code.language)}</pre>`) // prettier-ignore
      : '',
    '</body></html>\n',
  ];
  return { ok: true, html: html.join('\n') };
}

/** The code that stands in a report if nothing else is said: all parts, in a language. */
export const reportCode = (language: string): CodeWish => ({ ...{ language, parts: codeParts, number: 'double', naming: 'own' }, constants: true }); // prettier-ignore
