import { base64Of } from '../../../formats/base64';
import { imageProblems, pngSize, type ProjectImage } from '../../../formats/images';
import { tileSide, type ProjectBody } from '../../../formats/project';
import { probeBody } from '../../edits/actions';
import { bringIn } from '../../edits/bodies';
import { newId } from '../../state/crashLog';
import { currentProject, edit } from '../../state/document';
import { currentMoment } from '../../state/tempo';
import { jumpTo } from '../../sheet/Sections';
import { askFile } from '../../ui/files';
import { complain } from '../../ui/notices';

/* Images and sprites of a 2D project. */

/** Returns the side of a texel in world units, by the tiles. */
const texelSide = (): number => {
  const project = currentProject();
  return tileSide(project) / project.tile.texels;
};

/** Reads a PNG file as an image of the open project. Reports why it cannot be one, and returns null then. */
function readImage(name: string, bytes: Uint8Array): ProjectImage | null {
  const size = pngSize(bytes);
  const rejected = (message: string): null => {
    complain(`${name} was not opened, and nothing has changed.`, [{ path: '', message }]);
    return null;
  };
  if (!size) return rejected('It is not a PNG file, or it is cut off. Export it as PNG again.');
  const image = {
    id: newId(),
    name: name.replace(/\.png$/i, '') || 'Image',
    width: size[0],
    height: size[1],
    png: base64Of(bytes),
  };
  const [problem] = imageProblems([...currentProject().images, image]);
  return problem ? rejected(problem.message) : image;
}

/** Adds an image to the project as a sprite in the middle of the picture, one texel of a tile to a pixel. */
export function addSprite(name: string, bytes: Uint8Array): void {
  const { flat, frame } = currentMoment();
  if (!flat)
    return complain(`${name} was not opened, and nothing has changed.`, [
      { path: '', message: 'Images are sprites of 2D projects, and this project is 3D. Open a 2D project first.' },
    ]);
  const image = readImage(name, bytes);
  if (!image) return;
  const side = texelSide();
  const body: ProjectBody = {
    id: image.name,
    name: image.name,
    shape: { kind: 'quad', size: [image.width * side, image.height * side] },
    position: [frame.eye[0], frame.eye[1], 0],
    rotation: [0, 0, 0, 1],
    scale: [1, 1, 1],
    parent: null,
    castsShadow: true,
    tone: 'stone',
    fixed: false,
    handle: [0, 0, 0],
    motion: null,
    image: image.id,
    foot: [0, (-image.height * side) / 2, 0],
  };
  const [id] = bringIn([body], image.name, [image]);
  if (id !== undefined) probeBody(id);
  jumpTo('order-sprites');
}

/** Adds an image to the project, and draws a body with it at the size that the body has. */
export function chooseImageFor(body: string): void {
  askFile('image/png,.png', (file) => {
    void file.arrayBuffer().then((buffer) => {
      const image = readImage(file.name, new Uint8Array(buffer));
      if (image) setImage(body, image);
    });
  });
}

/** Asks for a PNG file and adds it as a sprite. */
export const chooseSprite = (): void =>
  askFile('image/png,.png', (file) => {
    void file.arrayBuffer().then((buffer) => addSprite(file.name, new Uint8Array(buffer)));
  });

/**
 * Draws a body with an image, which is added to the project if it is new, or with none. The body becomes a quad
 * of the size that it has.
 */
export function setImage(id: string, image: ProjectImage | null): void {
  const side = texelSide();
  edit(image ? 'set the image' : 'take away the image', (draft) => {
    const body = draft.bodies.find((one) => one.id === id)!;
    if (!image) return void delete body.image;
    if (!draft.images.some((one) => one.id === image.id)) draft.images.push(image);
    const { shape } = body;
    if (shape.kind === 'box') body.shape = { kind: 'quad', size: [shape.size[0], shape.size[1]] };
    else if (shape.kind !== 'quad') body.shape = { kind: 'quad', size: [image.width * side, image.height * side] };
    body.image = image.id;
  });
}

/** Sets the size of a sprite by how many pixels of its image a world unit is. Its foot stays at the same texel. */
export function setPixelsPerUnit(id: string, perUnit: number, gesture: string): void {
  edit(
    'change the pixels per unit',
    (draft) => {
      const body = draft.bodies.find((one) => one.id === id)!;
      const image = draft.images.find((one) => one.id === body.image);
      if (!image || body.shape.kind !== 'quad') return;
      const [width, height] = body.shape.size;
      body.shape.size = [image.width / perUnit, image.height / perUnit];
      if (body.foot)
        body.foot = [
          (body.foot[0] * image.width) / perUnit / width,
          (body.foot[1] * image.height) / perUnit / height,
          0,
        ];
    },
    gesture,
  );
}

/** Sets the point by which a body is sorted, in its own space; null for its origin. */
export function setFoot(id: string, foot: readonly [number, number] | null, gesture: string | null = null): void {
  edit(
    'move the foot',
    (draft) => {
      const body = draft.bodies.find((one) => one.id === id)!;
      if (foot) body.foot = [foot[0], foot[1], 0];
      else delete body.foot;
    },
    gesture,
  );
}

/** Returns the lowest point of a shape in the middle, in the body's own space: where most sprites stand. */
export function bottomOf(shape: ProjectBody['shape']): readonly [number, number] {
  switch (shape.kind) {
    case 'point':
      return [0, 0];
    case 'sphere':
      return [0, -shape.radius];
    case 'box':
    case 'quad':
      return [0, -shape.size[1] / 2];
    case 'mesh': {
      let lowest = Infinity;
      for (let i = 1; i < shape.positions.length; i += 3) lowest = Math.min(lowest, shape.positions[i]!);
      return [0, Number.isFinite(lowest) ? lowest : 0];
    }
  }
}

/** Removes the images that nothing is drawn with. */
export function removeUnusedImages(): void {
  edit('remove unused images', (draft) => {
    const used = new Set([...draft.bodies.map(({ image }) => image), ...(draft.tiles?.images ?? [])]);
    draft.images = draft.images.filter(({ id }) => used.has(id));
  });
}
