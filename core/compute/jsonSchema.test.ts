import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { requestJsonSchema } from './jsonSchema';

it('the schema in docs/ is the one in force (npm run docs writes it)', () => {
  const kept = JSON.parse(readFileSync('docs/compute.schema.json', 'utf8')) as unknown;
  expect(kept).toEqual(JSON.parse(JSON.stringify(requestJsonSchema())));
});
