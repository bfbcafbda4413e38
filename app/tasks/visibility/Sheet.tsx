import { Sections, type Section } from '../../sheet/Sections';
import { usePart } from '../../state/tempo';
import { Bodies } from './Bodies';
import { TestBodies } from './TestBodies';
import { Screens } from './Screens';
import { Shadows } from './Shadows';
import { Size } from './Size';
import { Time } from './Time';
import { Why } from './Why';

const bodies: Section = {
  id: 'visibility-bodies',
  title: 'Bodies against the frustum',
  short: 'Bodies',
  Content: Bodies,
};
const why: Section = { id: 'visibility-why', title: 'Why not', short: 'Why not', Content: Why };
const field: Section = {
  id: 'visibility-field',
  title: 'A field of test bodies',
  short: 'Field',
  Content: TestBodies,
};
const time: Section = { id: 'visibility-time', title: 'Over time', short: 'Time', Content: Time };
const screens: Section = { id: 'visibility-screens', title: 'On other screens', short: 'Screens', Content: Screens };
const size: Section = { id: 'visibility-size', title: 'Size on the screen', short: 'Size', Content: Size };
const shadows: Section = {
  id: 'visibility-shadows',
  title: 'By their shadow alone',
  short: 'Shadows',
  Content: Shadows,
};

/** Visibility: what is in view, why not, on which screens, how large. */
export function VisibilitySheet() {
  const { flat } = usePart(({ flat }) => ({ flat }));
  return (
    <Sections
      list={flat ? [bodies, why, field, time, screens, size] : [bodies, why, field, time, screens, shadows, size]}
    />
  );
}
