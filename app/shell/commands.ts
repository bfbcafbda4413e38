import { presets, type PresetName } from '../../core/conventions/conventions';
import type { Project } from '../../formats/project';
import { redo, undo } from '../state/document';
import { useSettings } from '../state/settings';
import type { Task } from '../tasks';
import {
  choosePreset,
  chooseFile,
  copyRequest,
  openDemo,
  probeBody,
  saveProject,
  saveRequest,
  setProjectionKind,
  toggleTheme,
} from './actions';

export interface Command {
  readonly name: string;
  readonly keys?: string;
  readonly run: () => void;
}

/** Everything that can be done by name, for the open project. */
export function commandsFor(project: Project, tasks: readonly Task[], go: (route: string) => void): Command[] {
  return [
    ...tasks
      .filter(({ Sheet }) => Sheet)
      .map(({ name, key, route }) => ({ name: `Go to ${name}`, keys: key, run: () => go(route) })),
    ...tasks.flatMap(({ commands = [] }) => commands),
    { name: 'Undo', keys: 'Ctrl Z', run: undo },
    { name: 'Redo', keys: 'Ctrl Shift Z', run: redo },
    ...(Object.keys(presets) as PresetName[]).map((name) => ({
      name: `Conventions of ${name}`,
      run: () => choosePreset(name),
    })),
    { name: 'Make the camera perspective', run: () => setProjectionKind('perspective') },
    { name: 'Make the camera orthographic', run: () => setProjectionKind('orthographic') },
    { name: 'Enlarge the camera’s picture', run: () => useSettings.setState({ enlarged: 'main' }) },
    { name: 'Enlarge the plan', run: () => useSettings.setState({ enlarged: 'plan' }) },
    { name: 'Enlarge the section', run: () => useSettings.setState({ enlarged: 'section' }) },
    { name: 'Show all pictures', run: () => useSettings.setState({ enlarged: null }) },
    { name: 'Change between paper and night', keys: 'T', run: toggleTheme },
    { name: 'Save the project as a file', keys: 'Ctrl S', run: saveProject },
    { name: 'Open a project file', keys: 'Ctrl O', run: chooseFile },
    { name: 'Save as a compute request', run: saveRequest },
    { name: 'Copy as a compute request', run: () => void copyRequest() },
    { name: 'Open the demo', run: openDemo },
    { name: 'Probe a free point', run: () => probeBody(null) },
    ...project.bodies.map(({ id, name }) => ({ name: `Probe ${name}`, run: () => probeBody(id) })),
  ];
}

/** The keys that the pictures and fields answer to, for the sheet that `?` opens. */
export const keySheet: readonly (readonly [string, string])[] = [
  ['1, 2', 'the tasks Frame and Convert; other digits, other tasks as they come'],
  ['/', 'search commands and bodies'],
  ['?', 'this sheet'],
  ['T', 'paper or night'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  ['Ctrl S, Ctrl O', 'save the project as a file, open one'],
  ['Tab, then arrows', 'go through what can be grabbed in a picture, and move it'],
  ['Arrows in a number', 'one step; Shift ten steps, Alt a tenth'],
  ['Escape in a number', 'puts back what stood there'],
  ['Drag in the picture', 'turns the camera; with Shift it moves across'],
  ['Wheel in the picture', 'goes ahead or back; with Alt it changes the field of view'],
  ['Drag and wheel in a drawing', 'moves and scales the drawing, never the camera'],
];
