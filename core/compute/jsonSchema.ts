import * as z from 'zod';
import { requestSchema, responseSchema } from './schema';

/** Returns the request as JSON Schema (draft 2020-12), made from the schema that requests are read with. */
export function requestJsonSchema(): Record<string, unknown> {
  const schema = z.toJSONSchema(requestSchema, { io: 'input' });
  // A request that only asks `identify` may do without a camera, which its queries alone can tell.
  const required = schema.required?.filter((key) => key !== 'camera');
  return { title: 'Astrolabe compute request', ...schema, ...(required && { required }) };
}

/** Returns the response as JSON Schema (draft 2020-12), made from the schemas of the operations' answers. */
export const responseJsonSchema = (): Record<string, unknown> => ({
  title: 'Astrolabe compute response',
  ...z.toJSONSchema(responseSchema, { io: 'input' }),
});
