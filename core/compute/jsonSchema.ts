import { z } from 'zod';
import { requestSchema } from './schema';

/** The request as JSON Schema (draft 2020-12), made from the schema that requests are read with. */
export const requestJsonSchema = (): Record<string, unknown> => ({
  title: 'Astrolabe compute request',
  ...z.toJSONSchema(requestSchema, { io: 'input' }),
});
