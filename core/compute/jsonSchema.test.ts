import { readFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { requestJsonSchema, responseJsonSchema } from './jsonSchema';
import { operationReference } from './reference';

const read = (file: string): string => readFileSync(`docs/${file}`, 'utf8');

it.each([
  ['compute.schema.json', requestJsonSchema],
  ['compute.answers.schema.json', responseJsonSchema],
])('docs/%s is the schema in force (npm run docs writes it)', (file, schema) => {
  expect(JSON.parse(read(file))).toEqual(JSON.parse(JSON.stringify(schema())));
});

it('docs/compute.md has the reference of the operations in force (npm run docs writes it)', () => {
  // The formatter aligns the columns of tables.
  const squeezed = (text: string): string => text.replace(/ +/g, ' ').replace(/-{3,}/g, '---').replace(/\s+\n/g, '\n');
  const [, written] = /<!-- operations -->([^]*)<!-- end of operations -->/.exec(read('compute.md'))!;
  expect(squeezed(written!).trim()).toBe(squeezed(operationReference()).trim());
});
