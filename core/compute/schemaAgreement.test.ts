import Ajv2020, { type ValidateFunction } from 'ajv/dist/2020';
import fc from 'fast-check';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { presets } from '../conventions/conventions';
import { requests } from '../testing/requests';
import { seeded } from '../testing/seed';
import { dice, requestOf, shotBy } from '../testing/wrongEngine';
import { requestJsonSchema } from './jsonSchema';
import { readRequest } from './readRequest';

/* The written schema and the reader agree: 500 good requests and 500 broken ones, but for rules that no schema states. */

const validate: ValidateFunction = new Ajv2020({ strict: false, allErrors: false }).compile(requestJsonSchema());
const plain = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

/** What a schema cannot say: rules of several numbers, of ids, and of the request as a whole (docs/compute.md). */
const beyondSchemas = JSON.parse(
  /<!-- beyond the schema -->\s*```json\n([\s\S]*?)```/.exec(readFileSync('docs/compute.md', 'utf8'))![1]!,
) as string[];
const isBeyond = (message: string) => beyondSchemas.some((pattern) => new RegExp(pattern).test(message));

type Path = readonly (string | number)[];
/** All places of a JSON value. */
function places(value: unknown, path: Path = []): Path[] {
  if (typeof value !== 'object' || value === null) return [path];
  return [path, ...Object.entries(value).flatMap(([key, one]) => places(one, [...path, Array.isArray(value) ? Number(key) : key]))]; // prettier-ignore
}
/** A copy of a value, changed at a place. */
function changed(value: unknown, path: Path, change: (holder: Record<string | number, unknown>, key: string | number) => void): unknown {
  const copy = plain(value) as Record<string | number, unknown>;
  let holder = copy;
  for (const key of path.slice(0, -1)) holder = holder[key] as Record<string | number, unknown>;
  change(holder, path.at(-1)!);
  return copy;
} // prettier-ignore

const breakings = [
  (holder: Record<string | number, unknown>, key: string | number) => void (Array.isArray(holder) ? holder.splice(Number(key), 1) : delete holder[key]), // prettier-ignore
  (holder: Record<string | number, unknown>, key: string | number) => void (holder[key] = 'no such thing'),
  (holder: Record<string | number, unknown>, key: string | number) => void (holder[key] = { no: 'such thing' }),
  (holder: Record<string | number, unknown>, key: string | number) => void (holder[key] = null),
  (holder: Record<string | number, unknown>, key: string | number) => void (holder[key] = 1e300),
  (holder: Record<string | number, unknown>, key: string | number) => {
    const inner = holder[key];
    if (typeof inner === 'object' && inner !== null && !Array.isArray(inner))
      (inner as Record<string, unknown>)['noSuchKey'] = 1;
    else holder[key] = [[], []];
  },
];

/** Compares the two readers of a request; says nothing where they agree. */
function disagreement(request: unknown): string | null {
  const bySchema = validate(request);
  const read = readRequest(request);
  if (bySchema === read.ok) return null;
  if (!bySchema) return `the schema alone rejects: ${JSON.stringify(validate.errors?.[0])}`;
  const [first] = read.ok ? [] : read.problem.errors;
  return first && isBeyond(first.message) ? null : `the reader alone rejects: ${first?.path}: ${first?.message}`;
}

/** A few of the queries, others by each seed. */
const someOf = (queries: readonly object[], seed: number): readonly object[] =>
  queries.length ? [0, 1, 2, 3].map((k) => ({ ...queries[(7 * seed + 5 * k) % queries.length]!, id: `q${k}` })) : [];

/** A request with a proper camera and those of some queries that it can have. */
function goodRequest(base: object, queries: readonly object[]): unknown {
  const kept = queries.filter((query) => readRequest(plain({ ...base, queries: [query] })).ok);
  return plain({ ...base, queries: kept });
}

describe('the schema of requests', () => {
  it('agrees with the reader on 500 good requests', () => {
    for (let seed = 1; seed <= 500; seed++) {
      const [random] = fc.sample(requests, { numRuns: 1, seed: seeded(seed) }) as unknown as [{ queries: object[] }];
      const given = goodRequest(requestOf(shotBy(dice(seed)), []) as object, someOf(random.queries, seed));
      expect(readRequest(given).ok).toBe(true);
      expect(disagreement(given)).toBeNull();
    }
  });

  it('agrees with the reader on 500 broken requests', () => {
    let broken = 0;
    fc.assert(
      fc.property(requests, fc.nat(), fc.nat(breakings.length - 1), (request, at, how) => {
        const given = plain({ ...request, queries: someOf(request.queries, at) });
        const all = places(given).slice(1);
        const wrong = changed(given, all[at % all.length]!, breakings[how]!);
        expect(disagreement(wrong)).toBeNull();
        broken += Number(!readRequest(wrong).ok);
      }),
      { numRuns: 500 },
    );
    expect(broken).toBeGreaterThan(250);
  });

  it('takes presets, overrides and $schema, and rejects other names of them, as the reader does', () => {
    const bare = { astrolabe: 1, viewport: { width: 9, height: 9 }, camera: { position: [0, 0, 0], orientation: { yaw: 0, pitch: 0 }, projection: { kind: 'perspective', near: 1, far: null, verticalFov: 1 } }, queries: [] }; // prettier-ignore
    for (const [more, isGood] of [
      [{ conventions: 'Vulkan', $schema: 'x.json' }, true],
      [{ conventions: { preset: 'WebGPU', ndc: { near: 1, far: 0 } } }, true],
      [{ conventions: 'Vulcan' }, false],
      [{ conventions: { preset: 'Vulcan' } }, false],
      [{ conventions: { preset: 'Vulkan', world: { front: '+x' } } }, false],
    ] as const) {
      const given = { ...bare, ...more };
      expect([validate(given), readRequest(given).ok]).toEqual([isGood, isGood]);
    }
    const read = readRequest({ ...bare, conventions: { preset: 'WebGPU', ndc: { near: 1, far: 0 } } });
    expect(read.ok && read.request.conventions).toEqual({ ...presets.WebGPU, ndc: { ...presets.WebGPU.ndc, near: 1, far: 0 } });
  }); // prettier-ignore

  it('is below 150 kB, and describes every key', () => {
    expect(readFileSync('docs/compute.schema.json').length).toBeLessThan(150_000);
    const schema = requestJsonSchema() as { $defs: Record<string, { description?: string }> };
    const bare: string[] = [];
    const walk = (value: unknown, path: string): void => {
      if (typeof value !== 'object' || value === null) return;
      const { properties } = value as { properties?: Record<string, { description?: string; $ref?: string }> };
      for (const [key, one] of Object.entries(properties ?? {}))
        if (!one.description && !(one.$ref && schema.$defs[one.$ref.replace(/^.*\//, '')]?.description)) bare.push(`${path}.${key}`); // prettier-ignore
      for (const [key, one] of Object.entries(value)) walk(one, key === 'properties' ? path : `${path}.${key}`);
    };
    walk(schema, '');
    expect(bare).toEqual([]);
  });
});
