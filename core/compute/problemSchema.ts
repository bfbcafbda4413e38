import * as z from 'zod';

/** The schema of a problem document (RFC 9457). */
export const problemSchema = z.object({
  type: z.literal('about:blank'),
  title: z.string().describe('What kind of problem it is'),
  status: z.int().describe('The status of HTTP'),
  errors: z
    .array(
      z.object({
        path: z.string().describe('The key that is wrong, as `bodies[2].shape.radius`; empty for the document'),
        message: z.string().describe('What is wrong, with the number, and the fix'),
        code: z.string().optional().describe('A name of the problem, where it has one'),
      }),
    )
    .describe('The problems, the first hundred at most'),
  count: z.int().optional().describe('The number of problems, where not all are listed'),
});
