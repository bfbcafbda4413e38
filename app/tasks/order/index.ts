import { isPng } from '../../../formats/images';
import { OrderSheet } from './Sheet';
import type { Vec3 } from '../../../core/math/vec3';
import type { HandleSpec } from '../../pictures/page/handles';
import type { Task } from '../task';
import { change, followFirst, followHit, layRing, toggleGhosts } from './edits';
import { finds } from './finds';
import { help } from './help';
import type { OrderState } from './kept';
import { addSprite, chooseSprite } from './sprites';
import { saveThree, Three } from './Three';
import { tries } from './tries';

type Corner = [number, number, number];
const drawings = ['plan', 'section', 'outside'];

const order: Task<OrderState> = {
  Sheet: OrderSheet,
  corner: 'order/three',
  panes: [
    {
      ...{ name: 'three', title: 'Three ways', sub: 'of one face' },
      ...{ Content: Three, save: saveThree, place: 'row', world: 'space' },
    },
  ],
  commands: [
    { name: 'Lay three spars in a ring', run: layRing },
    { name: 'Show or hide ghosts and streaks', run: toggleGhosts, world: 'space' },
    { name: 'Follow the polygon that Order begins with', run: followFirst, world: 'space' },
    {
      name: 'Show or hide shadows',
      run: () => change('show or hide the shadows', (draft) => void (draft.shadows = !draft.shadows)),
      world: 'space',
    },
    { name: 'Add a sprite from a PNG', run: chooseSprite, world: 'flat' },
    {
      name: 'Paint with a depth buffer again',
      run: () => change('change how bodies are painted', (draft) => void (draft.paint = 'depth')),
    },
  ],
  accepts: [
    {
      says: 'an image as a sprite',
      accepts: ({ bytes }) => isPng(bytes),
      take: ({ name, bytes }) => addSprite(name, bytes),
    },
  ],
  keys: [{ key: 'g', says: 'shows or hides ghosts and streaks', run: toggleGhosts }],
  finds,
  help,
  tries,
  workings: {
    titles: {
      cut: 'Where near cuts an edge',
      signedArea: 'The signed area on the screen',
      horizonPitch: 'The pitch at which the horizon leaves the picture',
      shadow: 'The shadow of the probe',
      equalAngles: 'The probe by equal angles',
    },
    load: () => import('./workings'),
    sources: {
      corners: 'the corners',
      light: 'the light',
      receiver: 'the receiver',
    },
  },
  handles: ({ slice, flat }, picture) => {
    if (flat || !drawings.includes(picture)) return [];
    const { followed, light } = slice;
    // In the plan and in the section a corner moves in that drawing’s own plane.
    const corners =
      followed.kind === 'polygon'
        ? followed.corners.map((at, i): HandleSpec<OrderState> => ({
            ...{ id: `corner ${i + 1}`, name: `corner ${i + 1}`, picture, at },
            move: ([x, y, z], edit) =>
              edit('move a corner', (draft) => {
                if (draft.followed.kind === 'polygon') draft.followed.corners[i] = [x, y, z] as Corner;
              }),
          }))
        : [];
    const lamp: HandleSpec<OrderState>[] =
      light.kind === 'lamp' && slice.shadows
        ? [
            {
              ...{ id: 'lamp', name: 'the lamp', picture, at: light.at as Vec3 },
              move: ([x, y, z], edit) =>
                edit('move the lamp', (draft) => void (draft.light = { kind: 'lamp', at: [x, y, z] })),
            },
          ]
        : [];
    return [...corners, ...lamp];
  },
  onHit: followHit,
};
export default order;
