import * as z from 'zod';
import { billboardOperations } from '../billboard/operations';
import { frameOperations } from '../camera/operations';
import { conventionsOperations } from '../conventions/operations';
import { convertOperations } from '../convert/operations';
import { deriveOperations } from '../derive/operations';
import { diagnoseOperations } from '../diagnose/operations';
import { groundOperations } from '../ground/operations';
import { motionOperations } from '../motion/operations';
import { orderOperations } from '../order/operations';
import { pickOperations } from '../pick/operations';
import { precisionOperations } from '../precision/operations';
import { reprojectOperations } from '../reproject/operations';
import type { Operation } from '../request/operation';
import { spawnOperations } from '../spawn/operations';
import { visibilityOperations } from '../visibility/operations';

/** The operations of the compute interface, each defined beside its subject. */
export const operationTable = [
  ...frameOperations,
  ...convertOperations,
  ...pickOperations,
  ...visibilityOperations,
  ...billboardOperations,
  ...spawnOperations,
  ...groundOperations,
  ...orderOperations,
  ...motionOperations,
  ...diagnoseOperations,
  ...conventionsOperations,
  ...deriveOperations,
  ...precisionOperations,
  ...reprojectOperations,
] as const;

type Table = typeof operationTable;
export type OperationName = Table[number]['name'];

const operationsByName: ReadonlyMap<string, Operation> = new Map(
  operationTable.map((operation) => [operation.name, operation as unknown as Operation]),
);
/** Returns an operation by its name; undefined for an unknown one. */
export const operationNamed = (name: unknown): Operation | undefined => operationsByName.get(name as string);

type QuerySchema = Table[number]['query'];
/** The schema of any query. */
export const querySchema = z.discriminatedUnion(
  'op',
  operationTable.map(({ query }) => query) as unknown as [QuerySchema, ...QuerySchema[]],
);

/** A query as a request writes it. */
export type Query = z.input<typeof querySchema>;
export type QueryOf<Name extends OperationName> = Extract<Query, { op: Name }>;
type OperationOf<Name extends OperationName> = Extract<Table[number], { name: Name }>;
/** An answer as it is written, beside its id and name. */
export type AnswerOf<Name extends OperationName> = z.input<OperationOf<Name>['output']>;
