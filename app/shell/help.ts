import type { AnyTask, Passage } from '../tasks/task';
import { terms } from '../ui/Term';

/*
 * What the help says beside the tasks' own: for someone who writes cameras and wants to know how
 * this page reads.
 */

const everywhere: readonly Passage[] = [
  {
    title: 'The Chain, and what drives',
    text: [
      'The probe is one point. The Chain on the left has it in every space, a rung a space, in the conventions at the top of the page. One rung drives and has editable figures; “drive from here” on another has the rest follow from it. Arrows leave the driven rung: down for a step of your renderer, up for one undone.',
      'The button on a connector opens its matrix as your conventions list it, with what it multiplies and where its numbers come from.',
    ],
  },
  {
    title: 'Conventions',
    text: [
      'Axes of world and view, NDC, screen origin, pixel centres, matrix layout and angles are set at the top. A change re-expresses every number and moves nothing. If it is the numbers that are right and the convention that was wrong, use “keep the numbers” there: it says beforehand what will move.',
    ],
  },
  {
    title: 'Where a number comes from',
    text: [
      '“Working” opens a result into its formula with the numbers put in. Every number there is a link to the field that set it. Results copy by a click, in the conventions in force and with a plain minus sign.',
    ],
  },
];

const projects: readonly Passage[] = [
  {
    title: 'Kept as you work',
    text: [
      'Every change is kept in this browser within a second. Undo goes back through everything; a version is a state to go back to later, kept by hand or whenever you save a file.',
      'Two tabs on one project go along with each other. Where both have changed it, yours is kept as a version and you say which goes on.',
    ],
  },
  {
    title: 'What comes in',
    text: [
      'A project file, a compute request, an OBJ model, points as CSV: chosen here each becomes a project of its own. Numbers of a model or of points are read in the conventions in force. What cannot be read is named by its line, and nothing changes.',
    ],
  },
];

const words: Passage = {
  title: 'Words of this page',
  text: Object.values(terms).map(([name, says]) => `${name}: ${says}.`),
};

/** The passages for a task, the most particular first; without one, for the page of projects. */
export const helpFor = (task: AnyTask | null, flat: boolean): readonly Passage[] => [
  ...(task ? (task.help?.[flat ? 'flat' : 'space'] ?? []) : projects),
  ...everywhere,
  words,
];
