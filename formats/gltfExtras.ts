/* What is kept beside what glTF says, under `extras.astrolabe`, so that it comes back as it was. */

export type Extras = Record<string, unknown>;
/** What is kept beside what glTF says, by the name of the product. */
export const kept = (what: object): Extras => ({ astrolabe: what });
/** An own value beside what glTF says, where the file has been here before. */
export const ownOf = (of: { getExtras(): Record<string, unknown> }): Record<string, unknown> => {
  const { astrolabe } = of.getExtras() as { astrolabe?: unknown };
  return typeof astrolabe === 'object' && astrolabe !== null ? (astrolabe as Record<string, unknown>) : {};
};

/** Marks a camera whose far plane is at infinity, for as long as the library has it. */
export const endless = 'astrolabeEndless';
