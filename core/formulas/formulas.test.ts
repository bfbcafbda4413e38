import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { orthographicOf } from '../camera/camera2d';
import { frameOf, type CameraFrame } from '../camera/frame';
import { codecOf } from '../conventions/codec';
import { defaultConventions } from '../conventions/conventions';
import { pictureToViewRuf, projectPoint, viewRufToWorld, worldToViewRuf } from '../convert/project';
import {
  aheadAt,
  conventions,
  frames,
  picturePositions,
  real,
  shares,
  vectors,
  viewports,
} from '../testing/arbitraries';
import { cross, length, sub, type Vec3 } from '../math/vec3';
import { aheadOf, backFormulas, forwardFormulas, viewFormulas } from './camera';
import { call, minus, name, negative, number, plus, product, quotient, valuesOf, write, type Expression, type Formulas } from './expression'; // prettier-ignore
import { asCode, asLatex, asPlain, asTex, languages } from './languages';
import { runs } from '../testing/seed';

/** Runs the body that is written for JavaScript: what is taken home is what was computed. */
function run(formulas: Formulas): Map<string, number> {
  const body = asCode(formulas, 'JavaScript');
  const made = new Function(`${body}\nreturn [${formulas.wanted.join(', ')}];`) as () => number[];
  return new Map(made().map((value, i) => [formulas.wanted[i]!, value]));
}
const close = (actual: number, expected: number, size: number) =>
  expect(Math.abs(actual - expected)).toBeLessThan(1e-7 * (1 + size));

/** A point of the picture, not too near to its edge of numbers. */
const seen = fc
  .tuple(conventions, frames, picturePositions, shares)
  .map(([c, frame, [x, y], share]) => {
    const ahead = Math.min(aheadAt(frame, share), 1e4);
    return { e: codecOf(c), frame, world: viewRufToWorld(frame, pictureToViewRuf(frame, x, y, ahead)), ahead };
  })
  .filter(({ frame, ahead }) => ahead >= frame.near && frame.near > 1e-2);

const flat = fc
  .tuple(conventions, viewports, vectors(50), vectors(50), real(0.5, 40), real(-3, 3), picturePositions)
  .map(([c, viewport, at, focus, zoom, rotation, anchor]) => {
    const made = frameOf(orthographicOf({ focus: [focus[0], focus[1]], anchor, zoom, rotation }, viewport), viewport);
    if (!made.ok) throw new Error();
    return {
      e: codecOf(c),
      frame: made.value,
      world: [at[0], at[1], 0] as Vec3,
      focus: [focus[0], focus[1], 0] as Vec3,
    };
  });

