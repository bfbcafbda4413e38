import { defaultConventions } from '../core/conventions/conventions';
import { projectSchema, type Project, type Tone } from '../formats/project';
import { deckOutline } from './hull';
import type * as z from 'zod';

/*
 * The harbour chart of Saltmarrow: the same harbour seen as a flat world, x to the east and y to
 * the north in metres. Soundings are a map of square tiles.
 */

type Input = z.input<typeof projectSchema>;
type BodyInput = NonNullable<Input['bodies']>[number];
type Pair = readonly [number, number];

const at = ([x, y]: Pair): [number, number, number] => [x, y, 0];
const turned = (degrees: number): [number, number, number, number] => {
  const half = (degrees * Math.PI) / 360;
  return [0, 0, Math.sin(half), Math.cos(half)];
};

/** The rectangle between two corners. */
const rectangle = (id: string, name: string, tone: Tone, [x0, y0]: Pair, [x1, y1]: Pair): BodyInput => ({
  ...{ id, name, tone, fixed: true },
  position: at([(x0 + x1) / 2, (y0 + y1) / 2]),
  shape: { kind: 'box', size: [x1 - x0, y1 - y0, 1] },
});

/** A convex outline, counter-clockwise. */
const outline = (corners: readonly Pair[]): BodyInput['shape'] => ({
  kind: 'mesh',
  positions: corners.flatMap(at),
  indices: corners.slice(2).flatMap((_, i) => [0, i + 1, i + 2]),
});

/** A vessel's deck, her bow towards +x before she is turned. */
function vessel(id: string, name: string, where: Pair, heading: number, long: number, wide: number): BodyInput[] {
  return [
    {
      ...{ id, name, tone: 'dark' },
      shape: outline(deckOutline(long, wide)),
      position: at(where),
      rotation: turned(heading),
    },
    {
      ...{ id: `${id}-cabin`, name: `${name} cabin`, tone: 'white', parent: id },
      shape: { kind: 'box', size: [long * 0.42, wide * 0.62, 1] },
      position: at([-long * 0.06, 0]),
    },
  ];
}

/** A vessel whose hull goes through places at times: seconds, right, up. */
const underWay = ([hull, ...rest]: BodyInput[], way: readonly (readonly [number, number, number])[]): BodyInput[] => [
  {
    ...hull!,
    motion: { kind: 'path', axis: [0, 0, 1], keys: way.map(([time, x, y]) => ({ time, place: [x, y, 0] })) },
  },
  ...rest,
];

const buoy = (id: string, name: string, where: Pair): BodyInput => ({
  ...{ id, name, tone: 'roof', position: at(where) },
  shape: { kind: 'sphere', radius: 1.6 },
});

const bodies: BodyInput[] = [
  rectangle('breakwater', 'Breakwater', 'stone', [-74, 18.5], [-27.5, 23.5]),
  rectangle('mole', 'Lamp mole', 'stone', [-27.5, 13.5], [-14.5, 26.5]),
  rectangle('north-quay', 'North quay', 'stone', [3, 10], [33, 26]),
  rectangle('east-quay', 'East quay', 'stone', [33, -30], [48, 26]),
  rectangle('custom-house', 'Custom house', 'white', [-31, -43], [-11.8, -34]),
  rectangle('shed', 'Net shed', 'white', [6, 18], [14.5, 24.5]),
  {
    ...{ id: 'lighthouse', name: 'Lighthouse', tone: 'white', position: at([-21, 20]) },
    shape: { kind: 'sphere', radius: 3.9 },
  },
  {
    ...{ id: 'lamp', name: 'Lighthouse lamp', tone: 'glass', position: at([0, 0]), parent: 'lighthouse' },
    shape: { kind: 'sphere', radius: 1.5 },
  },
  ...vessel('marsh-hen', 'Ferry Marsh Hen', [2.5, -9], 28, 19, 6),
  ...vessel('tern', 'Ferry Tern', [-34.5, -4], 172, 15, 5),
  ...underWay(vessel('launch', 'Pilot launch', [-13, -73], 62, 9, 3.2), [
    [6, 2, -48],
    [13, -6, -27],
    [20, -30, -32],
    [28, -58, -56],
    [36, -32, -80],
    [40, -16, -79],
  ]),
  buoy('buoy-1', 'Buoy 1', [-7.4, -24]),
  buoy('buoy-2', 'Buoy 2', [14, -27.5]),
  buoy('buoy-3', 'Buoy 3', [-32, -20]),
  buoy('buoy-4', 'Fairway buoy', [-92, -88]),
  buoy('buoy-5', 'Bar buoy', [-44, -66]),
  {
    ...{ id: 'driftwood-1', name: 'Driftwood 1', tone: 'stone', position: at([-19, -12]), rotation: turned(35) },
    shape: { kind: 'box', size: [4, 0.6, 1] },
  },
  {
    ...{ id: 'driftwood-2', name: 'Driftwood 2', tone: 'stone', position: at([6, -48]), rotation: turned(100) },
    shape: { kind: 'box', size: [2.6, 0.6, 1] },
  },
];

