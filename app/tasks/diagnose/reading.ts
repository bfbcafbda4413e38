import type { ConventionCodec } from '../../../core/conventions/codec';
import { mat4 } from '../../../core/math/mat4';
import { largest } from '../../../core/compute/limits';
import type { CameraFrame } from '../../../core/camera/frame';
import type { ComputeRequest, Query, QueryOf } from '../../../core/compute/schema';
import { writeCamera } from '../../../core/compute/write';
import { cameraInSpace, expressCamera } from '../../../formats/camera';
import {
  linesOf,
  matrixRoles,
  printedByRows,
  printedDigits,
  readPasted,
  type MatrixRole,
  type PastedItem,
  type PastedRole,
} from '../../../formats/pasted';
import type { Project } from '../../../formats/project';
import { journeyAt, type Journey } from '../../state/journey';
import { memo } from '../../state/memo';
import type { Moment } from '../../state/moment';
import type { Correction, DiagnoseState } from './state';

/** Something that was read, as it is used. */
export interface Used {
  readonly item: PastedItem;
  readonly role: PastedRole;
  /** Whether a matrix's numbers are taken the other way than they stand. */
  readonly turned: boolean;
  readonly corrected: boolean;
  /** Why it is left out, where it is. */
  readonly why: string | null;
  /** Which line of the text it begins on, from 1. */
  readonly line: number;
}
type Given = QueryOf<'diagnose'>['given'];
/** What was pasted, as it is taken: null for nothing to diagnose. */
export interface Reading {
  readonly used: readonly Used[];
  readonly left: readonly { readonly from: number; readonly to: number }[];
  readonly given: Given | null;
  /** Digits that can be trusted, by how the numbers were printed. */
  readonly digits: number;
}

const isMatrix = (role: PastedRole): role is MatrixRole => (matrixRoles as readonly string[]).includes(role);
/** Roles that something of so many numbers can have. */
export function rolesFor({ kind, numbers }: PastedItem): readonly PastedRole[] {
  if (kind === 'matrix') return [...matrixRoles, 'unused'];
  if (kind === 'point') return ['point', 'unused'];
  return numbers.length === 3 ? ['world', 'screen', 'unused'] : numbers.length === 2 ? ['screen', 'unused'] : ['unused']; // prettier-ignore
}

const pasted = memo(readPasted);

/**
 * What is made of a pasted text with what was said of it. A matrix printed as a square is taken the
 * way its numbers tell; one whose numbers do not, as its neighbours are; anything else as listed.
 */
export const readingOf = memo((text: string, corrections: readonly Correction[], columns: boolean): Reading => {
  const { items, left } = pasted(text);
  const told = items.map((item) => printedByRows(item));
  const byRows = told.find((one) => one !== null) ?? null;
  const taken = new Set<MatrixRole>();
  const lineAt = linesOf(text);
  const used = items.map((item, i): Used => {
    const said = corrections.find(({ from }) => from === item.from);
    const role = said?.role && rolesFor(item).includes(said.role) ? said.role : item.role;
    const rows = item.square ? (told[i] ?? byRows) : null;
    const turned = said?.turned ?? (rows !== null && rows === columns);
    const line = lineAt(item.from);
    const base = { item, role, turned, corrected: Boolean(said), line };
    const wild = item.numbers.some((v) => !(Math.abs(v) <= largest));
    if (role === 'unused') return { ...base, why: null };
    if (wild) return { ...base, why: 'holds a number that is none, or beyond 1e30' };
    if (isMatrix(role) && taken.has(role)) return { ...base, why: 'another has this role' };
    if (isMatrix(role)) taken.add(role);
    return { ...base, why: null };
  });
  const points: NonNullable<Given['points']> = [];
  const inUse = (role: PastedRole) => used.filter((one) => one.role === role && !one.why);
  for (const { item } of inUse('point')) points.push(pointOf(item.numbers.slice(0, 3), item.numbers.slice(3)));
  const screens = inUse('screen');
  inUse('world').forEach(({ item }, i) => {
    const screen = screens[i];
    if (screen) points.push(pointOf(item.numbers, screen.item.numbers));
  });
  const given: Given = {};
  for (const { item, role, turned } of used.filter((one) => !one.why)) {
    if (!isMatrix(role)) continue;
    const m = item.numbers;
    given[role] = turned ? [0, 1, 2, 3].flatMap((r) => [0, 1, 2, 3].map((c) => m[4 * c + r]!)) : [...m];
  }
  if (points.length) given.points = points;
  // A place in the world is what was asked, to the last figure; where it came to is what was printed.
  const counts = used.filter(({ role, why }) => role !== 'unused' && role !== 'world' && !why);
  const digits = counts.length ? Math.min(...counts.map(({ item }) => printedDigits(item))) : 6;
  return { used, left, given: Object.keys(given).length ? given : null, digits };
});
function pointOf(world: readonly number[], [x = 0, y = 0, depth]: readonly number[]) {
  return {
    world: [world[0]!, world[1]!, world[2]!] as [number, number, number],
    screen: [x, y] as [number, number],
    ...(depth !== undefined && { depth }),
  };
}

