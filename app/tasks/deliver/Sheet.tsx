import { Sections, type Section } from '../../sheet/Sections';
import { Code, Commands, Example, Wish } from './Code';

const sections: readonly Section[] = [
  { id: 'deliver-wish', title: 'Take it home', short: 'Wish', Content: Wish },
  { id: 'deliver-code', title: 'Code', short: 'Code', Content: Code },
  { id: 'deliver-example', title: 'Example', short: 'Example', Content: Example },
  { id: 'deliver-commands', title: 'For CI', short: 'CI', Content: Commands },
];

/** Deliver: the camera's mathematics as code, and what takes it home. */
export const DeliverSheet = () => <Sections list={sections} />;
