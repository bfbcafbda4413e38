import fc from 'fast-check';
import katex from 'katex';
import { describe, expect, it } from 'vitest';
import { placeBodies, rootsOf } from '../../core/bodies/body';
import type { CameraFrame } from '../../core/camera/frame';
import { defaultConventions, type Conventions } from '../../core/conventions/conventions';
import { codecOf } from '../../core/conventions/codec';
import { chainOf } from '../../core/convert/chain';
import { pixelDerivative, pixelVelocity } from '../../core/convert/derivative';
import { edgeMarker } from '../../core/convert/edgeMarker';
import { betweenNodes } from '../../core/convert/nodes';
import { pointerSteps } from '../../core/convert/pointer';
import { normalizeQuat } from '../../core/math/quat';
import {
  viewRufToWorld,
  pictureToViewRuf,
  pixelsPerUnit,
  pixelToPicture,
  projectPoint,
  sizeAt,
} from '../../core/convert/project';
import { pictureToWorld } from '../../core/convert/unproject';
import {
  aheadAt,
  conventions,
  frames,
  magnitude,
  picturePositions,
  real,
  shares,
  vectors,
} from '../../core/testing/arbitraries';
import { saltmarrow } from '../../demo/saltmarrow';
import { saltmarrowChart } from '../../demo/chart';
import { depthChoiceOf, pointerPath, projectFrame, flatCamera } from '../../formats/camera';
import type { Project } from '../../formats/project';
import { familyBounds, markerInset } from '../state/bounds';
import { edgesAlong } from '../state/tiles';
import { evaluateTex } from '../working/testing/evaluate';
import type { Facts, Subject } from '../working/builder';
import { allDigits, houseWorkings, linesOf, shortDigits } from '../working/lines';
import { workings as ofConvert } from './convert/workings';
import { workings as ofFrame } from './frame/workings';
import { runs } from '../../core/testing/seed';

const builders = { ...houseWorkings, ...ofConvert, ...ofFrame };
type WorkingName = string;
const workingOf = (name: WorkingName, ...rest: Parameters<typeof linesOf> extends [unknown, ...infer R] ? R : never) =>
  linesOf(builders[name]!, ...rest);

const harbour = saltmarrow();
const chart = saltmarrowChart();
const placedOf = (project: Project) => {
  const made = placeBodies(project.bodies);
  if (!made.ok) throw new Error();
  return new Map(made.placed.map((one) => [one.body.id, one]));
};
const placed = placedOf(harbour);
const placedOnChart = placedOf(chart);

function factsOf(project: Project, frame: CameraFrame, c: Conventions, local: readonly [number, number, number]) {
  const bodies = project.camera.kind === '2d' ? placedOnChart : placed;
  const body = bodies.get(project.probe.body!)!;
  return {
    ...{ project: { ...project, conventions: c as Project['conventions'] }, frame, codec: codecOf(c) },
    ...{ placed: bodies, flat: project.camera.kind === '2d', roots: rootsOf(project.bodies) },
    chain: chainOf(frame, body, { rung: 'local', value: local }),
  };
}
/** A project as its own camera sees it. */
function factsOfDemo(project: Project, c: Conventions) {
  const made = projectFrame(project, codecOf(c));
  if (!made.ok) throw new Error();
  return factsOf(project, made.value, c, [0, 0, 0]);
}

/**
 * Typesets a working with every digit, evaluates each line's formula, and holds it against what the
 * line says it comes to.
 */
function checked(name: WorkingName, facts: Facts, subject: Subject = {}) {
  const lines = workingOf(name, facts, allDigits, subject);
  const seen = new Set<string>();
  for (const { id, formula, result, name: symbol } of lines) {
    const got = evaluateTex(formula);
    expect(got).toHaveLength(result.length);
    const size = Math.max(1e-9, ...formulaNumbers(formula));
    got.forEach((v, i) =>
      expect(Math.abs(v - result[i]!), `${symbol} = ${formula}`).toBeLessThan(1e-10 * size * Math.max(1, size)),
    );
    // A link to a line leads to one that stands above.
    for (const [, from] of formula.matchAll(/\\htmlData\{from=(line-[^}]*)\}/g))
      expect(seen.has(from!) || [...seen].some((one) => one.startsWith(from!)), `${from} in ${id}`).toBe(true);
    seen.add(id);
    katex.renderToString(`${symbol}=${formula}`, { trust: true, strict: false, throwOnError: true });
  }
  return new Map(lines.map(({ id, result }) => [id, result]));
}
const formulaNumbers = (formula: string) => [...formula.matchAll(/\d+(\.\d+)?/g)].map(([text]) => Number(text));
const close = (a: number, b: number, tolerance = 1e-8) =>
  expect(Math.abs(a - b)).toBeLessThan(tolerance * (1 + Math.abs(b)));

