/** How many answers are kept: what stands still and what moves ask of different states in turn. */
const kept = 4;

/**
 * Remembers the last few answers; asks anew when an argument is another object than in all of them.
 * An answer is the same object for as long as it is remembered, so that what follows from it is not
 * asked anew either.
 */
export function memo<A extends readonly unknown[], R>(compute: (...args: A) => R): (...args: A) => R {
  const answers: { readonly args: A; readonly result: R }[] = [];
  return (...args) => {
    const at = answers.findIndex((one) => args.every((arg, i) => arg === one.args[i]));
    if (at === 0) return answers[0]!.result;
    const found = at > 0 ? answers.splice(at, 1)[0]! : { args, result: compute(...args) };
    answers.unshift(found);
    answers.length = Math.min(answers.length, kept);
    return found.result;
  };
}

/**
 * Remembers the answer for every object that was asked about, for as long as there is that object.
 */
export function remembered<K extends object, R>(compute: (key: K) => R): (key: K) => R {
  const answers = new WeakMap<K, { readonly result: R }>();
  return (key) => {
    const known = answers.get(key) ?? { result: compute(key) };
    answers.set(key, known);
    return known.result;
  };
}
