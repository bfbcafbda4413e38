import type { Vec2, Vec3 } from '../../../core/math/vec3';
import { grownOutlines } from '../../../core/spawn/region';
import { tintByte, type GpuLayer, type Marks, type PictureView, type Word } from '../../pictures/compose/contract';
import { n2, type Mark } from '../../pictures/compose/marks';
import { memo, remembered } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { Found } from './job';
import type { SpawnState } from './kept';
import { spawnMark, spawnsFirst, surfaceOf, termsNow, termsUsed, type NoTerms, type Terms } from './terms';

interface Derived {
  readonly used: Terms | NoTerms;
  readonly shown: Terms | NoTerms;
  readonly found: Found | null;
  readonly layers: readonly GpuLayer[];
}
let revision = 0;

/** In a flat world what is drawn on it lies over the layers of all bodies. */
const overAll = 0.93;
const raised = (p: Vec3, flat: boolean): Vec3 => (flat ? [p[0], p[1], overAll] : p);

const regionLayer = memo((terms: Terms, at: (p: Vec2) => Vec3, flat: boolean): GpuLayer | null => {
  const corners = terms.found?.region.triangles() ?? [];
  if (!corners.length) return null;
  const origin = raised(at(terms.middle), flat);
  const positions = new Float32Array(3 * corners.length);
  corners.forEach((corner, i) => {
    const p = raised(at(corner), flat);
    positions.set([p[0] - origin[0], p[1] - origin[1], p[2] - origin[2]], 3 * i);
  });
  return {
    key: 'region',
    kind: 'triangles',
    revision: ++revision,
    positions,
    origin,
    tint: 'region',
    opacity: 0.34,
    hatch: true,
  };
});

const revisionOf = remembered((found: Found) => (void found, ++revision));
/** The points as specks: seen ones in the fault’s tint, the rest by how soon they are seen. */
const pointLayer = memo((found: Found, slice: SpawnState, at: (p: Vec2) => Vec3, flat: boolean): GpuLayer => {
  const count = found.points.length / 2;
  const tints = Uint8Array.from({ length: count }, (_, i) =>
    tintByte(
      found.inView[i]
        ? 'fault'
        : Number.isNaN(found.seconds[i])
          ? 'outside'
          : found.seconds[i]! < slice.within / 4
            ? 'crosses'
            : 'inside',
    ),
  );
  const places = () => {
    const values = new Float32Array(4 * count);
    for (let i = 0; i < count; i++) {
      const p = raised(at([found.points[2 * i]!, found.points[2 * i + 1]!]), flat);
      values.set([...p, Math.max(slice.radius, 0)], 4 * i);
    }
    return values;
  };
  const at0 = revisionOf(found);
  return {
    key: 'points',
    kind: 'specks',
    revision: at0,
    tintRevision: at0,
    round: true,
    places,
    origin: [0, 0, 0],
    tints,
  };
});

const derived = memo((now: Moment<SpawnState>, found: Found | undefined): Derived => {
  const [used, shown] = [termsUsed(now), termsNow(now)];
  const own = found?.mark === spawnMark(now) ? found : null;
  const { at } = surfaceOf(now);
  const region = typeof used === 'string' ? null : regionLayer(used, at, now.flat);
  const points = own?.points.length ? pointLayer(own, now.slice, at, now.flat) : null;
  return { used, shown, found: own, layers: [region, points].filter((one) => one !== null) };
});

/** A circle of the surface as a line of a picture. */
const circle = (view: PictureView, at: (p: Vec2) => Vec3, [x, y]: Vec2, r: number): string =>
  view.line(Array.from({ length: 64 }, (_, i) => at([x + r * Math.cos((i * Math.PI) / 32), y + r * Math.sin((i * Math.PI) / 32)])), true); // prettier-ignore

/** What Spawn adds to the pictures. */
export const marks: Marks<SpawnState, Derived> = {
  derive: (now) => derived(now, now.answer<Found>('spawned')),

  standing(view, now, { used, shown, layers }) {
    if (view.name.startsWith('screen')) return {};
    const { slice } = now;
    const { at } = surfaceOf(now);
    const marks: Mark[] = [];
    const words: Word[] = [];
    const say = (text: string, p: Vec2, ink: Word['ink'], priority: number) => {
      const place = view.point(at(p));
      if (place) words.push({ text, at: place, ink, priority });
    };
    if (slice.region === 'bounds') {
      const [a, b] = [slice.min, slice.max];
      marks.push({ ink: 'region-edge', d: view.line([at(a), at([b[0], a[1]]), at(b), at([a[0], b[1]])], true) });
    }
    for (const { name, centre, distance } of slice.discs) {
      marks.push({ ink: 'second-reticle', d: circle(view, at, centre, distance) });
      say(name, centre, 'note', 12);
    }
    if (typeof shown !== 'string' && view.name !== 'camera')
      marks.push({ ink: 'frustum-line', d: view.line(shown.drawn.map(at), true) });
    if (typeof used !== 'string') {
      const { terms, middle } = used;
      if (spawnsFirst(slice) && slice.first.moved.some(Boolean)) say('region before the camera moves', [middle[0], middle[1]], 'note', 10); // prettier-ignore
      for (const outline of grownOutlines(terms.visible, terms.clearance))
        if (outline.kind === 'segment')
          marks.push({ ink: 'region-edge', d: view.line([at(outline.from), at(outline.to)]) });
        else if (terms.clearance > 0 && view.name !== 'camera')
          marks.push({ ink: 'path', d: circle(view, at, outline.centre, outline.radius) });
      if (slice.method === 'circle')
        for (const r of [slice.circle.inner, slice.circle.outer])
          marks.push({ ink: 'path', d: circle(view, at, middle, r) });
      if (used.found)
        say(
          `${Math.round(used.found.region.area).toLocaleString('en')} square ${now.project.unit}`,
          slice.region === 'bounds' ? [slice.min[0], slice.max[1]] : middle,
          'figure',
          9,
        );
      if (slice.sector) {
        const reach = Math.hypot(slice.max[0] - slice.min[0], slice.max[1] - slice.min[1]);
        for (const side of [-1, 1]) {
          const angle = slice.sector.heading + side * slice.sector.half;
          marks.push({
            ink: 'path',
            d: view.line([at(middle), at([middle[0] + reach * Math.sin(angle), middle[1] + reach * Math.cos(angle)])]),
          });
        }
      }
      const place = view.point(at(middle));
      if (place && view.name !== 'camera')
        marks.push({ ink: 'path-key', x: Number(n2(place[0])), y: Number(n2(place[1])), d: 'M0 -4L4 0 0 4 -4 0Z' });
    }
    return { marks, words, layers };
  },
};
