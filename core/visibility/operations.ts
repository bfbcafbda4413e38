import * as z from 'zod';
import { listOf, positive } from '../quantities/numbers';
import { chosen, costOfBodies, failure, ids, lengthOf, once, operation } from '../request/operation';
import { body, input, list, reason, output, plane, planeName } from '../request/values';
import { apparentSize, distanceForSize, visibilityBy } from './size';
import { pictureBounds, shadowVisibility, visibility } from './visibility';

/** Looks at a body that a test of bodies costs. */
const looks = 20;
const count = () => z.int();
const countOf = <Verdict>(found: readonly { readonly verdict: Verdict }[], verdict: Verdict): number =>
  found.filter((one) => one.verdict === verdict).length;

export const visibilityOperations = [
  operation('visibility', {
    summary:
      'Tests bodies against the frustum. `exact` is the true geometric answer: a body is outside if it has no point in common with the frustum, even where no single plane rejects it. `planes` is the customary conservative test. A body that touches the frustum crosses it.',
    input: {
      bodies: ids(),
      margin: input.number().default(0).describe('Pixels added around the viewport'),
      method: z.enum(['exact', 'planes']),
    },
    output: {
      bodies: list(
        z.object({
          body: body(),
          verdict: z.enum(['inside', 'crosses', 'outside']),
          rejectedBy: list(planeName(), 'Planes with the whole body on their outer side'),
        }),
      ),
      counts: z.object({ inside: count(), crosses: count(), outside: count() }),
    },
    cost: costOfBodies(looks),
    run: ({ bodies, margin, method }, setup) => {
      const { frame, world } = setup;
      const { width, height } = frame.viewport;
      if (!(Math.min(width, height) + 2 * margin > 0))
        return failure(
          'viewportEmpty',
          `A margin of ${margin} leaves nothing of a viewport of ${width} × ${height}. Raise it.`,
        );
      return chosen(setup, bodies, (placed) => {
        const found = once(placed, (each) => visibility(frame, each, { method, margin, flat: !world.hasDepth }));
        return {
          bodies: found,
          counts: {
            inside: countOf(found, 'inside'),
            crosses: countOf(found, 'crosses'),
            outside: countOf(found, 'outside'),
          },
        };
      });
    },
  }),

  operation('shadowVisibility', {
    summary: 'Tests for each caster whether its shadow on a plane can be on the screen while the body itself is not.',
    worlds: ['3d'],
    input: { light: input.axis('Direction in which the light travels'), receiver: plane(), bodies: ids() },
    output: {
      bodies: list(
        z.object({ body: body(), bodyOnScreen: z.boolean(), shadowOnScreen: z.boolean(), onlyShadow: z.boolean() }),
      ).nullable(),
      reason: reason('rayParallel'),
    },
    cost: costOfBodies(looks),
    run: ({ light, receiver, bodies }, setup) =>
      chosen(setup, bodies, (placed) => {
        const found = shadowVisibility(setup.frame, [...new Set(placed)], light, receiver);
        return found.ok ? { bodies: once(placed, () => found.value) } : { bodies: null, reason: found.reason };
      }),
  }),

  operation('screenBounds', {
    summary:
      'The tight rectangle of the visible silhouette of each body, clipped at the near plane. Spheres give the exact extent of the projected ellipse.',
    input: { bodies: ids() },
    output: {
      bodies: list(
        z.object({
          body: body(),
          bounds: z
            .object({ min: output.pair(), max: output.pair(), clipped: z.boolean() })
            .nullable()
            .describe('Pixels; the smaller coordinates first'),
          reason: reason('behindEye'),
        }),
      ),
    },
    cost: costOfBodies(looks),
    run: ({ bodies }, setup) =>
      chosen(setup, bodies, (placed) => ({
        bodies: once(placed, (each) =>
          each.map((one) => {
            const { codec, frame, world } = setup;
            const found = pictureBounds(frame, one, !world.hasDepth);
            if (!found.ok) return { body: one.body.id, bounds: null, reason: found.reason };
            const { min, max, clipped } = found.value;
            const [a, b] = [codec.toScreen(frame.viewport, ...min), codec.toScreen(frame.viewport, ...max)];
            const corner = (pick: (...values: number[]) => number): [number, number] => [
              pick(a[0], b[0]),
              pick(a[1], b[1]),
            ];
            return { body: one.body.id, bounds: { min: corner(Math.min), max: corner(Math.max), clipped } };
          }),
        ),
      })),
  }),

  operation('apparentSize', {
    summary:
      'The size on the screen of each body’s bounding sphere, as if it were on the optical axis at its distance, and the distances at which it reaches given sizes.',
    input: {
      bodies: ids(),
      thresholds: listOf(positive).optional().describe('Diameters in pixels'),
    },
    output: {
      bodies: list(
        z.object({
          body: body(),
          ahead: z.number(),
          radius: z.number(),
          diameter: z.number().nullable().describe('Pixels'),
          share: z.number().nullable().describe('Of the height of the viewport'),
          switches: list(z.number())
            .nullable()
            .optional()
            .describe('Distance for each threshold; null for an orthographic camera'),
          reason: reason('eyeInside'),
        }),
      ),
    },
    cost: (query, size) => costOfBodies(looks + lengthOf(query['thresholds']))(query, size),
    run: ({ bodies, thresholds }, setup) =>
      chosen(setup, bodies, (placed) => ({
        bodies: once(placed, (each) =>
          each.map((one) => {
            const { frame, world } = setup;
            const { ahead, radius, diameter } = apparentSize(frame, one, !world.hasDepth);
            const size = diameter.ok
              ? { diameter: diameter.value, share: diameter.value / frame.viewport.height }
              : { diameter: null, share: null };
            const switches =
              frame.kind === 'orthographic'
                ? null
                : thresholds?.map((pixels) => distanceForSize(frame, radius, pixels)!);
            return {
              body: one.body.id,
              ahead,
              radius,
              ...size,
              ...(thresholds && { switches }),
              ...(!diameter.ok && { reason: diameter.reason }),
            };
          }),
        ),
      })),
  }),

  operation('visibilityBy', {
    summary: 'Compares a customary shortcut of the visibility test with the exact answer.',
    input: {
      bodies: ids(),
      test: z
        .union([z.enum(['centre', 'corners']), z.object({ sphere: input.number().nonnegative() })])
        .describe('The centre of the bounding sphere, the corners of the local box, or that sphere by a factor'),
    },
    output: {
      bodies: list(
        z.object({
          body: body(),
          seen: z.boolean(),
          truth: z.boolean(),
          verdict: z.enum(['right', 'missed', 'false alarm']),
        }),
      ),
      counts: z.object({ right: count(), missed: count(), 'false alarm': count() }),
    },
    cost: costOfBodies(looks),
    run: ({ bodies, test }, setup) =>
      chosen(setup, bodies, (placed) => {
        const found = once(placed, (each) => visibilityBy(setup.frame, each, test, !setup.world.hasDepth));
        return {
          bodies: found,
          counts: {
            right: countOf(found, 'right'),
            missed: countOf(found, 'missed'),
            'false alarm': countOf(found, 'false alarm'),
          },
        };
      }),
  }),
] as const;
