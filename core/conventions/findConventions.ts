import { handednessOf, opposite, type AxisFrame, type SignedAxis } from './axes';
import type { Conventions } from './conventions';
import { readySets, type ReadySet } from './ready';

/* Conventions found by the words that programmers describe them with. */

/** A part of the typed text. */
export interface TypedPhrase {
  readonly text: string;
  /** Whether the words mean something here; unknown ones are left out of the search. */
  readonly isKnown: boolean;
}
/** Conventions that were found. */
export interface FoundConventions {
  readonly set: ReadySet;
  /** Typed phrases that they do not fit; empty for a full match. */
  readonly unmet: readonly string[];
}

type Test = (c: Conventions) => boolean;
/** A phrase of the trade: what conventions it describes, and what it sets that ready sets leave open. */
interface Meaning {
  readonly test: Test;
  readonly patch?: (c: Conventions) => Conventions;
}
interface Phrase {
  readonly pattern: RegExp;
  readonly meaning: (match: RegExpExecArray) => Meaning | null;
}

const directions: Readonly<Record<string, readonly [keyof AxisFrame, 1 | -1]>> = {
  up: ['up', 1],
  down: ['up', -1],
  right: ['right', 1],
  left: ['right', -1],
  forward: ['forward', 1],
  forwards: ['forward', 1],
  ahead: ['forward', 1],
  front: ['forward', 1],
  in: ['forward', 1],
  back: ['forward', -1],
  backward: ['forward', -1],
  backwards: ['forward', -1],
  out: ['forward', -1],
};
const directionNames = Object.keys(directions).sort((a, b) => b.length - a.length).join('|'); // prettier-ignore

/** The axis of a phrase such as “-z forward” or “up is z”; unsigned axes are positive. */
function axisMeaning(axis: string, direction: string): Meaning {
  const [side, sign] = directions[direction]!;
  const given = (/^[+-]/.test(axis) ? axis : `+${axis}`) as SignedAxis;
  const own = sign > 0 ? given : opposite(given);
  // “y down” alone may mean the world or NDC.
  const isNdcToo = own === '-y' && side === 'up';
  return { test: ({ world, ndc }) => world[side] === own || (isNdcToo && ndc.up === '-y') };
}

const isRange = (a: number, b: number): Test => ({ ndc }) => Math.min(ndc.near, ndc.far) === a && Math.max(ndc.near, ndc.far) === b; // prettier-ignore
const numbers: Readonly<Record<string, number>> = { zero: 0, one: 1, 'minus one': -1 };
const numberOf = (text: string): number => numbers[text] ?? Number(text);
const number = '(-?\\d|zero|minus one|one)';

/** Tried in this order at each place of the text: longer phrases first. */
const phrases: readonly Phrase[] = [
  {
    pattern: new RegExp(`[[(]?\\s*${number}\\s*(?:to|\\.\\.+|,|…)\\s*${number}\\s*[\\])]?`, 'y'),
    meaning: ([, near, far]) => ({ test: ({ ndc }) => ndc.near === numberOf(near!) && ndc.far === numberOf(far!) }),
  },
  {
    pattern:
      /(?:ndc|clip)(?: space)?[ -]?y[ -]?(?:is )?(up|down)|(?:flipped|inverted|negative)[ -]y|y[ -](?:flipped|flip|inverted)/y,
    meaning: ([, way]) => ({ test: ({ ndc }) => ndc.up === (way === 'up' ? '+y' : '-y') }),
  },
  {
    pattern:
      /(?:reversed?|inverse|inverted)(?:[ -]?(?:z|depth)(?:[ -]?buffer)?)?|(?:z|depth)[ -](?:reversed?|inverted)/y,
    meaning: () => ({ test: ({ ndc }) => ndc.near > ndc.far }),
  },
  {
    pattern: new RegExp(`([+-]?[xyz])[ -]?(?:axis )?(?:is |points )?(${directionNames})`, 'y'),
    meaning: ([, axis, direction]) => axisMeaning(axis!, direction!),
  },
  {
    // “left z up” is left-handed with z up, so hands need a word between.
    pattern: new RegExp(
      `(?:(${directionNames})(?: is|:| =| axis)|(up|down|forwards?|ahead|back))[ -]([+-]?[xyz])`,
      'y',
    ),
    meaning: ([, direction, bare, axis]) => axisMeaning(axis!, (direction ?? bare)!),
  },
  {
    pattern: /(left|right)(?:[ -]?handed(?:ness)?| hand)?|(lh|rh)s?/y,
    meaning: ([, hand, short]) => {
      const wanted = hand ?? (short === 'lh' ? 'left' : 'right');
      return { test: ({ world }) => handednessOf(world) === wanted };
    },
  },
  {
    pattern: /(row|column|col)[ -]?major/y,
    meaning: ([, order]) => ({ test: ({ matrix }) => matrix.storage === (order === 'row' ? 'row-major' : 'column-major') }), // prettier-ignore
  },
  {
    pattern: /(row|column|col)s?(?:[ -]?vectors?)?/y,
    meaning: ([, kind]) => ({ test: ({ matrix }) => matrix.vectors === (kind === 'row' ? 'row' : 'column') }),
  },
  {
    pattern: /(radians?|rad|degrees?|deg)/y,
    meaning: ([, unit]) => ({
      test: () => true,
      patch: (c) => ({ ...c, angles: { ...c.angles, unit: unit!.startsWith('rad') ? 'radians' : 'degrees' } }),
    }),
  },
  {
    pattern: /(top|bottom)[ -]left(?: origin)?/y,
    meaning: ([, side]) => ({
      test: () => true,
      patch: (c) => ({ ...c, screen: { ...c.screen, origin: side === 'top' ? 'top-left' : 'bottom-left' } }),
    }),
  },
  { pattern: /vulkan|vk|spir-?v/y, meaning: () => ({ test: (c) => c.ndc.up === '-y' && isRange(0, 1)(c) }) },
  { pattern: /(?:open|web)? ?gl(?:sl|es)? ?\d*(?:\.\d)?/y, meaning: () => ({ test: (c) => c.ndc.up === '+y' && isRange(-1, 1)(c) }) }, // prettier-ignore
  {
    pattern: /direct ?x ?\d*|direct ?3d ?\d*|d3d\d*|dx\d*|hlsl|metal|msl|web ?gpu|wgsl/y,
    meaning: () => ({ test: (c) => c.ndc.up === '+y' && isRange(0, 1)(c) }),
  },
  { pattern: /gltf|glb/y, meaning: () => ({ test: ({ world: { right, up, forward } }) => `${right}${up}${forward}` === '-x+y+z' }) }, // prettier-ignore
];