describe('the working, in any conventions', () => {
  it('of the screen leads from the body to the pixel of the probe', () => {
    fc.assert(
      fc.property(frames, picturePositions, shares, conventions, (frame, [x, y], share, c) => {
        const world = viewRufToWorld(
          frame,
          pictureToViewRuf(frame, x, y, Math.min(aheadAt(frame, share), frame.near + 100)),
        );
        const body = placed.get('lighthouse')!;
        const chain = chainOf(frame, body, { rung: 'world', value: world });
        if (!chain.ok || !chain.value.picture.ok) return;
        const facts = factsOf(harbour, frame, c, chain.value.local as [number, number, number]);
        const e = facts.codec;
        const lines = checked('screen', facts);
        const { across, upward, depth01: depth } = chain.value.picture.value;
        const [sx, sy] = e.toScreen(frame.viewport, across, upward);
        close(lines.get('line-screen-x')![0]!, sx, 1e-5);
        close(lines.get('line-screen-y')![0]!, sy, 1e-5);
        close(lines.get('line-depth')![0]!, e.toDepth(depth), 1e-5);
      }),
      { numRuns: runs(200) },
    );
  }, 60_000);

  it('of the matrices gives their entries', () => {
    fc.assert(
      fc.property(frames, conventions, (frame, c) => {
        const facts = factsOf(harbour, frame, c, [0, 0, 0]);
        const e = facts.codec;
        const view = e.matrix(frame, 'view');
        const t = checked('view', facts);
        ['x', 'y', 'z'].forEach((axis, i) => close(t.get(`line-t${axis}`)![0]!, view[4 * i + 3]!));
        const lens = checked('projection', facts);
        // NDC depth at a point ahead, by A and B, is the matrix's.
        const f = frame.near * 1.25 + 0.1;
        const { picture } = projectPoint(frame, viewRufToWorld(frame, [0, 0, f]));
        const [a, b] = [lens.get('line-A')![0]!, lens.get('line-B')![0]!];
        if (picture.ok) close(frame.kind === 'perspective' ? a + b / f : a + b * f, e.toNdc(picture.value)[2], 1e-9);
      }),
      { numRuns: runs(200) },
    );
  }, 60_000);

  it('of the way back and of the scale', () => {
    const routes = fc.constantFrom('depth' as const, 'ahead' as const, 'range' as const, 'plane' as const);
    fc.assert(
      fc.property(frames, picturePositions, routes, conventions, (frame, [x, y], route, c) => {
        const pixel: [number, number] = [((x + 1) / 2) * frame.viewport.width, ((1 - y) / 2) * frame.viewport.height];
        const back = { pixel, route, value: route === 'depth' ? 0.5 : frame.near + 20 };
        const facts = factsOf({ ...harbour, back }, frame, c, [1, 2, 3]);
        const lines = checked('back', facts);
        const found = pictureToWorld(frame, ...pixelToPicture(frame, pixel), depthChoiceOf(back));
        expect(lines.size > 0).toBe(found.ok);
        if (found.ok)
          facts.codec.toWorld(found.value).forEach((v, i) => close(lines.get(`line-point-${'xyz'[i]}`)![0]!, v, 1e-6));
        const chain = facts.chain;
        const k = checked('scale', facts);
        const seen = checked('seen', facts);
        if (chain.ok && seen.size) {
          const [w, h] = sizeAt(frame, chain.value.viewRuf[2]);
          close(seen.get('line-w')![0]!, w);
          close(seen.get('line-h')![0]!, h);
        }
        if (chain.ok && k.size) close(k.get('line-kx')![0]!, pixelsPerUnit(frame, chain.value.viewRuf[2])[0]);
      }),
      { numRuns: runs(200) },
    );
  }, 60_000);

  it('of a flat world: zoom, turn and translation, both ways', () => {
    const snaps = fc.constantFrom('none' as const, 'floor' as const, 'round' as const);
    const turns = fc.double({ min: -180, max: 180, noNaN: true });
    fc.assert(
      fc.property(conventions, turns, snaps, picturePositions, (c, rotation, snap, [x, y]) => {
        const back = { ...chart.back, pixel: [640 + 600 * x, 360 + 300 * y] as [number, number] };
        const project = { ...chart, back, camera: { ...flatCamera(chart), rotation, snap } };
        const e = codecOf(c);
        const made = projectFrame(project, e);
        if (!made.ok) throw new Error();
        const frame = made.value;
        const facts = factsOf(project, frame, c, [3, -1, 0]);
        const { chain } = facts;
        if (!chain.ok || !chain.value.picture.ok) throw new Error();
        const screen = e.toScreen(frame.viewport, chain.value.picture.value.across, chain.value.picture.value.upward);
        const lines = checked('flat', facts);
        ['x', 'y'].forEach((axis, i) => close(lines.get(`line-${axis}`)![0]!, screen[i as 0 | 1]));
        const found = pictureToWorld(frame, ...pixelToPicture(frame, back.pixel), { kind: 'ahead', ahead: 0 });
        if (!found.ok) throw new Error();
        const pair = e.toPair('up', [found.value[0], found.value[1]]);
        const ways = checked('flatBack', facts);
        ['x', 'y'].forEach((axis, i) => close(ways.get(`line-p${axis}`)![0]!, pair[i as 0 | 1]));
      }),
      { numRuns: runs(200) },
    );
  }, 60_000);

  it('of what lies off the picture, of how a pixel moves and of rectangles', () => {
    const places = fc.tuple(real(-60, 60), real(-60, 60), real(-60, 60));
    let [markers, rectangles] = [0, 0];
    fc.assert(
      fc.property(frames, places, conventions, (frame, local, c) => {
        const facts = factsOf(harbour, frame, c, local);
        const { chain, codec: e } = facts;
        if (!chain.ok) return;
        const { world, viewRuf } = chain.value;
        const onScreen = (pixel: readonly [number, number]) =>
          e.toScreen(frame.viewport, ...pixelToPicture(frame, pixel));
        const marker = edgeMarker(frame, world, markerInset);
        const edge = checked('edge', facts);
        expect(edge.size > 0).toBe(marker !== null);
        if (marker) {
          markers++;
          const bearing = e.fromAngle(edge.get('line-bearing')![0]!);
          [Math.cos(bearing), Math.sin(bearing)].forEach((v, i) => close(v, marker.direction[i]!, 1e-6));
          onScreen(marker.pixel).forEach((v, i) => close(edge.get(`line-marker-${'xy'[i]}`)![0]!, v, 1e-6));
        }
        const found = pixelDerivative(frame, world);
        const moved = checked('derivative', facts);
        if (found.ok && viewRuf[2] > 1e-6) {
          const size = Math.hypot(...found.value.x, ...found.value.y);
          const o = onScreen([0, 0]);
          ['x', 'y', 'z'].forEach((letter, i) => {
            const axis = e.fromWorld([i === 0 ? 1 : 0, i === 1 ? 1 : 0, i === 2 ? 1 : 0]);
            onScreen(pixelVelocity(found.value, axis)).forEach((v, row) => {
              const got = moved.get(`line-${'xy'[row]}-${letter}`)![0]!;
              expect(Math.abs(got - (v - o[row]!))).toBeLessThan(1e-8 * (1 + size));
            });
          });
        }
        const bounds = familyBounds(facts, 'marsh-hen');
        const drawn = checked('rectangle', facts, { body: 'marsh-hen' });
        expect(drawn.size > 0).toBe(bounds.ok);
        if (!bounds.ok) return;
        rectangles++;
        const corners = [bounds.value.min, bounds.value.max].map(([x, y]) => e.toScreen(frame.viewport, x, y));
        const scale = Math.max(...corners.flat().map(Math.abs));
        const [width, height] = [0, 1].map((i) => Math.abs(corners[1]![i]! - corners[0]![i]!));
        expect(Math.abs(drawn.get('line-width')![0]! - width!)).toBeLessThan(1e-8 * (1 + scale));
        expect(Math.abs(drawn.get('line-height')![0]! - height!)).toBeLessThan(1e-8 * (1 + scale));
        expect(Math.abs(drawn.get('line-left')![0]! - corners[0]![0])).toBeLessThan(1e-8 * (1 + scale));
      }),
      { numRuns: runs(200) },
    );
    expect(Math.min(markers, rectangles)).toBeGreaterThan(20);
  }, 60_000);

  it('of nodes: normals level by level, and the probe in another’s space', () => {
    const scales = fc.tuple(magnitude(0.2, 5), magnitude(0.2, 5), magnitude(0.2, 5));
    const turns = fc.tuple(real(-1, 1), real(-1, 1), real(-1, 1), real(0.1, 1));
    fc.assert(
      fc.property(frames, vectors(20), scales, turns, conventions, (frame, local, scale, turn, c) => {
        const rotation = normalizeQuat(turn)!;
        // A part of a part, each turned and scaled unequally.
        const parts = harbour.bodies.filter(({ id }) => id === 'shed' || id === 'lighthouse');
        const bodies = [
          { ...parts[0]!, id: 'a', parent: null, scale, rotation },
          { ...parts[0]!, id: 'b', parent: 'a', scale: [scale[2], scale[0], scale[1]], rotation },
          { ...parts[1]!, id: 'c', parent: null, rotation, scale },
        ] as unknown as Project['bodies'];
        const project = { ...harbour, bodies, probe: { ...harbour.probe, body: 'b' } };
        const own = placedOf(project);
        const e = codecOf(c);
        const facts = {
          ...{ project, frame, codec: e, placed: own, flat: false, roots: rootsOf(project.bodies) },
          chain: chainOf(frame, own.get('b')!, { rung: 'local', value: local }),
        };
        // The normal that the matrix gives is square to a surface that the model matrix carries
        // along.
        const lines = checked('normal', facts);
        const nine = lines.get('line-N')!;
        const rows = c.matrix.vectors === 'row';
        const n = (i: number, j: number) => (rows ? nine[3 * j + i]! : nine[3 * i + j]!);
        const model = e.toModel(own.get('b')!.toWorld);
        for (let i = 0; i < 3; i++)
          for (let j = 0; j < 3; j++) {
            const sum = [0, 1, 2].reduce((s, k) => s + n(k, i) * model[4 * k + j]!, 0);
            close(sum, i === j ? 1 : 0, 1e-7);
          }
        for (const node of ['a', 'c', null]) {
          const ways = checked('between', facts, { node });
          const there = e.toWorld(betweenNodes(own.get('b')!, node === null ? null : own.get(node)!, local));
          const last = ways.get(node === null ? 'line-world' : 'line-there')!;
          there.forEach((v, i) => close(last[i]!, v, 1e-6));
        }
      }),
      { numRuns: runs(200) },
    );
  }, 60_000);

  it('of the pointer’s way, step by step', () => {
    const way = fc.record({
      canvas: fc.tuple(real(-400, 400), real(-400, 400)),
      cssScale: magnitude(0.25, 4),
      framebufferScale: magnitude(0.25, 2),
      bars: fc.tuple(real(0, 300), real(0, 300), real(0, 300)),
    });
    const clients = fc.tuple(real(-500, 3000), real(-500, 3000));
    const frame = factsOfDemo(harbour, defaultConventions).frame;
    fc.assert(
      fc.property(way, clients, conventions, (given, client, c) => {
        const project = { ...harbour, pointer: { ...harbour.pointer, ...given } } as Project;
        const facts = factsOf(project, frame, c, [0, 0, 0]);
        const lines = checked('pointer', facts, { client });
        const [across, upward] = pointerSteps(pointerPath(project, c), client).picture;
        const ndc = facts.codec.toNdc({ across, upward, depth01: { near: 1, far: 0 } });
        [0, 1].forEach((i) => close(lines.get(`line-n-${'xy'[i]}`)![0]!, ndc[i]!, 1e-9));
      }),
      { numRuns: runs(200) },
    );
  }, 60_000);

  it('of edges of tiles on a flat screen, snapped and turned', () => {
    const turns = fc.constantFrom(0, 90, 180, -90);
    let found = 0;
    fc.assert(
      fc.property(
        conventions,
        turns,
        fc.constantFrom('none', 'floor', 'round'),
        vectors(60),
        (c, rotation, snap, at) => {
          const camera = { ...flatCamera(chart), rotation, snap, focus: [at[0], at[1]] };
          const project = { ...chart, camera } as Project;
          const facts = factsOfDemo(project, c);
          for (const axis of [0, 1] as const) {
            const edge = edgesAlong(facts, axis, 1)?.edges[0];
            const lines = checked('edges', facts, { axis });
            expect(lines.size > 0).toBe(edge !== undefined);
            if (!edge) continue;
            found++;
            close(lines.get('line-free')![0]!, edge.pixel);
            close(lines.get('line-snapped')![0]!, edge.snappedPixel);
            // The edge’s own pixel, by the projection itself.
            const world = axis ? [0, edge.at, 0] : [edge.at, 0, 0];
            const { picture } = projectPoint(facts.frame, world as unknown as [number, number, number]);
            if (!picture.ok) throw new Error();
            const screen = facts.codec.toScreen(facts.frame.viewport, picture.value.across, picture.value.upward);
            const own = edgesAlong(facts, axis, 1)!.screen;
            close(snap === 'none' ? edge.pixel : edge.snappedPixel, screen[own], 1e-6);
          }
        },
      ),
      { numRuns: runs(200) },
    );
    expect(found).toBeGreaterThan(100);
  }, 60_000);

  it('writes powers of ten as a product, and six digits for the eye', () => {
    expect([shortDigits(1.23456789), shortDigits(-2e-9), shortDigits(720), allDigits(1e21)]).toEqual([
      '1.23457',
      '-2\\cdot 10^{-9}',
      '720',
      '1\\cdot 10^{21}',
    ]);
    expect(evaluateTex('3-(-2\\cdot 10^{-1})')).toEqual([3.2]);
  });
});
