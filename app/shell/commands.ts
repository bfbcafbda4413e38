import { presets, type PresetName } from '../../core/conventions/conventions';
import type { Project } from '../../formats/project';
import { redo, undo } from '../state/document';
import { selectNothing, toggleSelected, useSelection } from '../state/selection';
import { keepVersion } from '../state/keep';
import { say } from '../ui/clipboard';
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
  toggleHelp,
  toggleTheme,
} from './actions';
import { addBody, removeBody } from './bodies';

export interface Command {
  readonly name: string;
  readonly keys?: string;
  readonly run: () => void;
  /** One of those that there are for every body. */
  readonly ofBody?: boolean;
}

/** Everything that can be done by name, for the open project. */
export function commandsFor(project: Project, tasks: readonly Task[], go: (route: string) => void): Command[] {
  const flat = project.camera.kind === '2d';
  return [
    ...tasks
      .filter(({ Sheet }) => Sheet)
      .map(({ name, key, route }) => ({ name: `Go to ${name}`, keys: key, run: () => go(route) })),
    ...tasks
      .flatMap(({ commands = [] }) => commands)
      .filter(({ world }) => world === undefined || world === (flat ? 'flat' : 'space')),
    { name: 'Undo', keys: 'Ctrl Z', run: undo },
    { name: 'Redo', keys: 'Ctrl Shift Z', run: redo },
    ...(Object.keys(presets) as PresetName[]).map((name) => ({
      name: `Conventions of ${name}`,
      run: () => choosePreset(name),
    })),
    ...(flat
      ? []
      : [
          { name: 'Make the camera perspective', run: () => setProjectionKind('perspective') },
          { name: 'Make the camera orthographic', run: () => setProjectionKind('orthographic') },
          { name: 'Enlarge the section', run: () => useSettings.setState({ enlarged: 'section' }) },
        ]),
    { name: 'Enlarge the camera’s picture', run: () => useSettings.setState({ enlarged: 'main' }) },
    { name: 'Enlarge the plan', run: () => useSettings.setState({ enlarged: 'plan' }) },
    { name: 'Show all pictures', run: () => useSettings.setState({ enlarged: null }) },
    { name: 'Change between paper and night', keys: 'T', run: toggleTheme },
    { name: 'Help with this task, and the keys', keys: '?', run: toggleHelp },
    ...(project.guide
      ? [{ name: 'Show what to try', run: () => useSettings.setState({ triesAway: false, tried: [] }) }]
      : []),
    { name: 'Save the project as a file', keys: 'Ctrl S', run: saveProject },
    { name: 'Open a project file', keys: 'Ctrl O', run: () => chooseFile() },
    { name: 'All projects and versions', run: () => go('projects') },
    { name: 'Keep a version', run: () => void keepVersion('Kept by hand').then(() => say('Kept a version.')) },
    { name: 'Save as a compute request', run: saveRequest },
    { name: 'Copy as a compute request', run: () => void copyRequest() },
    { name: 'Open the demo, Saltmarrow harbour', run: () => openDemo('harbour') },
    { name: 'Open the demo, Saltmarrow chart', run: () => openDemo('chart') },
    ...(['box', 'sphere', 'point'] as const).map((kind) => ({
      name: `Put a ${kind} at the probe`,
      run: () => addBody(kind),
    })),
    { name: 'Probe a free point', run: () => probeBody(null) },
    ...project.bodies.map(({ id, name }) => ({ name: `Probe ${name}`, run: () => probeBody(id), ofBody: true })),
    { name: 'Select nothing', run: selectNothing },
    ...project.bodies
      .filter(({ parent }) => parent === null)
      .map(({ id, name }) => ({
        name: `${useSelection.getState().ids.includes(id) ? 'Unselect' : 'Select'} ${name}`,
        run: () => toggleSelected(id),
        ofBody: true,
      })),
    ...project.bodies.map(({ id, name }) => ({ name: `Take out ${name}`, run: () => removeBody(id), ofBody: true })),
  ];
}

/** The keys that the pictures and fields answer to, for the sheet that `?` opens. */
export const keySheet: readonly (readonly [string, string])[] = [
  ['1, 2', 'the tasks Frame and Convert; other digits, other tasks as they come'],
  ['/', 'search commands and bodies'],
  ['? or F1', 'this help, and away again; Escape in it too'],
  ['T', 'paper or night'],
  ['Ctrl Z, Ctrl Shift Z', 'undo, redo'],
  [
    'Ctrl S, Ctrl O',
    'save the project as a file, open one (project, request, OBJ, CSV); dropping or pasting one does too',
  ],
  ['Tab, then arrows', 'go through what can be grabbed in a picture, and move it'],
  ['Arrows in a number', 'one step; Shift ten steps, Alt a tenth'],
  ['Escape in a number', 'puts back what stood there'],
  [
    'Drag in the picture',
    'turns the camera; with Shift it moves across. A flat world is taken along; with Shift it turns',
  ],
  [
    'Wheel in the picture',
    'goes ahead or back; with Alt it changes the field of view. A flat world is zoomed; with Alt by whole numbers',
  ],
  ['Click, Ctrl click in the picture', 'probes what is there; selects it, or no longer'],
  ['Drag and wheel in a drawing', 'moves and scales the drawing, never the camera'],
];