describe('scalar formulas', () => {
  it('lead from a point to its pixel, as the core does, in any conventions', () => {
    fc.assert(
      fc.property(seen, ({ e, frame, world }) => {
        const found = run(forwardFormulas(frame, e, world, null));
        const { picture } = projectPoint(frame, world);
        if (!picture.ok) throw new Error();
        const screen = e.toScreen(frame.viewport, picture.value.across, picture.value.upward);
        const size = Math.hypot(...frame.eye) + frame.viewport.width + frame.viewport.height;
        close(found.get('screenX')!, screen[0], size * 10);
        close(found.get('screenY')!, screen[1], size * 10);
        close(found.get('ahead')!, worldToViewRuf(frame, world)[2], size);
      }),
    );
  });

  it('and back, and the two undo one another', () => {
    fc.assert(
      fc.property(seen, ({ e, frame, world }) => {
        const there = valuesOf(forwardFormulas(frame, e, world, null));
        const screen = [there.get('screenX')!, there.get('screenY')!] as const;
        const back = run(backFormulas(frame, e, screen, aheadOf(frame, world), null));
        e.toWorld(world).forEach((v, i) => close(back.get('xyz'[i]!)!, v, 10 * (Math.hypot(...world) + Math.hypot(...frame.eye)))); // prettier-ignore
      }),
    );
  });

  it('of a flat world, with its rotation written out, both ways', () => {
    fc.assert(
      fc.property(flat, ({ e, frame, world, focus }) => {
        const formulas = forwardFormulas(frame, e, world, focus);
        const found = run(formulas);
        const { picture } = projectPoint(frame, world);
        if (!picture.ok) throw new Error();
        const screen = e.toScreen(frame.viewport, picture.value.across, picture.value.upward);
        close(found.get('screenX')!, screen[0], 1e4);
        close(found.get('screenY')!, screen[1], 1e4);
        expect(found.has('ahead')).toBe(false);
        const back = run(backFormulas(frame, e, screen, 0, focus));
        const shown = e.toWorld(world);
        for (const [letter, value] of back) close(value, shown['xyz'.indexOf(letter)]!, 100);
        expect(back.size).toBe(2);
      }),
    );
  });

  it('have only the parts that matter', () => {
    const e = codecOf(defaultConventions);
    const camera = (yaw: number, pitch: number, roll: number): CameraFrame => {
      const made = frameOf(
        {
          position: [1, 2, 3],
          orientation: { kind: 'angles', yaw, pitch, roll },
          projection: { kind: 'perspective', lens: { verticalFov: 1 }, near: 0.1, far: 100 },
        },
        { x: 0, y: 0, width: 1280, height: 720 },
      );
      if (!made.ok) throw new Error();
      return made.value;
    };
    const text = (frame: CameraFrame) => asPlain(forwardFormulas(frame, e, [2, 2, -3], null));
    expect(text(camera(0, 0, 0))).not.toMatch(/sin|cos/);
    expect(text(camera(0.3, 0, 0))).toMatch(/sinYaw/);
    expect(text(camera(0.3, 0, 0))).not.toMatch(/Pitch|Roll/);
    expect(text(camera(0, 0, 0.2))).not.toMatch(/Yaw|Pitch/);
    expect(text(camera(0, 0, 0))).toContain('scale = pixelsAt1 / ahead');
    expect(text(camera(0, 0, 0))).toContain('screenY = centreY - dUp * scale');
  });

  it('make the sixteen numbers of the view matrix, as the conventions list them', () => {
    fc.assert(
      fc.property(conventions, viewports, vectors(50), vectors(50), vectors(5), (c, viewport, eye, target, upward) => {
        const e = codecOf(c);
        const orientation = { kind: 'lookAt' as const, target, up: upward };
        const made = frameOf(
          {
            position: eye,
            orientation,
            projection: { kind: 'perspective', lens: { verticalFov: 1 }, near: 1, far: 9 },
          },
          viewport,
        );
        const formulas = viewFormulas(e, eye, target, upward);
        expect(formulas !== null).toBe(made.ok);
        // Near the degenerate the digits are gone, and so is the meaning of agreeing.
        const d = sub(target, eye);
        const sine = length(cross(d, upward)) / (length(d) * length(upward));
        if (!made.ok || !formulas || !(sine > 1e-3) || length(d) < 1e-3 || length(upward) < 1e-3) return;
        const found = run(formulas);
        const list = e.toList(e.matrix(made.value, 'view'));
        list.forEach((v, i) => expect(Math.abs(found.get(`m${i}`)! - v)).toBeLessThan(1e-6 * (1 + Math.hypot(...eye))));
      }),
    );
    expect(viewFormulas(codecOf(defaultConventions), [0, 0, 0], [0, 5, 0], [0, 1, 0])).toBe(null);
  });
});

