import { Sections, type Section } from '../../sheet/Sections';
import { usePart } from '../../state/tempo';
import { AimSection } from './Aim';
import { Bench } from './Bench';
import { Ray } from './Ray';
import { SweepSection } from './Sweep';

const ray: Section = { id: 'pick-ray', title: 'Ray', short: 'Ray', Content: Ray };
const bench: Section = { id: 'pick-bench', title: 'The fault bench', short: 'Faults', Content: Bench };
const inSpace: readonly Section[] = [
  ray,
  { id: 'pick-aim', title: 'Aim', short: 'Aim', Content: AimSection },
  bench,
  { id: 'pick-sweep', title: 'The sweep', short: 'Sweep', Content: SweepSection },
];
const onFlat: readonly Section[] = [{ ...ray, title: 'Under a point', short: 'Point' }, bench];

/** Pick: a ray and what it meets, aiming, rays from elsewhere, every pixel picked. */
export function PickSheet() {
  const { flat } = usePart(({ flat }) => ({ flat }));
  return <Sections list={flat ? onFlat : inSpace} />;
}
