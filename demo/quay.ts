import type * as z from 'zod';
import { defaultConventions } from '../core/conventions/conventions';
import { projectSchema, type Project } from '../formats/project';
import { quayImages } from './quayImages';

/*
 * The fish quay of Saltmarrow as a game of sprites: a world in texels, y down from its upper left corner, seen by a
 * camera that follows a fisher.
 */

type Input = z.input<typeof projectSchema>;
type BodyInput = NonNullable<Input['bodies']>[number];
type ImageId = (typeof quayImages)[number]['id'];

const tile = 16;
const [columns, rows] = [44, 28];
const tileImages = ['water-1', 'water-2', 'planks', 'cobbles-1', 'cobbles-2', 'wall', 'grass'] as const satisfies ImageId[]; // prettier-ignore
const valueOf = (id: (typeof tileImages)[number]): number => tileImages.indexOf(id);

/** The image of a tile, counted from the upper left. */
function tileAt(column: number, row: number): (typeof tileImages)[number] {
  const isOdd = (column * 7 + row * 13) % 5 < 2;
  if (column >= 26 && column < 30 && row >= 14 && row < 23) return 'planks';
  if (row < 3) return 'grass';
  if (row < 14) return isOdd ? 'cobbles-2' : 'cobbles-1';
  return row === 14 ? 'wall' : isOdd ? 'water-2' : 'water-1';
}

const imageById = new Map(quayImages.map((image) => [image.id as string, image]));

/** A sprite whose foot, the middle of its lower edge, is at a place: texels right and down. */
function sprite(id: string, name: string, image: ImageId, [x, y]: readonly [number, number]): BodyInput {
  const { width, height } = imageById.get(image)!;
  return {
    id,
    name,
    image,
    shape: { kind: 'quad', size: [width, height] },
    position: [x, height / 2 - y, 0],
    foot: [0, -height / 2, 0],
  };
}

/** A sprite that walks: seconds, then its foot. It sets out from the first place and comes back to it. */
function walking(body: BodyInput, places: readonly (readonly [time: number, x: number, y: number])[]): BodyInput {
  const lift = -body.foot![1];
  const key = (time: number, x: number, y: number) => ({ time, place: [x, lift - y, 0] as [number, number, number] });
  return {
    ...body,
    motion: { kind: 'path', turns: false, axis: [0, 0, 1], keys: places.map((place) => key(...place)) },
  };
}

/** Sprites of one image, numbered from 1. */
const several = (
  id: string,
  name: string,
  image: ImageId,
  places: readonly (readonly [number, number])[],
): BodyInput[] => places.map((place, i) => sprite(`${id}-${i + 1}`, `${name} ${i + 1}`, image, place));

const bodies: BodyInput[] = [
  sprite('net-shed', 'Net shed', 'shed', [176, 150]),
  sprite('ice-house', 'Ice house', 'shed', [540, 128]),
  ...several('pine', 'Pine', 'pine', [
    [40, 46],
    [88, 40],
    [260, 44],
    [330, 38],
    [404, 46],
    [470, 40],
    [640, 44],
  ]),
  ...several('lamp', 'Lamp post', 'lamp', [
    [72, 214],
    [292, 214],
    [372, 214],
    [624, 214],
  ]),
  ...several('crate', 'Crate', 'crate', [
    [232, 140],
    [250, 148],
    [238, 156],
    [488, 132],
    [456, 330],
  ]),
  ...several('barrel', 'Barrel', 'barrel', [
    [120, 148],
    [108, 156],
    [596, 130],
  ]),
  ...several('bollard', 'Bollard', 'bollard', [
    [110, 222],
    [200, 222],
    [400, 222],
    [520, 222],
    [426, 360],
    [470, 360],
  ]),
  sprite('boat-1', 'Boat Sea Pea', 'boat', [376, 300]),
  sprite('boat-2', 'Boat Winkle', 'boat', [520, 340]),
  walking(sprite('fisher', 'Fisher', 'fisher', [262, 196]), [
    [3, 200, 182],
    [4.5, 128, 176],
    [6, 92, 130],
    [7.5, 128, 84],
    [9.5, 236, 84],
    [11, 280, 120],
    [13, 330, 196],
    [15, 438, 208],
    [18, 444, 344],
    [20, 444, 344],
    [23, 438, 208],
    [26, 262, 196],
  ]),
  walking(sprite('keeper', 'Harbour keeper', 'keeper', [500, 160]), [
    [6, 580, 160],
    [8, 580, 176],
    [14, 420, 176],
    [20, 500, 160],
  ]),
  ...several('gull', 'Gull', 'gull', [
    [244, 136],
    [424, 352],
    [336, 204],
  ]),
];

/** Creates the 2D demo of sprites: the fish quay of Saltmarrow. */
export function saltmarrowQuay(id = 'saltmarrow-quay'): Project {
  const values = Array.from({ length: columns * rows }, (_, i) =>
    valueOf(tileAt(i % columns, rows - 1 - Math.floor(i / columns))),
  );
  return projectSchema.parse({
    astrolabeProject: 1,
    id,
    name: 'Saltmarrow quay',
    guide: 'quay',
    unit: 'texels',
    conventions: { ...defaultConventions, world: { right: '+x', up: '-y', forward: '-z' } },
    viewport: { width: 1280, height: 720, devicePixelRatio: 1 },
    camera: { kind: '2d', name: 'After the fisher', focus: [262, -190], anchor: [640, 360], zoom: 4, snap: 'round' },
    tiles: { name: 'tile', corner: [0, -rows * tile], size: tile, columns, values, images: [...tileImages] },
    tile: { size: tile, texels: 16 },
    images: quayImages.map((image) => ({ ...image })),
    bodyOrder: 'feet',
    bodies,
    probe: { body: 'fisher', drive: { rung: 'local', value: [0, -10, 0] } },
    back: { pixel: [812, 344], route: 'ahead', value: 0 },
  } satisfies Input);
}
