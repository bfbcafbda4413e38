import type { PlacedBody, Shape } from '../../core/bodies/body';
import { remembered } from './memo';

/*
 * Large meshes as flat arrays: what is told to another thread, or kept, then costs a copy of memory
 * in the place of a walk over millions of numbers. The document holds lists; they are packed at its
 * borders.
 */

type Mesh = Extract<Shape, { kind: 'mesh' }>;

/** With fewer indices than this a list is as good. */
const fewest = 3000;

const packMesh = remembered((shape: Mesh): Mesh => ({
  ...shape,
  // The flat arrays are read like lists, by their length and by index, until they are unpacked.
  positions: Float64Array.from(shape.positions) as unknown as Mesh['positions'],
  indices: Uint32Array.from(shape.indices) as unknown as Mesh['indices'],
}));
/** A shape as it is told: the same object for the same shape. */
export const packShape = <S extends Shape>(shape: S): S =>
  shape.kind === 'mesh' && shape.indices.length > fewest && Array.isArray(shape.indices)
    ? (packMesh(shape) as S)
    : shape;

const unpackMesh = remembered((shape: Mesh): Mesh => ({ ...shape, positions: Array.from(shape.positions), indices: Array.from(shape.indices) })); // prettier-ignore
/** The same shape with lists: the inverse of `packShape`. */
export const unpackShape = <S extends Shape>(shape: S): S =>
  shape.kind === 'mesh' && !Array.isArray(shape.indices) ? (unpackMesh(shape) as S) : shape;

/** A body, or whatever has a shape, with another; itself where that is the same. */
const reshaped = <B extends { readonly shape: Shape }>(body: B, shape: Shape): B =>
  shape === body.shape ? body : { ...body, shape };

type Bodies = readonly { readonly shape: Shape }[];
const packBody = remembered((body: Bodies[number]) => reshaped(body, packShape(body.shape)));
const packBodies = remembered((bodies: Bodies): Bodies => bodies.map(packBody));
const unpackBody = remembered((body: Bodies[number]) => reshaped(body, unpackShape(body.shape)));
const unpackBodies = remembered((bodies: Bodies): Bodies => bodies.map(unpackBody));

const hasBodies = (project: unknown): project is { readonly bodies: Bodies } =>
  typeof project === 'object' && project !== null && Array.isArray((project as { bodies?: unknown }).bodies);
/** Whether every body has a shape to look at: what was kept by who knows whom is left as it is. */
const known = (bodies: Bodies): boolean => bodies.every((body) => typeof body?.shape === 'object' && body.shape !== null); // prettier-ignore

/** A project as it is kept; what is the same in two of them is the same object in both. */
export const packProject = <P>(project: P): P =>
  hasBodies(project) && known(project.bodies) ? { ...project, bodies: packBodies(project.bodies) } : project;
/** The project that was kept. */
export const unpackProject = <P>(project: P): P =>
  hasBodies(project) && known(project.bodies) ? { ...project, bodies: unpackBodies(project.bodies) } : project;

const packPlaced = remembered((one: PlacedBody): PlacedBody => {
  const shape = packShape(one.body.shape);
  return shape === one.body.shape ? one : { ...one, body: { ...one.body, shape } };
});
/** Placed bodies as they are told to a worker; the same list for the same list. */
export const packPlacedList = remembered((list: readonly PlacedBody[]): readonly PlacedBody[] => list.map(packPlaced));
/** What the worker was told, with lists. */
export const unpackPlacedList = (list: readonly PlacedBody[]): readonly PlacedBody[] =>
  list.map((one) => {
    const shape = unpackShape(one.body.shape);
    return shape === one.body.shape ? one : { ...one, body: { ...one.body, shape } };
  });
