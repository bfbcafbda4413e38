import { Sections, type Section } from '../../sheet/Sections';
import { First } from './First';
import { Home } from './Home';
import { Points } from './Points';
import { Region } from './Region';
import { Screens } from './Screens';
import { Seen } from './Seen';

const section = (id: string, title: string, short: string, Content: Section['Content']): Section => ({ id: `spawn-${id}`, title, short, Content }); // prettier-ignore

const list = [
  section('region', 'Where a body may appear', 'Region', Region),
  section('points', 'Points', 'Points', Points),
  section('screens', 'On other screens', 'Screens', Screens),
  section('seen', 'Until it is seen', 'Until seen', Seen),
  section('first', 'The first frame', 'First frame', First),
  section('home', 'Take it home', 'Files', Home),
];

/** Spawn: appearing out of sight. */
export const SpawnSheet = () => <Sections list={list} />;
