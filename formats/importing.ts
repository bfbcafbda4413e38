import type { Conventions } from '../core/conventions/conventions';
import type { Problem } from '../core/reasons';
import { projectFromModel } from './gathered';
import { projectFromRequest } from './fromRequest';
import { readObj } from './obj';
import { isRequest, parseJson, readProject, type Project } from './project';

/* What comes by file, drop or paste, taken as what it is. */

/** In which the numbers of a text stand that does not say so itself, and the id that a new project gets. */
export interface ImportContext {
  readonly id: string;
  readonly conventions: Conventions;
}

export type Imported =
  | { readonly ok: true; readonly kind: 'project'; readonly project: Project; readonly notes: readonly string[] }
  /** Not a thing of its own: a list of points, to be read as such. */
  | { readonly ok: true; readonly kind: 'points' }
  | { readonly ok: false; readonly problems: readonly Problem[] };

/** The most characters that are read: beyond it a page has no room to work in. */
export const mostCharacters = 64_000_000;

const baseName = (name: string) => name.replace(/(\.(request|astrolabe))?\.(json|obj)$/i, '') || name;

/**
 * Text from a file of some name, or pasted: JSON is a project or a compute request, what has faces or vertices line by line is an OBJ model, anything else a list of points. Everything
 * that is wrong is answered with its place, and nothing is taken then; `onProgress` is told the share read.
 */
export function readImport(
  text: string,
  name: string,
  { id, conventions }: ImportContext,
  onProgress?: (share: number) => void,
): Imported {
  if (text.length > mostCharacters)
    return refuse(
      `It has ${Math.round(text.length / 1e6)} million characters, and ${mostCharacters / 1e6} million can be read here. Take a part of it.`,
    );
  if (/\.json$/i.test(name) || /^\s*[{[]\s*["{\]}]/.test(text)) {
    const parsed = parseJson(text);
    if (!parsed.ok) return parsed;
    const read = isRequest(parsed.value)
      ? projectFromRequest(parsed.value, id, baseName(name))
      : readProject(parsed.value);
    return read.ok ? { ok: true, kind: 'project', project: { ...read.project, id }, notes: [] } : read;
  }
  if (/\.obj$/i.test(name) || /^(v|f)[ \t]+[-+\d.]/m.test(text.slice(0, 100_000))) {
    const model = readObj(text, onProgress);
    if (!model.ok) return model;
    const read = projectFromModel(model.parts, baseName(name), { id, name: baseName(name), conventions });
    const notes = model.left.length ? [`Left out: ${model.left.join(', ')}.`] : [];
    return read.ok ? { ok: true, kind: 'project', project: read.project, notes } : read;
  }
  return { ok: true, kind: 'points' };
}

const refuse = (message: string): Imported => ({ ok: false, problems: [{ path: '', message }] });
