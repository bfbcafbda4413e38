/*
 * Names of exported code among those of an engine: a prefix of every name in C, a namespace in C++.
 */

const identifier = /^[A-Za-z_]\w*$/;

/** Languages that take a scope, and what it is there. */
export const scopeKinds: Readonly<Record<string, 'prefix' | 'namespace'>> = { C: 'prefix', 'C++': 'namespace' };

/** Returns the problem of a scope for a language; null where there is none. */
export function scopeProblem(language: string, scope: string): string | null {
  const kind = scopeKinds[language];
  if (!kind) return `${language} has no prefix or namespace here: C takes --prefix, C++ --namespace.`;
  if (kind === 'prefix')
    return identifier.test(scope)
      ? null
      : `“${scope}” is not a prefix: letters, digits and underscores, with a letter first.`;
  return scope.split('::').every((part) => identifier.test(part))
    ? null
    : `“${scope}” is not a namespace: names with “::” between them.`;
}

/** The prefix of types: each word with a capital, without underscores. */
const typePrefix = (prefix: string): string =>
  prefix.split('_').filter(Boolean).map((word) => word[0]!.toUpperCase() + word.slice(1)).join(''); // prettier-ignore

/** Names that the file of C declares at its top level: types, then functions and constants. */
function topNames(header: string): { types: Set<string>; others: Set<string> } {
  const all = (pattern: RegExp) => new Set([...header.matchAll(pattern)].map((match) => match[1]!));
  return {
    types: all(/^(?:typedef struct \{.*)?\} ?(\w+);$/gm),
    others: all(/^static (?:inline|const) [\w ]+?\b(\w+)(?:\(|\[| =)/gm),
  };
}

/**
 * Puts a scope on the names of a text: those that `header` declares.
 *
 * @param header - the emitted file of the language, without a scope
 * @param text - the header itself, or a program that uses it
 */
export function withScope(language: string, scope: string | undefined, header: string, text: string): string {
  if (!scope) return text;
  if (scopeKinds[language] === 'namespace') {
    const parts = scope.split('::');
    return text
      .replace(/^namespace camera \{$/m, parts.map((part) => `namespace ${part} {`).join('\n'))
      .replace(/^\} {2}\/\/ namespace camera$/m, [...parts].reverse().map((part) => `}  // namespace ${part}`).join('\n'))
      .replace(/using namespace camera;/g, `using namespace ${scope};`);
  }
  const { types, others } = topNames(header);
  const prefixed = (name: string): string =>
    types.has(name) ? typePrefix(scope) + name : others.has(name) ? scope + name : name;
  // Comments keep their words; fields follow a point.
  return text
    .split('\n')
    .map((line) => {
      const comment = line.search(/\/\/|#include/);
      const [code, rest] = comment < 0 ? [line, ''] : [line.slice(0, comment), line.slice(comment)];
      return code.replace(/(?<![.\w"])[A-Za-z_]\w*(?![\w"])/g, prefixed) + rest;
    })
    .join('\n')
    .replace(/\bCAMERA_H\b/g, `${scope.toUpperCase()}CAMERA_H`);
} // prettier-ignore
