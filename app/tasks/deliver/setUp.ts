import type { Vec3 } from '../../../core/math/vec3';
import { writeCamera } from '../../../core/request/write';
import { answerPoint } from '../../../core/request/pointAnswers';
import {
  emitCode,
  emitExample,
  emitHarness,
  frameText,
  setUpOf,
  type Asked,
  type CodeFile,
  type CodeWish,
} from '../../../core/deliver/code';
import type { SetUp } from '../../../core/deliver/cameraSetup';
import { codePartsOf, type CodePart } from '../../../core/deliver/library';
import { visibleGround } from '../../../core/deliver/visibleGround';
import { cameraInSpace, coreViewport, expressCamera } from '../../../formats/camera';
import { camera2dNow } from '../../state/cameraNow';
import { remembered } from '../../state/memo';
import type { Moment } from '../../state/moment';
import { figure } from '../../ui/figures';
import type { DeliverState } from './kept';

/** Returns those of some parts that the camera of a world has. */
export const partsFor = ({ flat }: Pick<Moment, 'flat'>, parts: readonly CodePart[]): CodePart[] =>
  codePartsOf(flat).filter((part) => parts.includes(part));

/**
 * Returns the set-up that the code is of: the project's camera as it is written, or as its track has it. A
 * sentence where there is none.
 */
export function setUpNow(now: Omit<Moment, 'slice'>): SetUp | string {
  const { project, flat, frame, rest, codec: e, seen } = now;
  if (seen.problems.length) return seen.problems[0]!.message;
  if (flat) return { camera: camera2dNow(now), viewport: coreViewport(project), e };
  const camera = frame === rest ? expressCamera(cameraInSpace(project), e) : writeCamera(frame, e);
  const made = setUpOf(camera, coreViewport(project), e, visibleGround(frame, e));
  return made.ok ? made.value.setUp : made.problems[0]!.message;
}

/** How the code is wanted, as far as the language and the world can have it. */
export const wishOf = (now: Moment<DeliverState>): CodeWish => {
  const { language, number, naming, constants, parts } = now.slice;
  return { language, naming, constants, parts: partsFor(now, parts), number };
};

interface CodeNow {
  readonly file: CodeFile;
  /** A program that uses the code on the probe, with what the core has for it: written when it is asked for. */
  readonly example: () => string;
  /** What runs it over test vectors. */
  readonly harness: () => string;
}
/** The code, written once a moment for all who show it; a sentence where there is none. */
export const codeNow = remembered((now: Moment<DeliverState>): CodeNow | string => {
  const setUp = setUpNow(now);
  if (typeof setUp === 'string') return setUp;
  const wish = wishOf(now);
  return {
    file: emitCode(setUp, wish),
    example: () => emitExample(setUp, wish, askedNow(now, wish, frameText(setUp, wish))),
    harness: () => emitHarness(setUp, wish),
  };
});

const text = (v: readonly number[]) => `vec${v.length}(${v.map((one) => (one < 0 ? `-${-one}` : String(one === 0 ? 0 : one)).replace('e+', 'e')).join(', ')})`; // prettier-ignore

/** What the example asks: where the probe comes to, the ray back through it, and where it came from. */
function askedNow(now: Moment<DeliverState>, { parts }: CodeWish, frame: string): Asked[] {
  const { chain, codec: e, flat } = now;
  if (flat) return asked2dNow(now, parts, frame);
  const asked: Asked[] = [];
  if (!chain.ok) return [{ text: `view_projection_matrix(${frame})`, comment: null }];
  const point = e.toWorld(chain.value.world);
  const answer = answerPoint({ codec: e, frame: now.frame }, chain.value.world) as Record<string, unknown>;
  const screen = answer['screen'] as readonly number[] | null;
  const ahead = answer['ahead'] as number;
  const said = (list: readonly number[]) => list.map((v) => figure(v, 6).replace('−', '-')).join(', ');
  if (parts.includes('worldToScreen'))
    asked.push({ text: `world_to_screen(${frame}, ${text(point)})`, comment: screen ? `Expected: ${said([...screen, answer['depth'] as number, ahead])}, in front.` : `Expected: behind the eye, ${said([ahead])} ahead.` }); // prettier-ignore
  if (parts.includes('screenToWorld') && screen)
    asked.push({ text: `screen_to_world(${frame}, ${text(screen)}, ${text([ahead]).slice(5, -1)})`, comment: `Expected: ${said(point)}.` }); // prettier-ignore
  if (parts.includes('ray') && screen) asked.push({ text: `pixel_ray(${frame}, ${text(screen)})`, comment: 'Through the same pixel: origin and direction.' }); // prettier-ignore
  return asked.length ? asked : [{ text: `view_projection_matrix(${frame})`, comment: 'World to clip, as the conventions list it.' }]; // prettier-ignore
}

/** Returns what the example of a 2D camera asks: the probe's pixel and the way back, or the visible rectangle. */
function asked2dNow(
  { chain, codec: e, frame: seen }: Omit<Moment, 'slice'>,
  parts: readonly CodePart[],
  frame: string,
): Asked[] {
  const asked: Asked[] = [];
  const listed = (numbers: readonly number[]) => numbers.map((v) => figure(v, 6).replace('−', '-')).join(', ');
  if (chain.ok && chain.value.pixel.ok) {
    const { world } = chain.value;
    const point = e.toPair('up', [world[0], world[1]]);
    const screen = (answerPoint({ codec: e, frame: seen }, world) as { screen: readonly number[] }).screen;
    if (parts.includes('worldToScreen')) asked.push({ text: `world_to_screen(${frame}, ${text(point)})`, comment: `Expected: ${listed(screen)}.` }); // prettier-ignore
    if (parts.includes('screenToWorld')) asked.push({ text: `screen_to_world(${frame}, ${text(screen)})`, comment: `Expected: ${listed(point)}.` }); // prettier-ignore
  }
  if (parts.includes('visible')) asked.push({ text: `visible_bounds(${frame})`, comment: 'The least x and y that are visible, and the greatest.' }); // prettier-ignore
  return asked.length ? asked : [{ text: frame, comment: null }];
}

/** The camera as a compute request of its own: what test vectors are of. */
export function bareRequest(now: Omit<Moment, 'slice'>): object | string {
  const setUp = setUpNow(now);
  if (typeof setUp === 'string') return setUp;
  const { camera, viewport, e } = setUp;
  return { astrolabe: 1, conventions: e.conventions, viewport, camera, queries: [] };
}

/** The most bodies whose positions become rows of test vectors. */
const mostBodies = 32;

/** The camera as a compute request that asks for points of the project: the probe and the bodies. */
export function vectorRequest(now: Omit<Moment, 'slice'>): object | string {
  const bare = bareRequest(now);
  if (typeof bare === 'string') return bare;
  const { chain, codec: e, flat, placed } = now;
  const own = (p: Vec3): readonly number[] => (flat ? e.toPair('up', [p[0], p[1]]) : e.toWorld(p));
  const bodies = [...placed.values()].slice(0, mostBodies).map(({ toWorld: m }) => own([m[3]!, m[7]!, m[11]!]));
  const points = [...(chain.ok ? [own(chain.value.world)] : []), ...bodies];
  return { ...bare, queries: points.length ? [{ id: 'own', op: 'worldToScreen', points }] : [] };
}
