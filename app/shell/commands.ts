import { presets, type PresetName } from '../../core/conventions/conventions';
import type { Project } from '../../formats/project';
import { redo, undo } from '../state/document';
import { selectNothing, toggleSelected, useSelection } from '../state/selection';
import { keepVersion } from '../state/autosave';
import { say } from '../ui/notices';
import { useSettings } from '../state/settings';
import { allCameras } from '../../formats/project';
import {
  deleteCamera,
  duplicateCamera,
  hideSnapshot,
  keepSnapshot,
  lookThrough,
  lookThroughNext,
  showSnapshot,
} from '../edits/cameras';
import { addStartingCamera, addStartingCamera2d, startingCameras, startingCameras2d } from '../edits/addedCameras';
import { moves } from '../state/span';
import { stepFrames, togglePlay, setTime } from '../state/clock';
import { taskNames } from '../tasks/names';
import type { AnyTask } from '../tasks/task';
import {
  choosePreset,
  chooseFile,
  copyLink,
  openDemo,
  openEmpty,
  probeBody,
  setProjectionKind,
  toggleHelp,
  toggleTheme,
} from '../edits/actions';
import { copyRequest, saveProject, saveRequest } from '../edits/exporting';
import { addBody, removeBody } from '../edits/bodies';
import { matrixCommands } from '../edits/matrixTexts';

export interface Command {
  readonly name: string;
  /** Other words that it is found by. */
  readonly words?: string;
  /** Where it is, for what is found rather than done. */
  readonly where?: string;
  readonly keys?: string;
  readonly run: () => void;
  /** One of those that there are for every body. */
  readonly ofBody?: boolean;
}