const tile = 8;
const columns = 48;
const rows = 34;
const corner: [number, number] = [-208, -144];

/** The dredged way from the sea to the quays. */
const fairway: readonly Pair[] = [
  [-230, -120],
  [-92, -84],
  [-30, -56],
  [0, -14],
  [18, 0],
];

function offFairway([x, y]: Pair): number {
  return Math.min(
    ...fairway.slice(1).map(([bx, by], i) => {
      const [ax, ay] = fairway[i]!;
      const [dx, dy] = [bx - ax, by - ay];
      const t = Math.max(0, Math.min(1, ((x - ax) * dx + (y - ay) * dy) / (dx * dx + dy * dy)));
      return Math.hypot(x - ax - dx * t, y - ay - dy * t);
    }),
  );
}

/** Metres of water at low tide in the middle of a tile, to the tenth; null ashore. */
function sounding([x, y]: Pair): number | null {
  const east = 62 + 8 * Math.sin(y / 31 + 0.6) + 4 * Math.sin(y / 12 + 1) - x;
  const north = 92 + 9 * Math.sin(x / 43 + 2) + 4 * Math.sin(x / 17) - y;
  const shore = Math.min(east, north, Math.hypot(Math.max(0, east), Math.max(0, north)));
  if (shore < 0) return null;
  const slope = 0.3 + 11 * (1 - Math.exp(-shore / 95));
  const banks = 1.1 * Math.sin(x / 19 + y / 37) + 0.9 * Math.sin(x / 41 - y / 23 + 1);
  const dredged = 5.5 * Math.exp(-((offFairway([x, y]) / 15) ** 2));
  const seaward = Math.max(0, -x - 90) / 22;
  return Math.max(0.1, Math.round((slope + banks * Math.min(1, shore / 40) + dredged + seaward) * 10) / 10);
}

/**
 * The demo's flat project, new on every call: the harbour chart of Saltmarrow with the pilot launch
 * followed, at a zoom that is not whole.
 */
export function saltmarrowChart(id = 'saltmarrow-chart'): Project {
  const values = Array.from({ length: columns * rows }, (_, i) =>
    sounding([corner[0] + ((i % columns) + 0.5) * tile, corner[1] + (Math.floor(i / columns) + 0.5) * tile]),
  );
  return projectSchema.parse({
    astrolabeProject: 1,
    id,
    name: 'Saltmarrow chart',
    guide: 'chart',
    unit: 'metres',
    conventions: defaultConventions,
    viewport: { width: 1280, height: 720, devicePixelRatio: 2 },
    camera: { kind: '2d', name: 'The fairway', focus: [-13, -73], anchor: [640, 540], zoom: 4.8 },
    tiles: { name: 'soundings', corner, size: tile, columns, bands: [2, 5, 10], values },
    bodies,
    probe: { body: 'launch', drive: { rung: 'local', value: [0, 0, 0] } },
    pointer: { canvas: [24, 96] },
    back: { pixel: [812, 344], route: 'ahead', value: 0 },
  } satisfies Input);
}
