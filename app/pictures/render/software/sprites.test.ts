import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { emptyFlat } from '../../../../demo/empty';
import type { Project } from '../../../../formats/project';
import { momentOf } from '../../../state/moment';
import { packImages, type ImagePixels } from '../../compose/imageAtlas';
import { palettes } from '../../compose/palette';
import type { Picture } from '../../compose/picture';
import { Scene } from '../../compose/scene';
import { drawSoftware } from './softwareRenderer';

/** An image whose texels all differ: red by column, green by row; some are transparent. */
function image(
  id: string,
  width: number,
  height: number,
  isClear: (x: number, y: number) => boolean = () => false,
): ImagePixels {
  const data = new Uint8ClampedArray(4 * width * height);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      data.set([10 + 20 * x, 10 + 20 * y, 77, isClear(x, y) ? 0 : 255], 4 * (y * width + x));
  return { id, width, height, data };
}

/** Draws a 2D project in a viewport of 64 × 48 pixels, one canvas pixel to each. */
function draw(project: Project, images: readonly ImagePixels[]) {
  const { roots, poses, frame, flat, sceneBounds } = momentOf(project, 0);
  const scene = new Scene();
  scene.take(project.bodies, roots, sceneBounds.centre, flat, null, packImages(images));
  const picture: Picture = {
    name: 'camera',
    style: 'main',
    rect: { x: 0, y: 0, width: 64, height: 48 },
    frame,
    poses,
    ground: null,
    emphasis: null,
    light: [0, 0, 1],
    layers: [],
    tints: null,
    painting: null,
    flat: { tiles: project.tiles, step: scene.step },
  };
  const drawn = drawSoftware(scene, { gridStep: 1 }, [picture], palettes.paper, { width: 64, height: 48 }, 1);
  return (x: number, y: number) => [...drawn.data.slice(4 * (y * 64 + x), 4 * (y * 64 + x) + 3)];
}

const base: Project = {
  ...emptyFlat('p'),
  viewport: { width: 64, height: 48, devicePixelRatio: 1 },
};
const sprite = (id: string, position: [number, number, number], size: [number, number]): Project['bodies'][number] => ({
  id,
  name: id,
  shape: { kind: 'quad', size },
  position,
  rotation: [0, 0, 0, 1],
  scale: [1, 1, 1],
  parent: null,
  castsShadow: true,
  tone: 'stone',
  fixed: false,
  handle: [0, 0, 0],
  motion: null,
  image: id,
});
const camera = (zoom: number): Project['camera'] => ({
  kind: '2d',
  id: 'camera',
  name: 'Camera',
  focus: [0, 0],
  anchor: [0, 0],
  zoom,
  rotation: 0,
  snap: 'none',
});

describe('sprites', () => {
  it('show the texel of their image at every pixel, mirrored by a negative scale', () => {
    const sizes = fc.record({ width: fc.integer({ min: 1, max: 6 }), height: fc.integer({ min: 1, max: 6 }), zoom: fc.integer({ min: 1, max: 4 }), isMirrored: fc.boolean() }); // prettier-ignore
    fc.assert(
      fc.property(sizes, ({ width, height, zoom, isMirrored }) => {
        const body = sprite('a', [width / 2 + 1, -height / 2 - 2, 0], [width, height]);
        const project = { ...base, camera: camera(zoom), bodies: [isMirrored ? { ...body, scale: [-1, 1, 1] } : body] };
        const at = draw(project as Project, [image('other', 3, 9), image('a', width, height)]);
        for (let y = 0; y < height * zoom; y++)
          for (let x = 0; x < width * zoom; x++) {
            const column = isMirrored ? width - 1 - Math.floor(x / zoom) : Math.floor(x / zoom);
            const row = Math.floor(y / zoom);
            expect(at(zoom + x, 2 * zoom + y)).toEqual([10 + 20 * column, 10 + 20 * row, 77]);
          }
      }),
      { numRuns: 30 },
    );
  });

  it('let what is behind them show through clear texels', () => {
    const bodies = [sprite('a', [2, -2, 0], [4, 4]), sprite('b', [2, -2, 0], [4, 4])];
    const at = draw({ ...base, camera: camera(4), bodies }, [
      image('a', 4, 4),
      image('b', 2, 2, (x, y) => x === 0 && y === 1),
    ]);
    expect(at(1, 1)).toEqual([10, 10, 77]);
    expect(at(9, 1)).toEqual([30, 10, 77]);
    // The lower left quarter of the upper sprite is clear: texel (0, 3) of the lower one.
    expect(at(1, 13)).toEqual([10, 70, 77]);
  });

  it('cover one another by the list, or by their feet where the project says so', () => {
    const upper = { ...sprite('a', [2, -2, 0], [4, 4]), foot: [0, -4, 0] as [number, number, number] };
    const bodies = [upper, sprite('b', [2, -2, 0], [4, 4])];
    const images = [image('a', 4, 4), image('b', 2, 2)];
    const project = { ...base, camera: camera(4), bodies };
    // The middle of the right half: texel (1, 0) of b, texel (2, 1) of a.
    expect(draw(project, images)(9, 5)).toEqual([30, 10, 77]);
    expect(draw({ ...project, bodyOrder: 'feet' }, images)(9, 5)).toEqual([50, 30, 77]);
  });

  it('draw tiles with images by their values, and leave others to the tones of their bands', () => {
    const tiles: Project['tiles'] = {
      name: 'map',
      corner: [0, -4],
      size: 2,
      columns: 2,
      bands: [],
      values: [1, 0, 5, null],
      images: ['a', 'b'],
    };
    const at = draw({ ...base, camera: camera(4), tiles }, [image('a', 2, 2), image('b', 2, 2)]);
    // The lowest row comes first: at the bottom, b and a; above them a plain tile and land.
    expect(at(1, 9)).toEqual([10, 10, 77]);
    expect(at(7, 15)).toEqual([30, 30, 77]);
    expect(at(9, 15)).toEqual([10, 30, 77]);
    expect(at(4, 4)[2]).not.toBe(77);
    expect(at(12, 4)[2]).not.toBe(77);
  });
});

describe('packed images', () => {
  it('keep every image apart from the others', () => {
    const size = fc.integer({ min: 1, max: 1024 });
    const list = fc.array(fc.tuple(size, fc.integer({ min: 1, max: 40 })), { minLength: 1, maxLength: 12 });
    fc.assert(
      fc.property(list, (sizes) => {
        const images = sizes.map(([width, height], i) => {
          const data = new Uint8ClampedArray(4 * width * height).fill(i + 1);
          return { id: `image ${i}`, width, height, data };
        });
        const atlas = packImages(images)!;
        images.forEach(({ id, width, height }, i) => {
          const [left, top, w, h] = atlas.rectangles[atlas.indexById.get(id)!]!;
          expect([w, h]).toEqual([width, height]);
          for (let row = top; row < top + h; row++) {
            const bytes = atlas.data.subarray(4 * (row * atlas.width + left), 4 * (row * atlas.width + left + w));
            expect(bytes.every((byte) => byte === i + 1)).toBe(true);
          }
        });
      }),
      { numRuns: 20 },
    );
    expect(packImages([])).toBeNull();
  });
});
