import { affineList, applyAffine, invertAffine, type Affine2d } from '../request/affine2d';
import type { Viewport } from '../camera/frame';
import type { ConventionCodec } from '../conventions/codec';
import { createEngine2d, type Engine2d } from '../diagnose/engine2d';
import { randomFrom } from '../math/random';
import type { Vec2 } from '../math/vec3';
import type { RequestCamera2d } from '../request/cameraSchema';
import type { VectorRow } from './vectorRows';

/* Test vectors of 2D cameras: what each kind asks for, and the right answers (`docs/deliver.md`). */

/** Screens that rows of `integerZoom` ask for, as shares of the viewport, and two usual ones. */
const screens = ({ width, height }: Viewport): readonly Vec2[] => [
  [width, height],
  [1920, 1080],
  [1024, 768],
  [width * 3, height * 2],
  [Math.ceil(width / 3), Math.ceil(height / 2)],
];

/** Factors of parallax layers that rows ask for. */
const factors = [0, 0.25, 0.5, 1, 1.5] as const;

/** Returns what an engine answers to a row; null for no answer. */
export function answer2d(
  engine: Engine2d,
  { kind, input }: Pick<VectorRow, 'kind' | 'input'>,
  codec: ConventionCodec,
): readonly number[] | null {
  const [p, q, r] = input as unknown as [number, number, number];
  const isByColumns = codec.listsColumns !== engine.isTransposed;
  const listed = (of: Affine2d | null) => of && affineList(of, isByColumns);
  switch (kind) {
    case 'worldToPixel':
      return listed(engine.worldToPixel);
    case 'pixelToWorld':
      return listed(engine.pixelToWorld);
    case 'worldToScreen':
      return engine.points && applyAffine(engine.points, [p, q]);
    case 'screenToWorld': {
      const back = engine.points && invertAffine(engine.points);
      return back && applyAffine(back, [p, q]);
    }
    case 'visible':
      return engine.visible;
    case 'integerZoom':
      return [engine.integerZoom([p, q])];
    case 'layer':
      return applyAffine(engine.layer(p), [q, r]);
    default:
      return null;
  }
}

/**
 * Returns the rows of a 2D camera: its two matrices, `count` points and as many pixels (every seventh off the
 * viewport), the visible rectangle, whole zooms for five screens, and points of parallax layers.
 *
 * @param seed - other seeds give other points
 */
export function rows2d(
  camera: RequestCamera2d,
  viewport: Viewport,
  codec: ConventionCodec,
  count: number,
  seed: number,
): VectorRow[] {
  const engine = createEngine2d({ camera, viewport, codec }, []);
  const roll = randomFrom(seed);
  const { x, y, width, height } = viewport;
  const pixelAt = (i: number): Vec2 => {
    const wide = i % 7 === 6 ? 1.6 : 0.48;
    return [x + width * (0.5 + wide * (2 * roll() - 1)), y + height * (0.5 + wide * (2 * roll() - 1))];
  };
  const toWorld = engine.points && invertAffine(engine.points);
  const worldAt = (i: number): Vec2 => (toWorld ? applyAffine(toWorld, pixelAt(i)) : [0, 0]);
  const list = <K extends VectorRow['kind']>(kind: K, name: string, inputs: readonly (readonly number[])[]) =>
    inputs.map((input, i) => ({ id: name && `${name} ${i + 1}`, kind, input }));
  const asked = [
    { id: 'worldToPixel', kind: 'worldToPixel' as const, input: [] },
    { id: 'pixelToWorld', kind: 'pixelToWorld' as const, input: [] },
    ...list(
      'worldToScreen',
      'point',
      Array.from({ length: count }, (_, i) => worldAt(i)),
    ),
    ...list(
      'screenToWorld',
      'back',
      Array.from({ length: count }, (_, i) => pixelAt(i)),
    ),
    { id: 'visible', kind: 'visible' as const, input: [] },
    ...list('integerZoom', 'screen', screens(viewport)),
    ...list('layer', 'layer', factors.flatMap((factor, i) => [i, i + 1].map((k) => [factor, ...worldAt(k)]))), // prettier-ignore
  ];
  return asked.map((row) => ({ ...row, expected: answer2d(engine, row, codec) }));
}
