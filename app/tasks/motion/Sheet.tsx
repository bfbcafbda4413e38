import { Sections, type Section } from '../../sheet/Sections';
import { useMoment } from '../../state/tempo';
import { Bodies } from './Bodies';
import { Charts } from './Charts';
import { Drift } from './Drift';
import { Home } from './Home';
import { Order } from './Order';
import { Pixels } from './Pixels';
import { Rates } from './Rates';
import { Steer } from './Steer';
import { Track } from './Track';

const section = (id: string, title: string, short: string, Content: Section['Content']): Section => ({ id: `motion-${id}`, title, short, Content }); // prettier-ignore

const first = [
  section('track', 'The track of the camera', 'Track', Track),
  section('charts', 'Over time', 'Charts', Charts),
  section('rates', 'At other frame rates', 'Frame rates', Rates),
  section('order', 'The order of a frame', 'Order', Order),
];
const last = [
  section('bodies', 'Bodies that move', 'Bodies', Bodies),
  section('home', 'Motions in and out', 'Files', Home),
];
const space = [
  ...first,
  section('drift', 'A basis turned by small steps', 'Drift', Drift),
  section('steer', 'Steering', 'Steer', Steer),
  ...last,
];
const flatWorld = [...first, section('pixels', 'Whole pixels and layers', 'Pixels', Pixels), ...last];

/** Motion: the camera over time. */
export function MotionSheet() {
  const { flat } = useMoment();
  return <Sections list={flat ? flatWorld : space} />;
}
