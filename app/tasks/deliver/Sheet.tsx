import { Sections, type Section } from '../../sheet/Sections';
import { Code, Commands, Example, Wish } from './Code';
import { lazyPart } from '../../ui/lazyPart';

// Folded at first: loaded when they are opened.
const TestVectors = lazyPart(() => import('./Vectors').then((module) => module.TestVectors));
const PictureFiles = lazyPart(() => import('./Files').then((module) => module.PictureFiles));
const SceneFiles = lazyPart(() => import('./Files').then((module) => module.SceneFiles));
const Report = lazyPart(() => import('./Files').then((module) => module.Report));

const sections: readonly Section[] = [
  { id: 'deliver-wish', title: 'Take it home', short: 'Wish', Content: Wish },
  { id: 'deliver-code', title: 'Code', short: 'Code', Content: Code },
  { id: 'deliver-example', title: 'Example', short: 'Example', Content: Example },
  { id: 'deliver-vectors', title: 'Test vectors', short: 'Vectors', Content: TestVectors },
  { id: 'deliver-pictures', title: 'Pictures', short: 'Pictures', Content: PictureFiles },
  { id: 'deliver-files', title: 'Files', short: 'Files', Content: SceneFiles },
  { id: 'deliver-report', title: 'Report', short: 'Report', Content: Report },
  { id: 'deliver-commands', title: 'For CI', short: 'CI', Content: Commands },
];

/** Deliver: the camera's mathematics as code, and what takes it home. */
export const DeliverSheet = () => <Sections list={sections} />;
