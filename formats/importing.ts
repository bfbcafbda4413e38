import type { Conventions } from '../core/conventions/conventions';
import type { Problem } from '../core/reasons';
import { projectFromModel } from './projectFromGeometry';
import { projectFromRequest } from './fromRequest';
import { isJson } from './isJson';
import { readObj } from './obj';
import { inWords } from './places';
import { tooMuch } from './size';
import { isRequest, parseJson, readProject, type Project } from './project';

/* What comes by file, drop or paste, taken as what it is. */

/**
 * In which the numbers of a text stand that does not say so itself, and the id that a new project
 * gets.
 */
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
 * Text from a file of some name, or pasted: JSON is a project or a compute request, what has faces
 * or vertices line by line is an OBJ model, anything else a list of points. Everything that is
 * wrong is answered with its place, and nothing is taken then; `onProgress` is told the share read.
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
  if (isJson(text, name)) {
    const parsed = parseJson(text);
    if (!parsed.ok) return parsed;
    const read = isRequest(parsed.value)
      ? projectFromRequest(parsed.value, id, baseName(name))
      : readProject(parsed.value);
    if (!read.ok) return { ok: false, problems: inWords(read.problems, parsed.value) };
    return fitting({ ...read.project, id }, []);
  }
  if (/\.obj$/i.test(name) || /^(v|f)[ \t]+[-+\d.]/m.test(text.slice(0, 100_000))) {
    const model = readObj(text, onProgress);
    if (!model.ok) return model;
    const read = projectFromModel(model.parts, baseName(name), { id, name: baseName(name), conventions });
    const notes = model.left.length ? [`Left out: ${model.left.join(', ')}.`] : [];
    return read.ok ? fitting(read.project, notes) : read;
  }
  if (/\.(csv|tsv)$/i.test(name) || looksLikePoints(text)) return { ok: true, kind: 'points' };
  return refuse(
    'It is no project, compute request, OBJ model or list of points that could be read. Points stand one a line, their coordinates side by side.',
  );
}

/** A project that was read, unless it holds more than can be worked with. */
function fitting(project: Project, notes: readonly string[]): Imported {
  const problems = tooMuch(project.bodies);
  return problems.length ? { ok: false, problems } : { ok: true, kind: 'project', project, notes };
}

/**
 * Whether most of the first lines hold two numbers or more: what is pasted by mistake is no list of
 * points.
 */
function looksLikePoints(text: string): boolean {
  const lines = text
    .slice(0, 20_000)
    .split(/\r?\n/)
    .map((line) => line.trim())
    .filter((line) => line && !/^(#|\/\/)/.test(line))
    .slice(0, 24);
  const isPoint = (line: string): boolean => {
    const cells = line.split(/[\s,;|()[\]{}<>]+/).filter(Boolean);
    const numbers = cells.filter((cell) => /^[+-]?(\d+\.?\d*|\.\d+)(e[+-]?\d+)?f?$/i.test(cell)).length;
    return numbers >= 2 && 2 * numbers >= cells.length;
  };
  const points = lines.filter(isPoint).length;
  return points > 0 && points >= (lines.length - 1) / 2;
}

const refuse = (message: string): Imported => ({ ok: false, problems: [{ path: '', message }] });