describe('expressions', () => {
  const leaf = fc.oneof(real(-9, 9).map(number), fc.constantFrom('a', 'b').map(name));
  const { any } = fc.letrec<{ any: Expression }>((tie) => ({
    any: fc.oneof(
      { depthSize: 'small' },
      leaf,
      fc.tuple(tie('any'), tie('any')).map(([a, b]) => plus(a, b)),
      fc.tuple(tie('any'), tie('any'), tie('any')).map(([a, b, c]) => minus(a, b, c)),
      fc.tuple(tie('any'), tie('any')).map(([a, b]) => product(a, b)),
      fc.tuple(tie('any'), tie('any')).map(([a, b]) => quotient(a, b)),
      tie('any').map(negative),
      tie('any').map((a) => call('sin', a)),
    ),
  }));

  it('mean in text what they mean, brackets and all', () => {
    fc.assert(
      fc.property(any, (of) => {
        const formulas: Formulas = {
          given: [
            { name: 'a', says: '', value: 1.25, tex: 'a' },
            { name: 'b', says: '', value: -0.5, tex: 'b' },
          ],
          steps: [{ name: 'found', says: '', of, tex: 'q' }],
          wanted: ['found'],
        };
        const expected = valuesOf(formulas).get('found')!;
        const actual = run(formulas).get('found')!;
        if (Number.isFinite(expected)) expect(actual).toBeCloseTo(expected, 6);
      }),
      { numRuns: runs(500) },
    );
  });

  it('are written in every language with the names and functions of it', () => {
    const formulas: Formulas = {
      given: [{ name: 'halfField', says: 'half the field', value: 1, tex: '\\alpha' }],
      steps: [{ name: 'pixelsAt1', says: '', of: quotient(number(2), call('tan', name('halfField'))), tex: 'K' }],
      wanted: ['pixelsAt1'],
    };
    const code = Object.fromEntries(languages.map((one) => [one, asCode(formulas, one).split('\n')[1]]));
    expect(code).toEqual({
      C: 'const double pixels_at1 = 2.0 / tan(half_field);',
      'C++': 'const double pixelsAt1 = 2.0 / std::tan(halfField);',
      'C#': 'double pixelsAt1 = 2.0 / Math.Tan(halfField);',
      Java: 'final double pixelsAt1 = 2.0 / Math.tan(halfField);',
      JavaScript: 'const pixelsAt1 = 2.0 / Math.tan(halfField);',
      Python: 'pixels_at1 = 2.0 / math.tan(half_field)',
      Rust: 'let pixels_at1: f64 = 2.0 / (half_field).tan();',
      Go: 'pixelsAt1 := 2.0 / math.Tan(halfField)',
      Lua: 'local pixelsAt1 = 2.0 / math.tan(halfField)',
      GLSL: 'float pixelsAt1 = 2.0 / tan(halfField);',
    });
    expect(asLatex(formulas)).toBe('\\begin{aligned}\nK &= \\dfrac{2}{\\tan(\\alpha)}\n\\end{aligned}');
    expect(asTex(formulas, valuesOf(formulas), (v) => v.toFixed(1))[0]).toMatchObject({
      symbols: '\\dfrac{2.0}{\\tan(\\alpha)}',
      numbers: '\\dfrac{2.0}{\\tan(1.0)}',
    });
  });

  it('put brackets where they are needed and nowhere else', () => {
    const plainly = (of: Expression) =>
      write(of, { number: String, name: (n) => n, times: ' * ', call: (f, x) => `${f}(${x})`, quotient: (a, b) => `${a} / ${b}`, fractions: false }); // prettier-ignore
    const [a, b] = [name('a'), name('b')];
    expect(plainly(minus(a, minus(a, b)))).toBe('a - (a - b)');
    expect(plainly(quotient(product(a, b), product(a, b)))).toBe('a * b / (a * b)');
    expect(plainly(product(a, quotient(a, b)))).toBe('a * (a / b)');
    expect(plainly(negative(plus(a, b)))).toBe('-(a + b)');
    expect(plainly(plus(a, negative(b)))).toBe('a + (-b)');
    expect(plainly(plus(product(a, b), b))).toBe('a * b + b');
  });
});