/** Words that say nothing by themselves. */
const fillers = new Set('a and are axes axis buffer by convention conventions coordinate coordinates depth engine for handed in is matrices matrix ndc of on range screen space system the to vector vectors view with world z'.split(' ')); // prettier-ignore

/** Splits typed text into phrases that mean something and words that do not. */
function phrasesIn(typed: string): (TypedPhrase & { readonly meaning: Meaning | null })[] {
  const text = typed.toLowerCase().replaceAll('\u2212', '-');
  const found: (TypedPhrase & { readonly meaning: Meaning | null })[] = [];
  let at = 0;
  while (at < text.length) {
    const [gap] = /[\s,;:/|]*/y.exec(text.slice(at)) ?? [''];
    at += gap.length;
    const rest = text.slice(at);
    if (!rest) break;
    const fitting = phrases.flatMap(({ pattern, meaning }) => {
      pattern.lastIndex = 0;
      const match = pattern.exec(rest);
      // A phrase ends where a word ends.
      return match && match[0] && !/^[\p{L}\p{N}]/u.test(rest.slice(match[0].length)) ? [{ match, meaning }] : [];
    });
    const [best] = fitting.sort((a, b) => b.match[0].length - a.match[0].length);
    if (best) {
      found.push({ text: best.match[0].trim(), isKnown: true, meaning: best.meaning(best.match) });
      at += best.match[0].length;
      continue;
    }
    const [word] = /^[^\s,;]+/.exec(rest) ?? [rest[0]!];
    at += word.length;
    if (!fillers.has(word)) found.push({ text: word, isKnown: false, meaning: null });
  }
  return found;
}

/** Counts the settings in which two conventions differ. The usual storage of other vectors is no difference. */
function distance(a: Conventions, b: Conventions): number {
  const count = (one: object, other: object) => Object.entries(one).filter(([key, value]) => (other as Readonly<Record<string, unknown>>)[key] !== value).length; // prettier-ignore
  const isUsual = a.matrix.storage === (a.matrix.vectors === 'row' ? 'row-major' : 'column-major');
  const listing = a.matrix.vectors === b.matrix.vectors ? count(a.matrix, b.matrix) : isUsual ? 1 : 2;
  return count(a.world, b.world) + count(a.view, b.view) + count(a.ndc, b.ndc) + listing;
}

/**
 * Finds usual conventions by typed words: axes (“z up”, “forward -z”), handedness, depths (“reversed-z”, “0 to 1”),
 * vectors and listings, and the names of graphics interfaces, which fix NDC alone.
 *
 * @param typed - in any order
 * @param now - conventions whose screen and angles are kept; among equal matches the nearest to them come first
 * @returns the typed phrases, and the sets that fit most of the known ones, the best first; none without a known one
 */
export function findConventions(
  typed: string,
  now: Conventions,
): { readonly typed: readonly TypedPhrase[]; readonly found: readonly FoundConventions[] } {
  const all = phrasesIn(typed);
  const known = all.filter(({ meaning }) => meaning);
  const phrasesTyped = all.map(({ text, isKnown }) => ({ text, isKnown }));
  if (!known.length) return { typed: phrasesTyped, found: [] };
  const patched = (c: Conventions): Conventions =>
    known.reduce((own, { meaning }) => meaning!.patch?.(own) ?? own, { ...c, screen: now.screen, angles: now.angles });
  const scored = readySets.map(({ name, conventions }, order) => ({
    set: { name, conventions: patched(conventions) },
    unmet: known.filter(({ meaning }) => !meaning!.test(conventions)).map(({ text }) => text),
    order,
    far: distance(conventions, now),
  }));
  const least = Math.min(...scored.map(({ unmet }) => unmet.length));
  const found = scored
    .filter(({ unmet }) => unmet.length === least)
    .sort((a, b) => a.far - b.far || a.order - b.order)
    .map(({ set, unmet }) => ({ set, unmet }));
  return { typed: phrasesTyped, found };
}
