import type * as z from 'zod';
import { definitionOf, metaOf } from '../quantities/convert';
import type { KindName } from '../quantities/kinds';
import { operationTable } from './operations';

/* The reference of the operations as Markdown, made from their descriptions. `npm run docs` writes it. */

/** Names of kinds of quantities in the reference. */
const kindText: Partial<Record<KindName, string>> = {
  point: 'point',
  axis: 'direction',
  velocity: 'velocity',
  surfacePoint: 'surface point',
  surfaceVector: 'surface vector',
  screenPoint: 'pixel',
  pitchRange: 'pitch range',
  rotation: 'quaternion',
  depth: 'depth',
  angle: 'angle',
  yaw: 'yaw',
  pitch: 'pitch',
  roll: 'roll',
  yawRate: 'yaw rate',
  pitchRate: 'pitch rate',
};
/** Parts of requests that have a section of their own. */
const sections = new Map<string, string>([
  ['to', 'conventions'],
  ['camera', 'camera'],
  ['camera?', 'camera'],
  ['bodies', 'bodies'],
  ['viewport?', 'viewport'],
  ['track', 'track'],
]);

interface Row {
  readonly path: string;
  readonly type: string;
  readonly text: string;
}

/** Returns a schema without optional and default wrappers, with their notes. */
function unwrapped(schema: z.ZodType): { inner: z.ZodType; isOptional: boolean; notes: string[]; description: string } {
  let inner = schema;
  let isOptional = false;
  const notes: string[] = [];
  let description = inner.description ?? '';
  for (;;) {
    const meta = metaOf(inner);
    const { type, innerType, defaultValue } = definitionOf(inner);
    description ||= inner.description ?? '';
    if (meta || !innerType) return { inner, isOptional, notes, description };
    if (type === 'optional') isOptional = true;
    else if (type === 'nullable') notes.push('or null');
    else if (type === 'default' || type === 'prefault') {
      isOptional = true;
      notes.push(`default ${JSON.stringify(defaultValue)}`);
    }
    inner = innerType;
  }
}

/** Returns the plural of a type of one word; other types as they are. */
const plural = (type: string): string => (/^\w+$/.test(type) ? `${type}s` : type);

/** Returns the type of a schema in words; null for an object, whose parts are rows of their own. */
function typeText(schema: z.ZodType): string | null {
  const { inner, notes } = unwrapped(schema);
  const meta = metaOf(inner);
  const own = (): string | null => {
    if (meta && meta.kind !== 'written') return kindText[meta.kind] ?? meta.kind;
    const { type, values, entries, items, element, options } = definitionOf(inner);
    switch (type) {
      case 'literal':
        return values!.map((value) => JSON.stringify(value)).join(' or ');
      case 'enum':
        return Object.values(entries!)
          .map((value) => JSON.stringify(value))
          .join(', ');
      case 'tuple':
        return items!.every((item) => typeText(item) === typeText(items![0]!))
          ? `${items!.length} ${plural(typeText(items![0]!) ?? 'object')}`
          : `[${items!.map(typeText).join(', ')}]`;
      case 'array':
        return `list of ${plural(typeText(element!) ?? 'object')}`;
      case 'number':
        return (inner as z.ZodNumber).format === 'safeint' ? 'integer' : 'number';
      case 'union': {
        const texts = options!.map(typeText);
        return texts.every((text) => text !== null) ? texts.join(' or ') : null;
      }
      case 'object':
        return null;
      case 'record':
        return 'object of numbers';
      case 'unknown':
        return 'value';
      default:
        return type;
    }
  };
  const text = own();
  return text === null ? null : [text, ...notes].join(', ');
}

/** Lists the parts of a schema at a path. */
function rowsOf(path: string, schema: z.ZodType): Row[] {
  const { inner, isOptional, notes, description } = unwrapped(schema);
  const shown = isOptional ? `${path}?` : path;
  const section =
    metaOf(inner)?.kind === 'written' || path === 'to' || path === 'track' ? sections.get(shown) : undefined;
  if (section)
    return [{ path: shown, type: [`a ${section}, as in a request`, ...notes].join(', '), text: description }];
  const { type, shape, element, options } = definitionOf(inner);
  const own = typeText(schema);
  if (metaOf(inner)) return [{ path: shown, type: own ?? 'as in a request', text: description }];
  if (type === 'object')
    return [
      ...(description || notes.length
        ? [{ path: shown, type: ['object', ...notes].join(', '), text: description }]
        : []),
      ...Object.entries(shape!).flatMap(([key, part]) => rowsOf(`${shown}.${key}`, part)),
    ];
  if (type === 'array') {
    const entry = rowsOf(`${shown}[]`, element!);
    if (entry.length === 1 && entry[0]!.path === `${shown}[]`)
      return [{ path: shown, type: own ?? 'list', text: description || entry[0]!.text }];
    return [...(description ? [{ path: shown, type: 'list', text: description }] : []), ...entry];
  }
  if (type === 'union' && own === null)
    return [
      { path: shown, type: 'one of the following', text: description },
      ...options!.flatMap((option) => rowsOf(shown, option)),
    ];
  return [{ path: shown, type: own ?? 'object', text: description }];
}

const cell = (text: string): string => text.replaceAll('|', '\\|');
function table(heading: string, shape: Readonly<Record<string, z.ZodType>>): string {
  const rows = Object.entries(shape).flatMap(([key, part]) => rowsOf(key, part));
  if (!rows.length) return `${heading}: nothing further.`;
  return [
    `| ${heading} | type | |`,
    '| --- | --- | --- |',
    ...rows.map(({ path, type, text }) => `| \`${cell(path)}\` | ${cell(type)} | ${cell(text)} |`),
  ].join('\n');
}

/** Returns the reference of all operations as Markdown. */
export function operationReference(): string {
  return operationTable
    .map(({ name, summary, worlds, query, output }) => {
      const { id: _id, op: _op, when: _when, ...parts } = query.shape as Readonly<Record<string, z.ZodType>>;
      const where = worlds.length === 2 ? '' : ' 3D only.';
      return [
        `### \`${name}\``,
        `${summary}${where}`,
        table('query', parts),
        table('answer', output.shape as Readonly<Record<string, z.ZodType>>),
      ].join('\n\n');
    })
    .join('\n\n');
}