/** Everything that can be done by name, for the open project. */
export function commandsFor(
  project: Project,
  tasks: readonly AnyTask[],
  go: (route: string) => void,
  find: (task: string | null, selector: string) => void,
): Command[] {
  const flat = project.camera.kind === '2d';
  const inWorld = ({ world }: { world?: 'space' | 'flat' }) =>
    world === undefined || world === (flat ? 'flat' : 'space');
  return [
    ...taskNames.map(({ name, key, route }) => ({ name: `Go to ${name}`, keys: key, run: () => go(route) })),
    ...tasks.flatMap(({ commands = [] }) => commands).filter(inWorld),
    ...allCameras(project)
      .filter(({ id }) => id !== project.camera.id)
      .map(({ id, name }) => ({ name: `Look through ${name}`, run: () => lookThrough(id) })),
    { name: 'Look through the next camera', keys: 'C', run: () => lookThroughNext(1) },
    { name: 'Look through the camera before', keys: 'Shift C', run: () => lookThroughNext(-1) },
    { name: 'Duplicate the camera', run: duplicateCamera },
    { name: 'Delete the camera', run: deleteCamera },
    ...(flat
      ? Object.entries(startingCameras2d).map(([kind, name]) => ({
          name: `Add a camera: ${name}`,
          run: () => addStartingCamera2d(kind as keyof typeof startingCameras2d),
        }))
      : Object.entries(startingCameras).map(([kind, name]) => ({
          name: `Add a camera: ${name}`,
          run: () => addStartingCamera(kind as keyof typeof startingCameras),
        }))),
    { name: 'Keep as a snapshot', words: 'bookmark save frame compare', keys: 'K', run: keepSnapshot },
    { name: 'Hide the snapshot', run: hideSnapshot },
    ...project.snapshots.flatMap(({ id, name }) => [
      { name: `Show the snapshot ${name} beside`, run: () => showSnapshot(id, 'beside') },
      { name: `Show the snapshot ${name} as a second reticle`, run: () => showSnapshot(id, 'reticle') },
    ]),
    ...(moves(project)
      ? [
          { name: 'Play or pause', words: 'run stop animate time', keys: 'Space', run: togglePlay },
          { name: 'Next frame', words: 'step on', keys: 'Shift →', run: () => stepFrames(1) },
          { name: 'Previous frame', words: 'step back', keys: 'Shift ←', run: () => stepFrames(-1) },
          { name: 'To the start of the time rule', words: 'start rewind reset zero', run: () => setTime(0) },
        ]
      : []),
    ...matrixCommands(flat),
    { name: 'Undo', words: 'revert back', keys: 'Ctrl Z', run: undo },
    { name: 'Redo', keys: 'Ctrl Shift Z', run: redo },
    ...(Object.keys(presets) as PresetName[]).map((name) => ({
      name: `Conventions of ${name}`,
      run: () => choosePreset(name),
    })),
    ...(flat
      ? []
      : [
          { name: 'Make the camera perspective', words: 'projection', run: () => setProjectionKind('perspective') },
          {
            name: 'Make the camera orthographic',
            words: 'projection ortho parallel',
            run: () => setProjectionKind('orthographic'),
          },
          { name: 'Enlarge the section', run: () => useSettings.setState({ enlarged: 'section' }) },
        ]),
    { name: 'Enlarge the camera’s picture', run: () => useSettings.setState({ enlarged: 'main' }) },
    { name: 'Enlarge the plan', run: () => useSettings.setState({ enlarged: 'plan' }) },
    {
      name: 'Show all pictures',
      words: 'panes views restore smaller',
      run: () => useSettings.setState({ enlarged: null }),
    },
    { name: 'Change between paper and night', words: 'dark light theme mode colours', keys: 'T', run: toggleTheme },
    { name: 'Help with this task, and the keys', keys: '?', run: toggleHelp },
    ...(project.guide
      ? [
          {
            name: 'Show what to try',
            words: 'exercises tutorial guide',
            run: () => useSettings.setState({ triesAway: false, tried: [] }),
          },
        ]
      : []),
    { name: 'Save the project as a file', words: 'export download', keys: 'Ctrl S', run: saveProject },
    { name: 'Copy a link to the project', words: 'share send URL address', run: () => void copyLink() },
    {
      name: 'Open a project file',
      words: 'import load glTF OBJ CSV image PNG',
      keys: 'Ctrl O',
      run: () => chooseFile(),
    },
    { name: 'All projects and versions', words: 'list history saved', run: () => go('projects') },
    {
      name: 'Keep a version',
      words: 'save history checkpoint',
      run: () => void keepVersion('Kept by hand').then(() => say('Kept a version.')),
    },
    { name: 'Save as a compute request', words: 'export JSON command line', run: saveRequest },
    { name: 'Copy as a compute request', words: 'export JSON command line clipboard', run: () => void copyRequest() },
    { name: 'New 3D project', words: 'empty create blank', run: () => void openEmpty('space') },
    { name: 'New 2D project, y up', words: 'empty create blank', run: () => void openEmpty('flatUp') },
    { name: 'New 2D project, y down', words: 'empty create blank', run: () => void openEmpty('flatDown') },
    { name: 'Open the demo, Saltmarrow harbour', words: 'example sample 3D', run: () => void openDemo('harbour') },
    { name: 'Open the demo, Saltmarrow quay', words: 'example sample 2D', run: () => void openDemo('quay') },
    { name: 'Open the demo, Saltmarrow chart', words: 'example sample 2D', run: () => void openDemo('chart') },
    ...(['box', 'sphere', 'point'] as const).map((kind) => ({
      name: `Add a ${kind} at the probe`,
      run: () => addBody(kind),
    })),
    { name: 'Probe a free point', words: 'cursor marker', run: () => probeBody(null) },
    ...project.bodies.map(({ id, name }) => ({ name: `Probe ${name}`, run: () => probeBody(id), ofBody: true })),
    ...tasks.flatMap(({ finds = [], route, name: task }) =>
      finds.filter(inWorld).map(({ name, at, words }) => ({
        ...{ name, where: `in ${task}`, run: () => find(route, at) },
        ...(words !== undefined && { words }),
      })),
    ),
    ...pageFinds.map(({ name, at, words }) => ({ name, words, where: 'at the top', run: () => find(null, at) })),
    ...tasks.flatMap(({ help, route, name: task }) =>
      (help?.[flat ? 'flat' : 'space'] ?? []).map(({ title, text }) => ({
        ...{ name: title, where: `help with ${task}`, words: text.join(' ').slice(0, 400) },
        run: () => {
          go(route);
          useSettings.setState({ help: true });
          find(route, `.help [data-passage="${CSS.escape(title)}"]`);
        },
      })),
    ),
    { name: 'Select nothing', run: selectNothing },
    ...project.bodies
      .filter(({ parent }) => parent === null)
      .map(({ id, name }) => ({
        name: `${useSelection.getState().ids.includes(id) ? 'Unselect' : 'Select'} ${name}`,
        run: () => toggleSelected(id),
        ofBody: true,
      })),
    ...project.bodies.map(({ id, name }) => ({ name: `Delete ${name}`, run: () => removeBody(id), ofBody: true })),
  ];
}

/** What the page's frame has, whatever the task. */
const pageFinds = [
  {
    name: 'Viewport',
    at: '[data-source="viewport"]',
    words: 'resolution size aspect device pixel ratio DPR width height',
  },
  { name: 'Conventions', at: '[data-source="conventions"]', words: 'axes handedness coordinate system depth range row column major y up z up' }, // prettier-ignore
];

/** The keys that the pictures and fields answer to, for the sheet that `?` opens. */
export const keySheet: readonly (readonly [string, string])[] = [
  ['Digits', 'the tasks, by the digits on the strip'],
  ['/', 'search commands, fields, help and bodies'],
  ['W', 'goes to the worksheet'],
  ['? or F1', 'this help, and away again; Escape in it too'],
  ['T', 'paper or night'],
  ['C, Shift C', 'looks through the next camera, or the one before'],
  ['K', 'keeps the present frame as a snapshot'],
  ['Space, Shift and the side arrows', 'where a project moves: play or pause, a step on or back'],
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
