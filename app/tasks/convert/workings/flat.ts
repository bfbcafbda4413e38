import { pixelToPicture, projectPoint } from '../../../../core/convert/project';
import type { Vec3 } from '../../../../core/math/vec3';
import type { ProjectCamera2d } from '../../../../formats/project';
import { edgesAlong } from '../../../state/tiles';
import { letters, type Facts, type WorkingBuilder } from '../../../working/builder';

/* Workings of a flat world. */

/** Zoom, turn and translation of a flat world on its screen: the two rows of zoom·R, and t. */
function flatRows({ frame, codec: e, project }: Facts) {
  const { zoom, rotation } = project.camera as ProjectCamera2d;
  const o = e.fromPair('up', [1, 0])[0];
  const p = e.fromPair('up', [0, 1])[1];
  const place = (world: Vec3) => {
    const { picture } = projectPoint(frame, world);
    if (!picture.ok) throw new Error('a flat world has no eye to be behind');
    return e.toScreen(frame.viewport, picture.value.across, picture.value.upward);
  };
  const t = place([0, 0, 0]);
  const [a, b] = [place([o, 0, 0]), place([0, p, 0])];
  return { zoom, rotation, t, rows: [0, 1].map((i) => [a[i]! - t[i]!, b[i]! - t[i]!] as const) };
}
/** screen = zoom·R·p + t. */
export const flat: WorkingBuilder = (facts, t) => {
  const { chain, codec: e } = facts;
  if (!chain.ok || facts.project.camera.kind !== '2d') return [];
  const { t: shift, rows, zoom } = flatRows(facts);
  const pair = e.toPair('up', [chain.value.world[0], chain.value.world[1]]);
  return [0, 1].map((i) => ({
    ...{ id: `line-${letters[i]}`, says: i === 0 ? 'screen = zoom·R·p + t' : '', name: letters[i]! },
    formula: `${t.number(zoom, 'zoom')}\\cdot (${rows[i]!.map((v, k) => `${t.term(v / zoom, 'turned')}\\cdot ${t.term(pair[k]!, 'probe')}`).join('+')})+${t.term(shift[i]!, 'focus')}`,
    result: [rows[i]![0] * pair[0] + rows[i]![1] * pair[1] + shift[i]!],
  }));
};

/**
 * p = R⁻¹·(pixel − t)/zoom: R is a turn, or a turn and a mirroring, and its inverse is its
 * transpose.
 */
export const flatBack: WorkingBuilder = (facts, t) => {
  const { codec: e, frame, project } = facts;
  if (project.camera.kind !== '2d') return [];
  const { t: shift, rows, zoom } = flatRows(facts);
  const at = e.toScreen(frame.viewport, ...pixelToPicture(frame, project.back.pixel));
  return [0, 1].map((i) => ({
    ...{ id: `line-p${letters[i]}`, says: i === 0 ? 'p = Rᵀ·(pixel − t) ÷ zoom' : '', name: `p_${letters[i]}` },
    formula: t.fraction(
      [0, 1]
        .map(
          (k) =>
            `${t.term(rows[k]![i]! / zoom, 'turned')}\\cdot (${t.number(at[k]!, 'pixel')}-${t.term(shift[k]!, 'focus')})`,
        )
        .join('+'),
      t.number(zoom, 'zoom'),
    ),
    result: [[0, 1].reduce((sum, k) => sum + ((rows[k]![i]! / zoom) * (at[k]! - shift[k]!)) / zoom, 0)],
  }));
};

/** An edge of the map on the screen: the first that is there, free and snapped. */
export const edges: WorkingBuilder = (facts, t, { axis }) => {
  if (facts.project.camera.kind !== '2d' || axis === undefined) return [];
  const found = edgesAlong(facts, axis, 1);
  const first = found?.edges[0];
  if (!found || !first) return [];
  const { zoom } = facts.project.camera;
  const { free, snapped, sense } = found;
  // In the world's own numbers, which may run against the canonical right or up.
  const own = facts.codec.toPair('up', [1, 1])[axis];
  const letter = 'xy'[found.screen]!;
  const line = (id: string, says: string, name: string, by: number, pixel: number) => ({
    ...{ id, says, name },
    formula: `${t.number(zoom, 'zoom')}\\cdot ${t.term(own * first.at, 'tiles')}\\cdot ${t.term(own * sense)}+${t.term(by, id === 'line-free' ? 'focus' : 'line-shift')}`,
    result: [pixel],
  });
  return [
    line('line-free', 'The first edge, with the translation as it is', `${letter}`, free, first.pixel),
    {
      ...{ id: 'line-shift', says: 'The translation in whole pixels', name: `t'_${letter}` },
      formula: found.rounding === 'round' ? `\\lfloor ${t.number(free, 'focus')}+0.5\\rfloor ` : `\\lfloor ${t.number(free, 'focus')}\\rfloor `, // prettier-ignore
      result: [snapped],
    },
    line('line-snapped', 'The same edge, snapped', `${letter}'`, snapped, first.snappedPixel),
  ];
};
