import { presets, type PresetName } from '../conventions/conventions';
import type { Problem } from '../reasons';

const names = Object.keys(presets) as PresetName[];
const isObject = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
const isPreset = (value: unknown): value is PresetName => (names as readonly unknown[]).includes(value);

/** Groups of an override replace those of the preset key by key. */
const merged = (preset: PresetName, overrides: Readonly<Record<string, unknown>>): object => ({
  ...presets[preset],
  ...Object.fromEntries(
    Object.entries(overrides).map(([group, own]) => {
      const base = (presets[preset] as unknown as Readonly<Record<string, unknown>>)[group];
      return [group, isObject(base) && isObject(own) ? { ...base, ...own } : own];
    }),
  ),
});

/**
 * Replaces the name of a preset in a request by its conventions: `"conventions": "Vulkan"`, or
 * `{ "preset": "Vulkan", "ndc": { "near": 1, "far": 0 } }`, whose other keys override the preset's.
 *
 * @param given - any JSON value; one without a preset comes back as it is
 * @returns the request with conventions written out, or the problem of an unknown name
 */
export function expandPreset(given: unknown): { readonly value: unknown } | { readonly problem: Problem } {
  if (!isObject(given)) return { value: given };
  const { conventions } = given;
  const unknown = (path: string, name: unknown) => ({
    problem: {
      path,
      message: `${path} is ${JSON.stringify(name)}; it must be ${names.slice(0, -1).map((one) => `"${one}"`).join(', ')} or "${names.at(-1)}".`, // prettier-ignore
    },
  });
  if (typeof conventions === 'string') {
    return isPreset(conventions)
      ? { value: { ...given, conventions: presets[conventions] } }
      : unknown('conventions', conventions);
  }
  if (!isObject(conventions) || conventions['preset'] === undefined) return { value: given };
  const { preset, ...overrides } = conventions;
  if (!isPreset(preset)) return unknown('conventions.preset', preset);
  return { value: { ...given, conventions: merged(preset, overrides) } };
}