/** What was pasted, as it is taken at a moment. */
export const readingNow = ({ slice, codec: e }: Moment<DiagnoseState>): Reading =>
  readingOf(slice.text, slice.corrections, e.listsColumns);

/** How many digits are trusted. */
export const digitsNow = ({ slice }: Moment<DiagnoseState>, reading: Reading): number => slice.digits ?? reading.digits;

/** What is asked, and by what it is known again. */
export interface Asked {
  readonly mark: string;
  /** Without a camera where the world is flat, or the camera cannot be: the numbers by themselves are asked alone. */
  readonly request: Omit<ComputeRequest, 'camera'> & Partial<Pick<ComputeRequest, 'camera'>>;
}

/** The camera that is meant, as a request says it: the project's own, or where its track has it. */
const meant = (camera: Project['camera'], moved: CameraFrame | null, e: ConventionCodec) =>
  moved ? writeCamera(moved, e) : expressCamera(cameraInSpace({ camera }), e);

/** Cameras that the engine may have used instead: the project's others, and this one a frame ago. */
function othersOf(cameras: Project['cameras'], journey: Journey | null, time: number, e: ConventionCodec) {
  const before = journey && time > 0 ? journeyAt(journey, Math.max(0, time - 1 / 60)) : null;
  return [
    ...(before?.ok ? [{ name: 'the frame before', camera: writeCamera(before.value, e) }] : []),
    ...cameras.flatMap((one) => (one.kind === '3d' ? [{ name: one.name, camera: expressCamera(one, e) }] : [])),
  ].slice(0, 64);
}

/** One object for as long as what it is made of is the same: for another a job is run anew. */
const askedFor = memo(
  (
    e: ConventionCodec,
    { width, height, devicePixelRatio }: Project['viewport'],
    camera: Project['camera'],
    cameras: Project['cameras'],
    /** Whether there is a camera in space that is meant. */
    held: boolean,
    moved: CameraFrame | null,
    journey: Journey | null,
    time: number,
    reading: Reading,
    digits: number,
    others: boolean,
  ): Asked | null => {
    const given = reading.given!;
    const alone = Object.keys(given).some((name) => name !== 'points');
    if (!held && !alone) return null;
    const queries = [
      ...(held
        ? [
            {
              ...{ id: 'the pasted numbers', op: 'diagnose', given, digits },
              others: others ? othersOf(cameras, journey, time, e) : [],
              ...(devicePixelRatio !== 1 && { devicePixelRatio }),
            },
          ]
        : []),
      ...(alone ? [{ id: 'the pasted numbers by themselves', op: 'identify', given, digits }] : []),
    ] as Query[];
    const request = {
      ...{ astrolabe: 1, conventions: e.conventions as Project['conventions'] },
      ...{ viewport: { x: 0, y: 0, width, height }, ...(held && { camera: meant(camera, moved, e) }), queries },
    } as Asked['request'];
    return { mark: JSON.stringify(request), request };
  },
);

/** The request that answers for the sheet; null where there is nothing to ask. */
export function askedNow(now: Moment<DiagnoseState>): Asked | null {
  const { project, codec: e, frame, rest, journey, time, slice } = now;
  const reading = readingNow(now);
  if (!reading.given) return null;
  const held = !now.flat && !now.seen.problems.length;
  const moved = frame === rest ? null : frame;
  const at = journey ? time : 0;
  return askedFor(e, project.viewport, project.camera, project.cameras, held, moved, journey, at, reading, digitsNow(now, reading), slice.others); // prettier-ignore
}

/** The given matrices for column vectors, and the points, as the core takes them. */
export function toldOf(given: Given, e: ConventionCodec, digits: number) {
  const { points = [], ...lists } = given;
  const read = Object.entries(lists).map(([name, list]) => [name, e.fromList(mat4(list as number[]))] as const);
  return {
    matrices: Object.fromEntries(read),
    points: points.map(({ world, screen, depth }) => ({ world, screen, depth: depth ?? null })),
    digits,
  };
}
